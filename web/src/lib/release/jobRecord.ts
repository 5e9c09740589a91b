/** What a job's record says: one structure for the page, its print and the PDF. */
import { stateOf } from '$lib/jobs/stateOf';
import { damageWords, WHOSE } from '$lib/intake/damage';
import { formatMoney } from '$lib/intake/money';
import { landWords, partWords } from '$lib/hands/heatWords';
import { recordWords } from '$lib/donor/recordWords';
import { partHistory } from '$lib/hands/partHistory';
import { markRows, type MarkRow } from '$lib/hands/marks';
import { placeName } from '$lib/diagnose/place';
import { SWAP_WORDS, swapOutcome } from '$lib/diagnose/words';
import { nameOf } from '$lib/jobs/nameOf';
import { type RecordSummary, summaryOf } from './recordSummary';
import type { JobView } from '$lib/jobs/view';
import { formatReading, type UnitSettings } from '@orthos/core/ground';
import { drawnMark, judgeOrientation, SLIPS } from '@orthos/core/hands';
import { type Operation } from '@orthos/core/rework';
import {
  attemptsOf,
  benchMinutes,
  COMPLAINT,
  copyOf,
  type Heats,
  heatsOf,
  legsCleaned,
  type JobState,
  jointStates,
  openGates,
  outcomeWord,
  shortSum,
  type Stored,
  screwsOut,
  STOPS,
} from '@orthos/core/job';

interface ReportRun {
  title: string;
  method: string;
  notes: string[];
  rows: MarkRow[];
  /** Predicted melting of every joint, s. */
  joints: { terminal: string; wet_s: number | null }[];
}

export interface JobRecord {
  title: string;
  subtitle: string;
  facts: [string, string][];
  outcome: string;
  /** In a minute, for the owner. */
  summary: RecordSummary;
  attempts: {
    title: string;
    why: string;
    /** What was measured and what it ruled out. */
    story: string[];
    readings: string[];
    facts: [string, string][];
    runs: ReportRun[];
    /** How it was proven: joints, pins, neighbours, first power. */
    proven: [string, string][];
  }[];
  /** Empty where none was made. */
  shortCheck: string;
  functions: { name: string; before: string; after: string; closed: string }[];
  /** Parts changed for a good board's while searching. */
  swaps: string[];
  notDone: string[];
  overrides: string[];
  slips: string[];
  /** What was written down at intake. */
  intake: [string, string][];
  damage: string[];
  extras: string[];
  leadUsed: boolean;
}

/** A record goes to people whose units nobody knows. */
const CELSIUS: UnitSettings = { temperature: 'C', length: 'mm' };
const VERBS: Record<Operation, string> = { remove: 'Taking off', prepare: 'Cleaning', fit: 'Putting on' };

function intakeRows(job: JobState): [string, string][] {
  const { complaintTried: tried, startUps, proof, offer, taken, warranty } = job.intake;
  const out = screwsOut(job.intake);
  const rows: [string, string | undefined][] = [
    [
      'Complaint here',
      tried && `${tried.seen === 'as told' ? 'seen as told' : tried.seen}${tried.note ? `, ${tried.note}` : ''}`,
    ],
    ['How it began', job.onset.join(', ')],
    [
      'Start-up',
      startUps
        .slice(0, job.beforeWork?.startUps)[0]
        ?.stages.map((s) => `${s.stage} ${formatReading(s.current_A, 'current')}${s.simulated ? ' (simulated)' : ''}`)
        .join(', '),
    ],
    ['Proof', proof && `${proof.by === 'running' ? 'run' : 'measured only'}, ${proof.why}`],
    [
      'Price',
      offer &&
        (offer.tiers.find((t) => t.label === taken) ? [offer.tiers.find((t) => t.label === taken)] : offer.tiers)
          .map((t) => t && `${t.label} ${formatMoney(t.price_minor, offer.currency)}`)
          .join(', '),
    ],
    ['Warranty', warranty && `${warranty.months} months ${warranty.terms}`],
    ['Screws', out > 0 ? `${out} not back in` : undefined],
  ];
  return rows.flatMap(([name, value]): [string, string][] => (value ? [[name, value]] : []));
}

const inBrackets = (words: (string | false | undefined)[]): string => {
  const said = words.filter((w) => w);
  return said.length > 0 ? ` (${said.join(', ')})` : '';
};

/** What lands and part went through over all attempts. */
const heatFacts = ({ lands, part }: Heats): [string, string][] =>
  lands.times > 0 ? [['Heat', [landWords({ ...lands, left: null }), partWords(part)].filter(Boolean).join('; ')]] : [];

/** Whether the complaint itself is gone, once it was tried. */
function complaintFact(job: JobState): [string, string][] {
  const after = job.functions.get(COMPLAINT)?.after;
  return after === 'works' || after === 'dead' ? [['Complaint', after === 'works' ? 'gone' : 'still there']] : [];
}

