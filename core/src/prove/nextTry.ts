/** From what shows after the work to what is tried next: the likeliest that is cheapest to look at first, each with its reasons. */
import { type NamedPin, pinsFor } from './pinsFor.ts';

export const SYMPTOMS = {
  'no output': 'no output, nothing happens',
  'still there': 'the complaint is still there',
  'dead since': 'worked before, dead now',
  shorted: 'a rail is short',
  'over-voltage': 'too much voltage on a rail',
  'draws more': 'draws more than a good unit',
  'draws less': 'draws less than a good unit',
  pops: 'it pops again',
  hot: 'runs hot',
  'now and then': 'comes and goes',
} as const;
export type Symptom = keyof typeof SYMPTOMS;
export const isSymptom = (s: string): s is Symptom => Object.hasOwn(SYMPTOMS, s);

/** What is known of the part that was put on, and of what stands round it. */
export interface Proofs {
  /** What does not work, as it is called. */
  fn?: string;
  pins: readonly NamedPin[];
  polarised: boolean;
  /** Joints nobody can see. */
  hidden: boolean;
  /** Joints that matter, as they were found: bridge, open, lifted … */
  joints: Readonly<Record<string, string>>;
  /** Pins next to one another that read as one, and pins without a way to their track. */
  bridged: readonly string[];
  broken: readonly string[];
  /** Joints not looked at, not pushed or not measured yet. */
  unproven: number;
  tilted: boolean;
  wayRound: 'agrees' | 'differs' | 'by word' | 'not checked';
  part: { origin: string | null; donor: string | null; substitute: boolean; measured: boolean | null };
  /** By name: seen not as they were. */
  hurt: readonly string[];
  /** What the part holds is not back. */
  storedOpen: boolean;
  /** Slips that nobody followed up. */
  slips: number;
  /** The supply held it at its limit. */
  limited: boolean;
  /** Cables and plugs that are off still. */
  unplugged: number;
  /** Leaded, low-melt or flux residue was left to wash. */
  fluxLeft: boolean;
  /** The part that came off was found good. */
  oldGood: boolean;
  attempts: number;
}

type Try =
  | 'bridge'
  | 'open joint'
  | 'through'
  | 'tilt'
  | 'way round'
  | 'right part'
  | 'lost part'
  | 'cause'
  | 'not it'
  | 'neighbour'
  | 'plugs'
  | 'stored'
  | 'sense'
  | 'residue'
  | 'loads'
  | 'limit'
  | 'debris';

/** What is done, and about how long it takes, min (bench judgement). */
const TRIES: Record<Try, { what: string; minutes: number }> = {
  bridge: { what: 'look between the pins under light from the side, measure neighbours apart in ohms', minutes: 2 },
  'open joint': { what: 'push every leg; flux and heat on what gives, solder last', minutes: 3 },
  through: { what: 'measure from each leg to where its track goes', minutes: 3 },
  tilt: { what: 'look flat across the part from two sides: one side high means open joints', minutes: 1 },
  'way round': { what: 'check its mark against the board once more, without power', minutes: 1 },
  'right part': { what: 'read its marking and hold it against the old one and the list', minutes: 1 },
  'lost part': { what: 'measure the part itself against a new one', minutes: 4 },
  cause: {
    what: 'look for what killed the first: its load, its driver, its supply; no third part before',
    minutes: 10,
  },
  'not it': { what: 'go back to the readings: it was not this part, or not this part alone', minutes: 5 },
  neighbour: { what: 'look at and measure what stands round it', minutes: 3 },
  plugs: { what: 'plug in what is still off', minutes: 1 },
  stored: { what: 'load or restore what the part holds', minutes: 5 },
  sense: { what: 'measure the divider and the sense pin that set this voltage, joints first', minutes: 3 },
  residue: { what: 'wash with alcohol, brush, dry warm, try again', minutes: 4 },
  loads: { what: 'take the loads off one by one and start again', minutes: 4 },
  limit: {
    what: 'raise the limit to twice the start-up current for its time: a tight limit latches converters',
    minutes: 2,
  },
  debris: { what: 'look for solder balls and hairs, under the part too; brush and blow', minutes: 2 },
};

interface Rule {
  tried: Try;
  /** Weight among the tries of this symptom. */
  weight: number;
  why: string;
}
const rule = (tried: Try, weight: number, why: string): Rule => ({ tried, weight, why });

