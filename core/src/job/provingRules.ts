/** The gates of proving what was done: verify and release. */
import { judgeShort } from '../diagnosis/index.ts';
import { compareReading } from '../ground/index.ts';
import { judgeProof, jointMatters } from '../prove/index.ts';
import { checked, type GateRule, type Judgement, met, unknown, unmet } from './gateRule.ts';
import { closingSteps } from './intake.ts';
import { isFitted, isOff, type JobState } from './jobState.ts';
import { STOPS } from './stops.ts';
import { copyOf, shortSum, type Stored } from './stored.ts';
import type { Holding } from './storedForms.ts';

/** The function list's entry for the complaint: "works" means that it is gone. */
export const COMPLAINT = 'the complaint';

export const PROVING_RULES: GateRule[] = [
  {
    id: 'restored',
    step: 'verify',
    label: 'Nothing left off by mistake',
    hard: true,
    judge: (state) => {
      const off = state.slips.filter((s) => s.kind === 'wrong-part' && !s.checked?.ok);
      if (off.length === 0) return met('no other part came off');
      const named = (slips: typeof off) => slips.map((s) => s.partId?.toUpperCase() ?? 'a part').join(', ');
      const bad = off.filter((s) => s.checked);
      if (bad.length === 0) return unknown(`${named(off)} to put back and check`);
      return unmet(
        `${named(bad)} not as before`,
        bad.map((s) => s.id),
      );
    },
  },
  {
    id: 'short-check',
    step: 'verify',
    label: 'Short check before power',
    hard: true,
    judge: (_, { shortChecks, proven: { stopped } }, { rails, loads }) => {
      if (shortChecks.length === 0)
        return unknown(
          stopped
            ? `first power was stopped: ${STOPS[stopped.stop]}${stopped.why ? `, ${stopped.why}` : ''}; find out why, then measure again`
            : 'not done since the last work on the board',
        );
      // the last reading of a rail with a load counts
      const latest = new Map(shortChecks.map((c) => [`${c.rail}\n${c.load ?? ''}`, c]));
      const judged = [...latest.values()].map((c) => ({ ...c, verdict: judgeShort(c) }));
      const name = (c: { rail: string; load: string | null }) => `${c.rail}${c.load ? ` with ${c.load}` : ''}`;
      const short = judged.find((c) => c.verdict.state === 'unmet');
      if (short) return unmet(`${name(short)}: ${short.verdict.why}`, [short.id]);
      const open = judged.find((c) => c.verdict.state === 'unknown');
      if (open) return unknown(`${name(open)}: ${open.verdict.why}`);
      const missing = [
        ...rails.filter((r) => !latest.has(`${r.label}\n`)).map((r) => r.label),
        ...loads.filter((l) => !judged.some((c) => c.load === l.label)).map((l) => `with ${l.label}`),
      ];
      if (!judged.some((c) => c.load === null)) missing.unshift('the board alone');
      if (missing.length > 0) return unknown(`still to measure: ${[...new Set(missing)].join(', ')}`);
      return met(
        judged.map((c) => `${name(c)} ${c.verdict.why}`).join('; '),
        judged.map((c) => c.id),
      );
    },
  },
  {
    id: 'joints',
    step: 'verify',
    label: 'Every joint looked at',
    judge: (_, { joints }, { terminals }) => {
      if (joints.size === 0) return unknown('not looked at since the last work');
      const bad = [...joints].filter(([, state]) => jointMatters(state)).map(([t, state]) => `${t} ${state}`);
      if (bad.length > 0) return unmet(bad.join(', '));
      const left = (terminals ?? []).filter((t) => !joints.has(t));
      if (left.length > 0) return unmet(`${left.length} not looked at`);
      const looks = [...joints].filter(([, state]) => state !== 'good').map(([t, state]) => `${t} ${state}`);
      return met(looks.length > 0 ? `they hold; left as they are: ${looks.join(', ')}` : `${joints.size} good`);
    },
  },
  {
    id: 'legs',
    step: 'verify',
    label: 'Legs pushed',
    judge: (_, { proven: { pushed } }, { legs }) => {
      if (legs.length === 0) return null;
      const loose = [...pushed].filter(([, firm]) => !firm).map(([t]) => t);
      if (loose.length > 0) return unmet(`${loose.join(', ')} gives`);
      const left = legs.filter((t) => !pushed.has(t)).length;
      if (left === 0) return met(`${legs.length} firm`);
      return left === legs.length ? unknown('not pushed since the last work') : unmet(`${left} not pushed`);
    },
  },
  {
    id: 'pins',
    step: 'verify',
    label: 'Neighbouring pins apart, pins through',
    judge: (_, { proven }, { proofs }) => {
      if (proofs.length === 0) return null;
      const read = proofs.flatMap((p) => {
        const at = proven.proofs.get(p.key);
        return at ? [{ ...p, ...judgeProof(p, at.read) }] : [];
      });
      const said = (all: typeof read) =>
        all
          .map((r) => `${r.terminal} ${r.kind === 'apart' ? `and ${r.to.terminal}` : 'to its track'} ${r.why}`)
          .join('; ');
      const bad = read.filter((r) => r.state === 'unmet');
      if (bad.length > 0)
        return unmet(
          said(bad),
          bad.map((r) => r.key),
        );
      const open = read.filter((r) => r.state === 'unknown');
      if (open.length > 0) return unknown(said(open));
      if (read.length === proofs.length) return met(`${proofs.length} measured`);
      return read.length === 0
        ? unknown('not measured since the last work')
        : unmet(`${proofs.length - read.length} not measured`);
    },
  },
  {
    id: 'surroundings-after',
    step: 'verify',
    label: 'Surroundings scanned again',
    judge: (_, { scans, proven: { looked } }, { atRisk }) => {
      const hurt = [...looked].filter(([, state]) => state !== 'as before');
      if (hurt.length > 0)
        return unmet(
          hurt.map(([id, state]) => `${id.toUpperCase()} ${state}`).join(', '),
          hurt.map(([id]) => id),
        );
      // logs of old know one look at all of them
      const open = looked.size === 0 ? [] : (atRisk ?? []).filter((r) => !looked.has(r.id));
      if (open.length > 0) return unmet(`not looked at: ${open.map((r) => r.name).join(', ')}`);
      return checked(
        scans.fitting,
        looked.size > 0 ? `${looked.size} looked at one by one, all as before` : 'neighbours as before',
        'something is amiss',
        looked.size > 0 ? `${looked.size} as before; the rest not looked at` : 'not looked at after fitting',
      );
    },
  },
  {
    id: 'stored-back',
    step: 'verify',
    label: 'What it holds is there again',
    judge: (state, attempt) => {
      const stored = attempt.suspect && state.stored.get(attempt.suspect.partId);
      const holds = stored?.holds ?? [];
      if (!stored || holds.length === 0) return null;
      const carried = attempt.newPart?.origin === 'the old one';
      const said: Record<Holding, Judgement> = {
        data: dataBack(stored),
        firmware: stored.firmware
          ? met(`firmware ${stored.firmware}`)
          : carried
            ? met('firmware came along')
            : unmet('no firmware loaded'),
        settings:
          stored.settings === undefined
            ? unmet('settings not set again')
            : met(stored.settings || 'settings set again'),
      };
      const all = holds.map((h) => said[h]);
      const open = all.filter((j) => j.state !== 'met');
      const why = (open.length > 0 ? open : all).map((j) => j.why).join('; ');
      return open.length === 0 ? met(why) : open.some((j) => j.state === 'unmet') ? unmet(why) : unknown(why);
    },
  },
  {
    id: 'readings-back',
    step: 'verify',
    label: 'Readings back',
    judge: (state) => {
      if (state.beforeWork === null) return unknown('no work on the board yet');
      const { off, again } = readingsToRepeat(state);
      if (off.length === 0) return met('no reading was off before');
      const open = off.filter((r) => !again.has(pointOf(r)));
      if (open.length === off.length) return unknown(`${off.length} to take again`);
      const still = off.filter((r) => {
        const now = again.get(pointOf(r));
        return now && compareReading(now.value, now.good ?? r.good, r.quantity) !== 'same';
      });
      if (still.length > 0)
        return unmet(
          `${still.length} still off`,
          still.map((r) => r.id),
        );
      return open.length > 0 ? unmet(`${open.length} to take again`) : met('all as a good board');
    },
  },
  {
    id: 'functions',
    step: 'verify',
    label: 'Complaint and functions tried',
    judge: (state) => {
      if (state.intake.proof?.by === 'readings') return met('can only be measured: the readings decide');
      const tried = [...state.functions].filter(([, f]) => f.after !== undefined && f.after !== 'not tried');
      if (tried.length === 0) return unknown('not tried since the last work');
      const complaint = state.functions.get(COMPLAINT)?.after;
      if (complaint === undefined || complaint === 'not tried') return unmet('the complaint itself not tried');
      const dead = tried.filter(([name, f]) => f.after === 'dead' && name !== COMPLAINT && f.before !== 'dead');
      if (complaint === 'dead') return unmet('the complaint is still there');
      if (dead.length > 0) return unmet(`${dead.map(([name]) => name).join(', ')} worked before and is dead now`);
      const open = [...state.functions].filter(([, f]) => f.before === 'works' && f.after === undefined);
      return open.length > 0
        ? unmet(`not tried again: ${open.map(([name]) => name).join(', ')}`)
        : met('complaint gone, functions as before');
    },
  },
  {
    id: 'slips',
    step: 'verify',
    label: 'Slips and bumps followed up',
    judge: (state, attempt) => {
      const open = state.slips.filter((s) => !s.checked);
      if (state.slips.length === 0 && !isOff(attempt) && !isFitted(attempt)) return unknown('no work on the board yet');
      return open.length === 0
        ? met('none open')
        : unmet(
            `${open.length} not looked at`,
            open.map((s) => s.id),
          );
    },
  },
  {
    id: 'closed',
    step: 'release',
    label: 'Closed and tested whole',
    judge: ({ intake, functions }) => {
      if (intake.opened.length === 0 || intake.proof?.by === 'readings') return null;
      const steps = closingSteps(intake).filter((s) => !s.done).length;
      if (steps > 0) return unmet(`${steps} of its opening not undone`);
      const tried = [...functions].filter(([, f]) => f.closed === 'works' || f.closed === 'dead');
      const dead = tried.filter(([name, f]) => f.closed === 'dead' && (name === COMPLAINT || f.before !== 'dead'));
      if (dead.length > 0) return unmet(`dead once closed: ${dead.map(([name]) => name).join(', ')}`);
      if (tried.length === 0) return unknown('not tried since it was closed');
      const left = [...functions].filter(([name, f]) => (name === COMPLAINT || f.before === 'works') && !f.closed);
      return left.length > 0
        ? unmet(`not tried closed: ${left.map(([name]) => name).join(', ')}`)
        : met('works as it goes out');
    },
  },
];

