import type { Step } from '@orthos/core/hands';

/** The panel of a step: loaded with the step, so that no step brings the others along; what only sets want, when there is one. */
async function panelOf(step: Step) {
  switch (step) {
    case 'intake':
      return { intake: (await import('$lib/intake/IntakePanel.svelte')).default };
    case 'diagnose':
      return {
        diagnose: (await import('$lib/diagnose/DiagnosePanel.svelte')).default,
        list: () => import('$lib/set/SetPanel.svelte'),
      };
    case 'plan':
      return {
        plan: (await import('$lib/plan/PlanPanel.svelte')).default,
        order: () => import('$lib/set/SetOrderPanel.svelte'),
      };
    case 'protect':
      return { protect: (await import('$lib/protect/ProtectPanel.svelte')).default };
    case 'verify':
      return { verify: (await import('$lib/verify/VerifyPanel.svelte')).default };
    case 'release':
      return { release: (await import('$lib/release/ReleasePanel.svelte')).default };
    default:
      return { hands: (await import('$lib/hands/HandsPanel.svelte')).default, op: step };
  }
}

export const load = async ({ data, params }) => ({ ...data, panel: await panelOf(params.step as Step) });