/** Weights are bench judgement; what was measured on this job changes them below. */
const TABLE: Record<Symptom, readonly Rule[]> = {
  'no output': [
    rule('open joint', 5, 'an open joint is what hands leave most often'),
    rule('tilt', 2, 'a part that floated is open along one side'),
    rule('through', 3, 'a land that moved breaks its track or its via'),
    rule('plugs', 2, 'a plug is forgotten easily'),
    rule('limit', 1, 'a limit set too tight looks like a dead board'),
    rule('way round', 2, 'turned, it does nothing at best'),
    rule('lost part', 1.5, 'heat or charge kills parts on their way'),
    rule('stored', 1, 'a new part that needs firmware does nothing without'),
    rule('right part', 1, 'a look-alike from the same drawer'),
    rule('not it', 1, 'the suspect may have been innocent'),
  ],
  'still there': [
    rule('not it', 3, 'a good part in its place changed nothing'),
    rule('open joint', 3, 'a new part with an open pin shows the old fault'),
    rule('through', 2, 'track or via may be the fault itself'),
    rule('right part', 1, 'one of another value brings the same fault'),
    rule('lost part', 1, 'the new one may be bad as well'),
    rule('stored', 1, 'old data, or none, brings the fault back'),
  ],
  'dead since': [
    rule('plugs', 3, 'what is unplugged does not work'),
    rule('neighbour', 4, 'what stood in the heat or was bumped comes first'),
    rule('open joint', 2, 'a pin of the new part serves that too'),
    rule('bridge', 2, 'solder between pins takes both down'),
    rule('residue', 1, 'flux under plugs and keys insulates'),
    rule('stored', 1.5, 'settings went with the old part or its supply'),
  ],
  shorted: [
    rule('bridge', 6, 'solder between neighbours is the usual short after work'),
    rule('debris', 3, 'balls roll under parts'),
    rule('way round', 3, 'a turned part shorts its supply'),
    rule('lost part', 3, 'a part killed by heat or charge is short'),
    rule('neighbour', 2, 'a cracked ceramic nearby is short'),
    rule('right part', 1, 'a look-alike with other pins'),
    rule('not it', 1, 'the first short may have been elsewhere'),
  ],
  'over-voltage': [
    rule('sense', 6, 'without its sense a regulator goes to its end stop'),
    rule('bridge', 2, 'input and output pins next to one another'),
    rule('right part', 3, 'another version gives another voltage'),
    rule('open joint', 2, 'ground or sense pin open'),
    rule('lost part', 1, 'a regulator that is through passes its input'),
  ],
  'draws more': [
    rule('bridge', 3, 'a bridge between pins that are not supplies'),
    rule('loads', 2, 'a load may have been hurt as well'),
    rule('way round', 2, 'a turned part leads backwards'),
    rule('neighbour', 2, 'a part leaks after heat'),
    rule('lost part', 2, 'it leaks inside'),
    rule('residue', 1, 'flux that is not dry conducts'),
    rule('right part', 1, 'another type draws otherwise'),
  ],
  'draws less': [
    rule('open joint', 4, 'what is not soldered draws nothing'),
    rule('plugs', 3, 'a load is still off'),
    rule('limit', 3, 'held back by its limit it never starts'),
    rule('through', 2, 'a track or via is broken'),
    rule('tilt', 2, 'a part that floated is open along one side'),
    rule('stored', 1.5, 'a chip without its firmware sleeps'),
  ],
  pops: [
    rule('cause', 12, 'twice the same death has a cause outside the part'),
    rule('way round', 4, 'turned, it dies at once'),
    rule('right part', 3, 'too small a rating dies again'),
    rule('bridge', 2, 'output on supply'),
    rule('sense', 1, 'too much voltage kills its load'),
  ],
  hot: [
    rule('loads', 3, 'a load draws too much'),
    rule('bridge', 2, 'half a short heats without tripping anything'),
    rule('right part', 1, 'a substitute with more loss'),
    rule('open joint', 2, 'centre pad or tab without solder passes no heat'),
    rule('cause', 2, 'what it drives or feeds is not right'),
    rule('way round', 1, 'turned, it conducts'),
  ],
  'now and then': [
    rule('open joint', 5, 'touching, not soldered'),
    rule('through', 3, 'a cracked track or a lifted land makes contact as it likes'),
    rule('tilt', 1.5, 'one side hardly wetted'),
    rule('plugs', 2, 'a plug not home'),
    rule('residue', 2, 'damp flux leaks'),
    rule('debris', 1, 'a ball rolls about'),
    rule('not it', 1, 'a cracked joint elsewhere'),
  ],
};