/** What was found at the part that came off, and where the one that went on is from. */
function attemptFacts(attempt: JobState['attempts'][number], job: JobState, drawn: string | null): [string, string][] {
  const { partOff, offBoardTest: old, newPart, orientation, suspect } = attempt;
  const came = suspect && job.came.get(suspect.partId);
  const to = attempt.ofSet === undefined ? undefined : job.set?.items.get(attempt.ofSet)?.to;
  const line =
    old?.recovered === undefined ? '' : `, the line ${old.recovered ? 'came back' : 'was still wrong'} without it`;
  const rows: [string, string | undefined][] = [
    ['Came off', partOff && partHistory(partOff, CELSIUS)],
    ['Off the board', old && `${old.result}${line}`],
    [
      'Put on',
      newPart &&
        [
          newPart.origin === 'donor board' ? 'from a donor board' : newPart.origin,
          newPart.from,
          newPart.donor && `its board ${newPart.donor}`,
          newPart.substitute && `${newPart.substitute.number} instead: ${newPart.substitute.why}`,
          `measured ${newPart.ok ? 'good' : 'bad'}${newPart.note ? `: ${newPart.note}` : ''}`,
        ]
          .filter(Boolean)
          .join(', '),
    ],
    ['Came with it', came && recordWords(came.record, came.from.number, CELSIUS, legsCleaned(attempt.runs)).join('; ')],
    ['Went', to && `to No. ${to.number}`],
    ['Lands', [...attempt.landRepairs].map(([key, { how }]) => `${key}: ${how}`).join(', ')],
    ['Way round', orientation && wayRound(orientation, drawn)],
    ['Held', heldWords(suspect && job.stored.get(suspect.partId))],
  ];
  return rows.flatMap(([name, value]): [string, string][] => (value ? [[name, value]] : []));
}

function wayRound(
  { seen, against }: NonNullable<JobState['attempts'][number]['orientation']>,
  drawn: string | null,
): string {
  if (!seen) return `checked against ${against.join(', ')}`;
  return judgeOrientation(seen, drawn).why;
}

/** What the part held, whether it was copied, and whether it is there again. */
function heldWords(stored: Stored | undefined): string {
  if (!stored?.holds?.length) return '';
  const { state, read } = copyOf(stored);
  const now = stored.after.at(-1);
  const data = [
    state === 'copy' ? `data read twice alike, ${shortSum(read?.checksum ?? '')}` : 'data not copied',
    now && `${now.checksum === read?.checksum ? 'the same' : 'not the same'} after`,
  ];
  return [
    ...(stored.holds.includes('data') ? data : []),
    stored.firmware && `firmware ${stored.firmware}`,
    stored.settings !== undefined && (stored.settings || 'settings set again'),
  ]
    .filter(Boolean)
    .join(', ');
}

/** Gates of the last attempt that say how it was proven, once anybody looked. */
const PROVEN_BY = ['joints', 'legs', 'pins', 'surroundings-after'];

/** What was found of joints, pins and neighbours, and how power went on. */
function provenRows(
  attempt: JobState['attempts'][number],
  job: JobState,
  view: JobView,
  last: boolean,
): [string, string][] {
  const { stopped, proofs, looked } = attempt.proven;
  const found: [string, string][] = last
    ? view.gates
        .filter((g) => PROVEN_BY.includes(g.id) && g.state !== 'unknown')
        .map((g) => [
          g.label,
          `${g.why}${g.id === 'pins' && [...proofs.values()].some((p) => p.simulated) ? ' (some simulated)' : ''}`,
        ])
    : [
        [
          'Joints',
          [...attempt.joints]
            .filter(([, s]) => s !== 'good')
            .map(([t, s]) => `${t} ${s}`)
            .join(', '),
        ],
        [
          'Neighbours',
          [...looked]
            .filter(([, s]) => s !== 'as before')
            .map(([id, s]) => `${nameOf(view.board, id)} ${s}`)
            .join(', '),
        ],
      ];
  const since = job.beforeWork && last ? job.intake.startUps.slice(job.beforeWork.startUps) : [];
  const powered = since.map((s): [string, string] => [
    'First power',
    s.stages
      .map(
        (p) =>
          `${p.stage} ${formatReading(p.current_A, 'current')} of ${formatReading(p.limit_A, 'current')}${p.simulated ? ' (simulated)' : ''}`,
      )
      .join(', '),
  ]);
  const cut: [string, string] = [
    'First power stopped',
    stopped
      ? [STOPS[stopped.stop], stopped.rail, stopped.why, stopped.simulated && 'simulated'].filter(Boolean).join(', ')
      : '',
  ];
  return [...found, ...powered, cut].filter(([, value]) => value);
}

