/** What a joint can be found to be once the part is on: one key each, and its words. */
import { JOINT_CRITERIA, JOINT_FINDINGS, type JointFinding } from '@orthos/core/prove';

interface JointWords {
  key: string;
  label: string;
  /** What to look for. */
  hint: string;
  tone: 'good' | 'caution' | 'stop';
}
const SEEN: Record<JointFinding, Omit<JointWords, 'tone'>> = {
  good: { key: ' ', label: 'Good', hint: 'wetted to both edges' },
  dull: { key: 'd', label: 'Dull', hint: 'grey or grainy, but wetted' },
  lean: { key: 'e', label: 'Lean', hint: 'little solder, heel still filled' },
  flux: { key: 'x', label: 'Flux left', hint: 'brown or sticky beside it' },
  bridge: { key: 'b', label: 'Bridge', hint: 'solder to the next one' },
  open: { key: 'o', label: 'Open', hint: 'a line between leg and land' },
  lifted: { key: 'l', label: 'Lifted', hint: 'its land came up with it' },
  ball: { key: 'a', label: 'Ball', hint: 'loose solder beside it' },
};
export const JOINT_WORDS = Object.fromEntries(
  JOINT_FINDINGS.map((f): [JointFinding, JointWords] => [
    f,
    { ...SEEN[f], tone: f === 'good' ? 'good' : JOINT_CRITERIA[f].matters ? 'stop' : 'caution' },
  ]),
) as Record<JointFinding, JointWords>;
