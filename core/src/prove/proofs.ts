/** Readings without power that prove a part is soldered: neighbouring pins apart, every pin through to its track. */
import { type BoardModel, isGroundNet, partName, type PlacedPart, solderedTerminals, toBoard } from '../board/index.ts';
import { judgeShort } from '../diagnosis/index.ts';
import { formatReading } from '../ground/index.ts';
import type { Terminal } from '../packages/index.ts';
import { rowsOf } from '../rework/index.ts';
import { type Place, type Probed, proofKey, type ProofReading } from './proofKey.ts';

export interface Proof extends Probed {
  key: string;
  net?: string;
  toNet?: string;
  /** A part of two ends that lies between both nets. */
  linkedBy?: string;
  /** One of both is ground, the other a rail of which this is known, Ω. */
  rail?: { label: string; good_ohm: number | null; nature: { why: string; least_ohm: number } | null };
}

/** A joint and a track are less than this together, two leads taken off, Ω (bench judgement). */
const THROUGH_OHM = 1;
const BROKEN_OHM = 10;
/** Solder between two pins reads less than this, leads and all, Ω. */
const BRIDGE_OHM = 1;
const LEADS_OHM = 0.3;

/** A tip reaches it with the part on. */
const reached = ({ kind }: Terminal): boolean => kind !== 'ball' && kind !== 'pad';

/** Everything there is to prove of this part on this board, row by row; a part of two ends has no neighbours of its own. */
export function proofsOf(board: Pick<BoardModel, 'parts' | 'rails'>, part: PlacedPart): Proof[] {
  const open = solderedTerminals(part).filter(reached);
  const here = new Set(open.map((t) => t.id));
  const nets = part.nets ?? {};
  const around = aroundOf(board, part);
  const proofs: Proof[] = [];
  const add = (proof: Omit<Proof, 'key'>) => proofs.push({ ...proof, key: proofKey(proof) });
  if (open.length > 2)
    for (const { terminals } of rowsOf(part.package)) {
      const row = terminals.filter((t) => here.has(t));
      for (const [n, a] of row.slice(1).entries()) {
        const [terminal, to] = [row[n], { partId: part.partId, terminal: a }];
        const [net, toNet] = [nets[terminal], nets[a]];
        if (net !== undefined && net === toNet) continue;
        const linkedBy = net && toNet ? linkBetween(around, net, toNet) : undefined;
        const rail = net && toNet ? railOf(board, net, toNet) : undefined;
        add({ kind: 'apart', terminal, to, ...named({ net, toNet, linkedBy, rail }) });
      }
    }
  for (const t of open) {
    const net = nets[t.id];
    const to = net === undefined ? undefined : nearestOn(around, part, t, net);
    if (net !== undefined && to) add({ kind: 'through', terminal: t.id, to, net });
  }
  return proofs;
}

const named = <T extends object>(of: T) =>
  Object.fromEntries(Object.entries(of).filter(([, v]) => v !== undefined)) as { [K in keyof T]?: NonNullable<T[K]> };

/** Other parts by the nets that they share with one. */
function aroundOf({ parts }: Pick<BoardModel, 'parts'>, part: PlacedPart): ReadonlyMap<string, PlacedPart[]> {
  const around = new Map(Object.values(part.nets ?? {}).map((net) => [net, [] as PlacedPart[]]));
  for (const other of parts)
    if (other.partId !== part.partId)
      for (const net of new Set(Object.values(other.nets ?? {}))) around.get(net)?.push(other);
  return around;
}
type Around = ReturnType<typeof aroundOf>;

/** The nearest other place of a net. */
function nearestOn(around: Around, part: PlacedPart, own: Terminal, net: string) {
  const [x, y] = toBoard(part, own.land.x, own.land.y);
  let best: { to: Place; far: number } | undefined;
  for (const other of around.get(net) ?? []) {
    for (const t of solderedTerminals(other)) {
      if (other.nets?.[t.id] !== net || !reached(t)) continue;
      const [ox, oy] = toBoard(other, t.land.x, t.land.y);
      const far = Math.hypot(ox - x, oy - y);
      if (!best || far < best.far) best = { to: { partId: other.partId, terminal: t.id }, far };
    }
  }
  return best?.to;
}

function linkBetween(around: Around, a: string, b: string): string | undefined {
  const part = around.get(a)?.find(({ nets = {} }) => {
    const ends = Object.values(nets);
    return ends.length === 2 && ends.includes(a) && ends.includes(b);
  });
  return part && [partName(part), part.value].filter(Boolean).join(', ');
}

/** A rail against ground reads what the rail reads. */
function railOf({ parts, rails = [] }: Pick<BoardModel, 'parts' | 'rails'>, a: string, b: string): Proof['rail'] {
  const live = isGroundNet(a) ? b : isGroundNet(b) ? a : undefined;
  if (live === undefined) return undefined;
  const rail = rails.find((r) => parts.find((p) => p.partId === r.partId)?.nets?.[r.terminal] === live);
  return rail && { label: rail.label, good_ohm: rail.good_ohm ?? null, nature: rail.nature ?? null };
}

interface ProofVerdict {
  state: 'met' | 'unmet' | 'unknown';
  why: string;
}

/** What one reading says. A beep proves that a track is whole, never that two pins are bridged: that takes ohms. */
export function judgeProof(proof: Proof, read: ProofReading): ProofVerdict {
  const verdict = (state: ProofVerdict['state'], why: string): ProofVerdict => ({ state, why });
  if ('said' in read) {
    const beeps = read.said === 'beeps';
    if (proof.kind === 'through') return beeps ? verdict('met', 'beeps') : verdict('unmet', 'no way through');
    return beeps ? verdict('unknown', 'beeps: measure it in ohms') : verdict('met', 'silent');
  }
  const told = formatReading(read.ohm, 'ohm');
  const ohm = read.ohm === 'OL' ? Infinity : Math.max(0, read.ohm - LEADS_OHM);
  if (proof.kind === 'through') {
    if (ohm <= THROUGH_OHM) return verdict('met', told);
    return ohm < BROKEN_OHM
      ? verdict('unknown', `${told}: a thin joint, or a long track`)
      : verdict('unmet', `${told}: open`);
  }
  if (proof.rail) {
    const { state, why } = judgeShort({ rail: proof.rail.label, ohm: read.ohm, ...proof.rail });
    return verdict(state === 'unmet' ? 'unmet' : state, why);
  }
  if (ohm >= BROKEN_OHM) return verdict('met', told);
  if (proof.linkedBy) return verdict('unknown', `${told}: ${proof.linkedBy} lies between; compare with a good board`);
  return ohm < BRIDGE_OHM
    ? verdict('unmet', `${told}: bridged`)
    : verdict('unknown', `${told}: low; compare with a good board`);
}

/** Where one puts the other probe. */
export function proofWords(board: Pick<BoardModel, 'parts'>, proof: Proof): string {
  if (proof.kind === 'apart')
    return `${proof.terminal} and ${proof.to.terminal}${proof.net && proof.toNet ? `, ${proof.net} and ${proof.toNet}` : ''}`;
  const other = board.parts.find((p) => p.partId === proof.to.partId);
  return `${proof.terminal} to ${other ? partName(other) : proof.to.partId}.${proof.to.terminal}${proof.net ? `, ${proof.net}` : ''}`;
}