export function recordOf(view: JobView, date: (ms: number) => string): JobRecord {
  const job = stateOf(view.events);
  const released = job.released;
  const minutes = released?.minutes ?? Math.round(benchMinutes(view.events));
  const gates = openGates(view.gates, view.ticket.kind).filter((g) => g.id !== 'outcome');
  const lead = released?.lead ?? view.leadUsed;
  const heats = heatsOf(job);
  const drawnAt = ({ suspect }: JobState['attempts'][number]) => {
    const part = view.board.parts.find((p) => p.partId === suspect?.partId);
    return part ? drawnMark(part) : null;
  };
  return {
    title: `No. ${view.ticket.number} ${view.ticket.device}`,
    subtitle: view.ticket.complaint,
    facts: [
      ['Customer', view.customer.name],
      ['Board', `${view.board.name}${view.serial ? `, ${view.serial}` : ''}`],
      ['Taken in', date(view.ticket.createdAt)],
      ['Released', released ? date(released.at) : 'not yet'],
      ['Bench time', `${minutes} min`],
      ...complaintFact(job),
      ...heatFacts(heats),
      ['Lead', lead ? 'leaded solder was used' : 'no lead used'],
      ...(view.reopenings.earlier ? [['Takes up', `No. ${view.reopenings.earlier.number}`] as [string, string]] : []),
      ...(view.reopenings.later.length > 0
        ? [['Taken up by', view.reopenings.later.map((r) => `No. ${r.number}`).join(', ')] as [string, string]]
        : []),
    ],
    outcome: released
      ? `${outcomeWord(view.ticket.kind, released.outcome)}${released.reason ? `, ${released.reason}` : ''}${released.note ? `: ${released.note}` : ''}`
      : 'not released',
    summary: summaryOf(view),
    attempts: job.attempts
      .map((a, i): JobRecord['attempts'][number] => ({
        title: `${a.ofSet === undefined && attemptsOf(job).length > 1 ? `Attempt ${i + 1}: ` : ''}${a.suspect ? nameOf(view.board, a.suspect.partId) : 'no part chosen'}`,
        why: a.suspect?.why ?? '',
        story: a.suspect?.story ?? [],
        readings:
          i === job.attempts.length - 1
            ? job.readings.map(
                (r) =>
                  `${placeName(view.board, r.place)} ${formatReading(r.value, r.quantity)}${inBrackets([r.probe?.simulated && 'simulated', r.good !== null && `good ${formatReading(r.good, r.quantity)}`])}`,
              )
            : [],
        facts: attemptFacts(a, job, drawnAt(a)),
        runs: a.runs.map((run) => ({
          title: VERBS[run.op],
          method: run.op === 'prepare' ? '' : run.method,
          notes: [
            ...(run.ended?.outcome === 'given up' ? ['given up'] : []),
            ...run.changes,
            ...(run.bench ? ['played by a hidden bench'] : []),
            ...(run.offline ? ['begun while the server was away'] : []),
            ...[...jointStates(run)].filter(([, s]) => s !== 'done').map(([t, s]) => `joint ${t} ${s}`),
          ],
          rows: markRows(run),
          joints: run.guide?.joints ?? [],
        })),
        proven: provenRows(a, job, view, i === job.attempts.length - 1),
      }))
      .filter((a) => a.why || a.readings.length + a.facts.length + a.runs.length + a.proven.length > 0),
    shortCheck: job.attempts.some((a) => a.shortChecks.length > 0)
      ? (view.gates.find((g) => g.id === 'short-check')?.why ?? '')
      : '',
    functions: [...job.functions]
      .filter(([name, f]) => name !== COMPLAINT && (f.before ?? f.after))
      .map(([name, f]) => ({ name, before: f.before ?? '', after: f.after ?? 'not tried', closed: f.closed ?? '' })),
    swaps: [...job.swapped].map(
      ([partId, swap]) => `${nameOf(view.board, partId)} ${SWAP_WORDS[swap.how].how}: ${swapOutcome(swap)}`,
    ),
    notDone: gates.filter((g) => !g.overridden).map((g) => `${g.label}: ${g.why}`),
    overrides: job.overrides.map((o) => `${view.gates.find((g) => g.id === o.gate)?.label ?? o.gate}: ${o.why}`),
    slips: job.slips.map(
      (s) =>
        `${SLIPS[s.kind].label}${s.partId ? `, ${nameOf(view.board, s.partId)}` : ''}: ${s.checked ? s.checked.result : 'not looked at'}`,
    ),
    intake: intakeRows(job),
    damage: job.intake.damage.map((d) => `${WHOSE[d.whose]}: ${damageWords(view.board, d)}`),
    extras: [...job.intake.extras].map(([name, state]) => `${name}: ${state}`),
    leadUsed: lead,
  };
}
