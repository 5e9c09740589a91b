/** What hands are told: legs cut off the body: for parts that are scrap, on boards that must not get hot. */
import { COUNT, type Instruction, lift, type Workplace } from '../instruction.ts';
import { rowsOf } from '../rows.ts';
import type { CutSettings } from './settings.ts';

export function say({ with: tool }: CutSettings, { target, held }: Workplace): Instruction[] {
  const rows = rowsOf(target.package).filter((r) => !held || r.terminals.some((t) => held.includes(t)));
  return [
    {
      id: 'heat-on',
      say: `Goggles on. Board held down, ${tool} in hand.`,
      watch: 'Only for a part that is scrap. The clock starts with your tap.',
      tap: 'ready',
      mark: 'heat-on',
    },
    ...rows.map((row, n): Instruction => ({
      id: `cut-${n + 1}`,
      say: `Row ${n + 1} of ${rows.length}: cut each leg close to the body.`,
      watch:
        tool === 'blade'
          ? 'Score, then through, blade away from the tracks. Never lever.'
          : 'Tips of the cutters flat, no pull on the leg.',
      tap: 'row cut',
      mark: 'done',
      walk: row.terminals.filter((t) => held?.includes(t) ?? true),
      again: { say: 'This leg holds: cut it once more.', watch: 'All the way through; do not bend it.' },
    })),
    {
      id: 'all-wet',
      say: 'Look along each row: is every leg through?',
      watch: 'One that holds: cut it, do not bend it.',
      tap: 'all through',
      mark: 'all-wet',
      tries: true,
    },
    lift('Lift the body off.', 'Nothing holds it any more.'),
    {
      id: 'heat-off',
      say: 'Stubs off one by one: iron and tweezers.',
      watch: 'Each falls off molten; nothing is pulled.',
      tap: 'stubs off',
      mark: 'heat-off',
    },
    COUNT,
  ];
}
