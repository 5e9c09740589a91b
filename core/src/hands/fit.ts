/** Putting a part on: what each phase says, then held until it has frozen, and washed. */
import { SOLDER_ALLOYS } from '../alloys/index.ts';
import { type Instruction, kindOf, type Phase, reachOf, wordsOf } from '../rework/index.ts';
import { staysLeadFree } from './flood.ts';
import type { Work } from './work.ts';

const BEFORE = { until: { told: true as const }, giveUp_s: 20 };
const IRON = { set_C: 350, tip_mm: 2, contact: 1, power_W: 70 };

/** What hands go through; runs begun before fitting had ways of its own knew only the tool that took the part off. */
function phasesOf({ method: { phases }, target, board, flood }: Work): readonly Phase[] {
  if (phases.some((p) => p.kind === 'place')) return phases;
  const main = phases[phases.length - 1];
  const own = staysLeadFree(board, flood) ? SOLDER_ALLOYS.get(board.jointAlloy)?.wt : undefined;
  const alloy = own ? { alloy: own } : {};
  const place: Phase = { id: 'place', kind: 'place', settings: {}, ...BEFORE };
  if (main.kind === 'air')
    return [{ id: 'tin', kind: 'tin', settings: { ...IRON, share: 0.8, ...alloy }, ...BEFORE }, place, main];
  const joints = {
    settings: { ...IRON, share: 1, most_s: 8, ...alloy },
    until: { loose: 'all' as const },
    giveUp_s: 600,
  };
  if (reachOf(target.package).pins) return [place, { id: 'fill', kind: 'fill', ...joints }];
  return [place, { id: 'tack', kind: 'tack', ...joints }, { id: 'joint', kind: 'joint', ...joints }];
}

export function fit(work: Work): Instruction[] {
  const phases = phasesOf(work);
  const list = phases.flatMap((p, n) => {
    const before = phases.slice(0, n);
    const words = wordsOf(p, { ...work, fitting: true, until: p.until, goesOn: n < phases.length - 1 });
    // a tool that is on is not taken up again
    const on = heats(p) && before.some((b) => heats(b) && kindOf(b).tool === kindOf(p).tool);
    return words.filter((i) => !(on && i.id === 'heat-on')).map((i) => ({ ...i, phase: p.id }));
  });
  return [...list, ...finish(work)];
}

/** Whether the heat of a phase is told: solder is laid on lands before the clock starts. */
const heats = ({ kind }: Phase): boolean => !['tin', 'paste', 'place', 'press'].includes(kind);

function finish({ guide, bare = [] }: Work): Instruction[] {
  const hold_s = guide?.hold_s;
  return [
    {
      id: 'cool',
      say: hold_s ? `Hold still ${Math.ceil(hold_s)} s at least, until it is dull.` : 'Hold still until it has frozen.',
      watch: 'Solder turns dull when it is solid. No blowing.',
      tap: 'cooled',
      mark: 'fitted',
      ...(hold_s ? { lasts_s: Math.ceil(hold_s) } : {}),
    },
    {
      id: 'wash',
      say: 'Wash the flux off. Let it dry.',
      watch: 'Nothing hot near alcohol.',
      tap: 'washed',
      mark: 'done',
    },
    ...(bare.length > 0
      ? [
          {
            id: 'varnish',
            say: 'Varnish the bare copper beside its lands.',
            watch: `Beside ${bare.join(', ')}: a thin coat, dry before power.`,
            tap: 'varnished',
            mark: 'done' as const,
          },
        ]
      : []),
  ];
}