export interface NextTry {
  id: Try;
  what: string;
  minutes: number;
  /** The symptom's reason, then what this job says for or against it. */
  why: string[];
  /** Where: pins, parts. */
  at: string[];
  /** Worth per minute, highest first. */
  score: number;
}

/** What of this job speaks for a try: a factor, the reason and the places. */
function evidence(known: Proofs): Partial<Record<Try, { by: number; why: string; at?: readonly string[] }>> {
  const joints = Object.entries(known.joints);
  const found = (...states: string[]) => joints.filter(([, s]) => states.includes(s)).map(([t]) => t);
  const [bridges, opens] = [[...found('bridge'), ...known.bridged], found('open', 'lifted', 'weak')];
  const { part } = known;
  const says: ReturnType<typeof evidence> = {};
  if (bridges.length > 0) says.bridge = { by: 20, why: 'a bridge was found', at: bridges };
  if (opens.length > 0) says['open joint'] = { by: 20, why: 'an open joint was found', at: opens };
  else if (known.unproven === 0 && !known.hidden)
    says['open joint'] = { by: 0.2, why: 'every joint was looked at and proven' };
  else if (known.hidden)
    says['open joint'] = { by: 1.5, why: 'its joints are hidden: heat it once with flux, or look by X-ray' };
  if (known.broken.length > 0) says.through = { by: 20, why: 'no way from leg to track', at: known.broken };
  if (found('ball').length > 0) says.debris = { by: 20, why: 'a ball was seen', at: found('ball') };
  if (known.tilted) says.tilt = { by: 10, why: 'it was marked as tilted' };
  if (!known.polarised) says['way round'] = { by: 0, why: '' };
  else if (known.wayRound === 'differs') says['way round'] = { by: 30, why: 'marks do not agree' };
  else if (known.wayRound === 'agrees') says['way round'] = { by: 0.05, why: 'marks agree' };
  else if (known.wayRound === 'by word') says['way round'] = { by: 0.7, why: 'checked by word alone' };
  else if (known.wayRound === 'not checked') says['way round'] = { by: 4, why: 'nobody checked it' };
  if (part.substitute) says['right part'] = { by: 4, why: 'another part than the old one was put on' };
  if (part.measured === false) says['lost part'] = { by: 20, why: 'it was measured bad before it went on' };
  else if (part.origin === 'donor board' && part.donor !== 'ran until it came off')
    says['lost part'] = { by: 3, why: 'from a board of which nobody knows that it ran' };
  else if (part.measured === null && part.origin !== null) says['lost part'] = { by: 1.5, why: 'not measured before' };
  if (known.hurt.length > 0) says.neighbour = { by: 15, why: 'seen not as it was', at: known.hurt };
  else if (known.slips > 0) says.neighbour = { by: 3, why: 'a slip that nobody followed up' };
  if (known.unplugged > 0) says.plugs = { by: 3, why: `${known.unplugged} still off by the list of opening` };
  if (known.storedOpen) says.stored = { by: 8, why: 'what it holds is not back' };
  if (known.limited) says.limit = { by: 6, why: 'the supply held it at its limit' };
  if (known.fluxLeft) says.residue = { by: 4, why: 'flux was seen at its joints' };
  if (known.oldGood) says['not it'] = { by: 5, why: 'the one that came off was good' };
  else if (known.attempts > 1) says['not it'] = { by: 2, why: 'not the first attempt' };
  return says;
}

/** Ranked by what it is likely to be, per minute it takes; what this job rules out is left out. */
export function nextTries(symptom: Symptom, known: Proofs): NextTry[] {
  const says = evidence(known);
  const first = pinsFor(known.fn, known.pins).map((p) => `${p.terminal} ${p.net}`);
  return TABLE[symptom]
    .flatMap(({ tried, weight, why }): NextTry[] => {
      const said = says[tried];
      const worth = weight * (said?.by ?? 1);
      // a prepared part without data or firmware has nothing to restore
      if (worth <= 0 || (tried === 'stored' && !known.storedOpen) || (tried === 'plugs' && known.unplugged === 0))
        return [];
      const { what, minutes } = TRIES[tried];
      const pins = tried === 'open joint' || tried === 'through' || tried === 'sense' ? first : [];
      return [
        {
          id: tried,
          what,
          minutes,
          why: [why, said?.why ?? ''].filter(Boolean),
          at: [...(said?.at ?? pins)].slice(0, 6),
          score: worth / Math.sqrt(minutes),
        },
      ];
    })
    .sort((a, b) => b.score - a.score);
}