/** Data read after, against the copy taken before. */
function dataBack(stored: Stored): Judgement {
  const { state: is, read: before } = copyOf(stored);
  const now = stored.after.at(-1);
  if (!now) return unknown('data not read since it went on');
  if (is !== 'copy' || !before) return unmet('data: no copy from before to hold it against');
  return now.checksum === before.checksum
    ? met(`data as before, ${shortSum(now.checksum)}`, [now.id])
    : unmet('data differs from the copy', [now.id]);
}

/** Where and what a reading was of; the same point is named the same again. */
export const pointOf = ({ place: p, quantity }: JobState['readings'][number]): string =>
  `${p.partId ? `${p.partId}/${p.terminal ?? ''}` : `${p.x_mm},${p.y_mm},${p.side}`} ${quantity}`;

/** Readings that were off before the work, and the latest reading of each point since. */
export function readingsToRepeat(state: JobState) {
  const cut = state.beforeWork?.readings ?? state.readings.length;
  const before = new Map(state.readings.slice(0, cut).map((r) => [pointOf(r), r]));
  const off = [...before.values()].filter((r) => {
    const d = compareReading(r.value, r.good, r.quantity);
    return d === 'low' || d === 'high';
  });
  return { off, again: new Map(state.readings.slice(cut).map((r) => [pointOf(r), r])) };
}
