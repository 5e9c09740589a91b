/** What a device came in with: the state of intake, folded from its events; closing it again. */
import type { OpeningKind } from '../board/index.ts';
import type { IntakeEvent, WaitsFor } from './intakeForms.ts';

type Body<T extends IntakeEvent['type']> = Extract<IntakeEvent, { type: T }>;
type Kept<T extends IntakeEvent['type']> = Body<T> & { id: string; at: number };

export interface StartUp {
  id: string;
  stages: Kept<'supply-stage'>[];
}

export interface IntakeState {
  complaintTried?: Kept<'complaint-tried'>;
  extras: Map<string, Body<'extra'>['state']>;
  /** Kind of device that its function list was taken from. */
  deviceKind?: string;
  /** In the order in which it was opened. */
  opened: Kept<'opened'>[];
  /** Opening steps undone, by id. */
  closed: Set<string>;
  damage: Kept<'damage'>[];
  startUps: StartUp[];
  proof?: Kept<'proof'>;
  offer?: Kept<'offer'>;
  /** Label of the tier that was taken, if it is of the last offer. */
  taken?: string;
  warranty?: Kept<'warranty'>;
  /** What it waits for, as somebody said; undefined: nothing. */
  waits?: Kept<'waits'> & { for: WaitsFor };
}

export const freshIntake = (): IntakeState => ({
  extras: new Map(),
  opened: [],
  closed: new Set(),
  damage: [],
  startUps: [],
});

/** Takes an event of intake into the state. */
export function applyIntake(state: IntakeState, key: { id: string; at: number }, body: IntakeEvent): void {
  switch (body.type) {
    case 'complaint-tried':
      state.complaintTried = { ...body, ...key };
      break;
    case 'extra':
      state.extras.set(body.name, body.state);
      break;
    case 'functions-listed':
      state.deviceKind = body.kind;
      break;
    case 'opened':
      state.opened.push({ ...body, ...key });
      break;
    case 'closed-again':
      state.closed.add(body.stepId);
      break;
    case 'damage':
      state.damage.push({ ...body, ...key });
      break;
    case 'supply-stage': {
      let startUp = state.startUps.find((s) => s.id === body.startUpId);
      if (!startUp) state.startUps.push((startUp = { id: body.startUpId, stages: [] }));
      startUp.stages.push({ ...body, ...key });
      startUp.stages.sort((a, b) => a.at_s - b.at_s);
      break;
    }
    case 'proof':
      state.proof = { ...body, ...key };
      break;
    case 'offer':
      state.offer = { ...body, ...key };
      delete state.taken;
      break;
    case 'offer-taken':
      state.taken = body.tier;
      if (state.waits?.for === 'answer') delete state.waits;
      break;
    case 'waits':
      if (body.for === null) delete state.waits;
      else state.waits = { ...body, for: body.for, ...key };
      break;
    case 'warranty':
      state.warranty = { ...body, ...key };
      break;
  }
}

const CLOSING_WORDS: Record<OpeningKind, string> = {
  screw: 'drive in',
  clip: 'snap in',
  pry: 'press shut again:',
  cable: 'plug in',
  frame: 'put back the frame',
  shield: 'put back the shield',
  heatsink: 'refit with fresh paste or pad',
  glue: 'stick down again',
  other: 'put back',
};

export interface ClosingStep {
  stepId: string;
  says: string;
  count: number;
  photoId?: string;
  done: boolean;
}

/** Opening backwards: what goes in last came out first. */
export function closingSteps({ opened, closed }: Pick<IntakeState, 'opened' | 'closed'>): ClosingStep[] {
  return opened.toReversed().map(({ id: stepId, kind, what, count, photoId }) => ({
    stepId,
    says: [CLOSING_WORDS[kind], count > 1 ? `${count} ×` : '', what || kind].filter(Boolean).join(' '),
    count,
    ...(photoId ? { photoId } : {}),
    done: closed.has(stepId),
  }));
}

/** Screws that came out and are not back: loose metal in the case, or on the bench. */
export function screwsOut({ opened, closed }: Pick<IntakeState, 'opened' | 'closed'>): number {
  return opened.reduce((n, s) => n + (s.kind === 'screw' && !closed.has(s.id) ? s.count : 0), 0);
}
