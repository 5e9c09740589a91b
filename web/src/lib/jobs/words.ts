import type { JobView } from '$lib/jobs/view';
import { partName } from '@orthos/core/board';
import type { Step } from '@orthos/core/hands';
import { JOB_TYPES, type JobType } from '@orthos/core/job';

export const stepLabel = (step: Step): string => step[0].toUpperCase() + step.slice(1);

/** A gate that is not met, in a word or two for the narrow strip. */
const SHORT: Record<string, string> = {
  complaint: 'no complaint',
  target: 'no target',
  'plan-fresh': 'no plan',
  'power-gone': 'power',
  'target-marked': 'mark target',
  'neighbours-covered': 'cover',
  'laid-out': 'lay out',
  'stored-read': 'read data',
  'stored-back': 'data back',
  'all-wet': 'not begun',
  surroundings: 'not looked',
  lands: 'not clean',
  'off-board': 'not tested',
  'new-part': 'measure part',
  orientation: 'orientation',
  'short-check': 'short check',
  restored: 'a part to put back',
  'set-done': 'parts open',
  joints: 'look at joints',
  legs: 'push legs',
  pins: 'measure pins',
  closed: 'test it closed',
  'surroundings-after': 'scan again',
  'readings-back': 'readings',
  functions: 'functions',
  slips: 'slips open',
  outcome: 'open',
};

export interface StepSummary {
  state: 'met' | 'open' | 'stop' | 'unknown' | 'skipped';
  text: string;
  /** The whole sentence, for the title. */
  full: string;
}

/** What a plan wants: an order where several parts are done together, to be computed anew, to be chosen; undefined where there is none. */
function unplanned({ gates, plan, freshness }: JobView): string | undefined {
  if (gates.some((g) => g.id === 'set-done')) return 'put in order';
  if (!plan) return undefined;
  return freshness === 'stale' ? 'stale' : 'choose one';
}

/** One short line for a step in the strip, from its gates. */
export function stepSummary(step: Step, view: JobView): StepSummary {
  const type = JOB_TYPES[view.ticket.kind];
  if (type.skips.includes(step)) return { state: 'skipped', text: 'not needed', full: `${type.label}: ${type.says}` };
  const gates = view.gates.filter((g) => g.step === step);
  const open = gates.filter((g) => g.state !== 'met' && !g.overridden);
  if (open.length === 0) return { state: 'met', text: metText(step, view), full: gates.map((g) => g.why).join('; ') };
  const hard = open.find((g) => g.hard);
  const first = hard ?? open[0];
  const stale = first.id === 'plan-fresh' ? unplanned(view) : undefined;
  const unsaid = first.id === 'all-wet' && first.state === 'unmet' ? '“all wet” not said' : undefined;
  return {
    state: first.state === 'unknown' ? 'unknown' : hard ? 'stop' : 'open',
    text: stale ?? unsaid ?? SHORT[first.id] ?? first.label.toLowerCase(),
    full: `${first.label}: ${first.why}`,
  };
}

function metText(step: Step, view: JobView): string {
  const gate = (id: string) => view.gates.find((g) => g.id === id);
  if (step === 'diagnose') {
    const listed = gate('target')?.why;
    if (gate('set-done') && listed) return listed.replace(' listed', '');
    const target = view.board.parts.find((p) => p.partId === view.inputs?.target);
    return target ? partName(target) : 'measured';
  }
  if (step === 'plan') return gate('plan-fresh')?.why ?? 'done';
  if (step === 'release') return gate('outcome')?.why ?? 'done';
  return 'done';
}

const ACTS: Record<Step, (target: string) => string> = {
  intake: () => 'look at it, try the complaint',
  diagnose: () => 'measure: no part convicted yet',
  plan: (target) => `plan how ${target} comes off`,
  protect: (target) => `cover and lay out for ${target}`,
  remove: (target) => `take ${target} off`,
  prepare: (target) => `clean the lands of ${target}`,
  fit: (target) => `put ${target} on`,
  verify: () => 'short check, then try everything',
  release: () => 'write it up',
};

/** What somebody does next at this step, in the imperative. */
export function nextAct(step: Step, target: string, type: JobType = 'repair'): string {
  const name = target || 'the part';
  return step === 'plan' && JOB_TYPES[type].skips.includes('remove') ? `plan how ${name} goes on` : ACTS[step](name);
}
