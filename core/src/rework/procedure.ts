/**
 * A whole procedure told as it happens: phase by phase, from cold or from what earlier work left, until its last phase hands over; then the tools
 * leave and it is watched until the joints have frozen.
 */
import { z } from 'zod';
import { compositionSchema, mixedByVolume } from '../alloys/index.ts';
import { boardModelSchema } from '../board/index.ts';
import { type CalcContext, CancelledError } from '../ground/index.ts';
import { type ReworkCase, reworkCaseSchema } from './bench/caseForm.ts';
import { asFineAsNeeded } from './bench/finer.ts';
import { ReworkRun } from './bench/reworkRun.ts';
import { runStateSchema } from './bench/runState.ts';
import { jointStateSchema, surroundingsSchema } from './bench/surroundingsForm.ts';
import { type Operation, OPERATIONS } from './handForms.ts';
import { type Pace, PACES } from './handTimes.ts';
import { kitSchema } from './kitForm.ts';
import { methodIdSchema } from './methods/method.ts';
import { stintsOf } from './stints.ts';
import { phasesSchema } from './phases/schema.ts';
import { shortBoard, shortBoardSchema } from './shortBoard.ts';
import { FILM } from './solders.ts';
import { DEFAULT_STATION } from './station.ts';

const around = surroundingsSchema.omit({ joints: true });

/** What a procedure finds: board and part, what is round them, what is in the joints. */
export const reworkPlaceSchema = z.strictObject({
  board: z.union([boardModelSchema, shortBoardSchema.transform(shortBoard)]),
  target: z.string().min(1),
  op: z.enum(['remove', 'fit']).default('remove'),
  /** The part has to live: it goes on again. */
  mustLive: z.boolean().default(false),
  ambient_C: z.number().min(-20).max(60).default(22),
  surroundings: around.optional(),
  joints: z.array(jointStateSchema).max(40).optional(),
  damp: z.boolean().optional(),
  /** Tools of the bench, the hand's pace, the seed of draws: other calculations ask for them. */
  kit: kitSchema.optional(),
  pace: z.enum(Object.keys(PACES) as [Pace, ...Pace[]]).optional(),
  seed: z.int().min(0).optional(),
});

const procedureSchema = z.strictObject({
  v: z.literal(1),
  method: methodIdSchema,
  op: z.enum(OPERATIONS),
  partId: z.string().min(1),
  boardId: z.string().optional(),
  /** Instead of the case's. */
  surroundings: around.optional(),
  phases: phasesSchema,
});

export const reworkInput = z
  .strictObject({
    case: reworkPlaceSchema,
    procedure: procedureSchema,
    start: runStateSchema.optional(),
    /** Looked at then, whatever has been reached. */
    until_s: z.number().positive().max(1800).optional(),
  })
  .refine((i) => i.procedure.partId === i.case.target, {
    error: 'is not the target of the case',
    path: ['procedure', 'partId'],
  });

const seconds = z.number().nullable();
export const reworkOutput = z.strictObject({
  /** Loose for good; frozen again, counted from when the heat left; what is in it. */
  joints: z.array(
    z.strictObject({
      terminal: z.string(),
      loose_s: seconds,
      frozen_s: seconds,
      wt: compositionSchema,
      mm3: z.number(),
    }),
  ),
  neighbours: z.array(
    z.strictObject({
      partId: z.string(),
      /** Where its limit is read: body, face or land. */
      at: z.string(),
      /** Null where it is harmed at once. */
      dose: z.number().nullable(),
      dose_shifted: z.number().nullable(),
      margin_K: z.number().nullable(),
      hurt_s: seconds,
      word: z.enum(['hurts', 'may hurt', 'near', 'clear']),
      limit: z.strictObject({ id: z.string(), K: z.number() }),
    }),
  ),
  lands: z.array(z.strictObject({ terminal: z.string(), exposure_K_s: z.number(), peak_C: z.number() })),
  phases: z.array(
    z.strictObject({
      id: z.string(),
      from_s: z.number(),
      to_s: z.number(),
      heat_s: z.number(),
      hands_s: z.number(),
    }),
  ),
  state: runStateSchema,
});

/** After the tools have left it is watched at most so long, s. */
const COOLS_S = 60;

export type ReworkPlace = z.infer<typeof reworkPlaceSchema>;

/** What a run finds, for a case and the surroundings and operation of a procedure. */
export function caseOf(
  c: ReworkPlace,
  procedure: { surroundings?: ReworkPlace['surroundings']; op?: Operation } = {},
): ReworkCase {
  const damp = c.damp === undefined ? {} : { moisture: c.damp ? ('damp' as const) : ('baked' as const) };
  const unmarked = c.kit?.some((i) => i.tool === 'air' && i.flow_L_min === 'unmarked');
  return reworkCaseSchema.parse({
    board: c.board,
    target: c.target,
    station: { ...DEFAULT_STATION, ...(unmarked ? { air: 'unmarked' } : {}) },
    ambient_C: c.ambient_C,
    ...damp,
    ...(procedure.surroundings ?? c.surroundings),
    ...jointsOf(c, procedure.op ?? c.op),
    ...(c.pace ? { pace: PACES[c.pace] } : {}),
    ...(c.mustLive ? { reused: true } : {}),
    ...(procedure.op === 'fit' || c.op === 'fit' ? { fitting: true } : {}),
  });
}

/** What is said of lands comes after what they usually hold. */
function jointsOf({ joints }: ReworkPlace, op: Operation): Pick<ReworkCase, 'joints'> {
  if (op !== 'fit') return joints ? { joints } : {};
  return { joints: [FILM, ...(joints ?? [])] };
}

/** Throws `OutOfBoundsError` rather than tell a temperature that is not possible. */
export function tellRework(
  input: z.infer<typeof reworkInput>,
  context: CalcContext,
): Promise<z.infer<typeof reworkOutput>> {
  const { phases } = input.procedure;
  const found = caseOf(input.case, input.procedure);
  return asFineAsNeeded((finer) => {
    const run = new ReworkRun(found, stintsOf(phases), { start: input.start, finer, judges: 'all' });
    return tell(run, input.until_s, context, found.fitting ?? false);
  });
}

async function tell(run: ReworkRun, until_s: number | undefined, context: CalcContext, fitting: boolean) {
  const { joints } = run;
  // what was soldered joint by joint is let go by the iron, not by the solder
  const holds = (i: number) => (fitting && left_s !== null ? joints.isSet(i) : !joints.isLoose(i));
  const end_s = () => until_s ?? (left_s === null ? run.limit_s : left_s + COOLS_S);
  let left_s: number | null = null;
  const frozen_s = joints.joints.map((): number | null => null);
  const loose_s = joints.joints.map((): number | null => null);
  while (run.time < end_s() - 1e-9) {
    const looked = run.step(until_s);
    for (const [i] of joints.joints.entries()) {
      if (!holds(i)) {
        // a joint that came and went is loose since it last was
        loose_s[i] ??= joints.looseSince(i);
        frozen_s[i] = null;
      } else if (left_s !== null && loose_s[i] !== null) frozen_s[i] ??= run.time - left_s;
      else loose_s[i] = null;
    }
    if (run.steps % 50 === 0) {
      if (context.signal?.aborted) throw new CancelledError();
      context.progress?.(Math.min(1, run.time / end_s()));
      await context.breathe?.();
    }
    if (!looked) continue;
    if (left_s !== null) {
      if (until_s === undefined && joints.joints.every((_, i) => holds(i))) break;
      continue;
    }
    const over = run.phaseIsOver();
    if (over === 'no' || run.next(over)) continue;
    left_s = run.time;
    run.leave();
  }
  const { outcomes } = run.result();
  return {
    joints: run.lumps.joints.map(({ terminal, metal }, i) => ({
      terminal: terminal.id,
      loose_s: loose_s[i],
      frozen_s: frozen_s[i],
      wt: mixedByVolume(metal.alloy, [...metal.with]),
      mm3: metal.own_mm3 * (1 + metal.with.reduce((sum, w) => sum + w.ratio, 0)),
    })),
    neighbours: run.neighbours.doses(),
    lands: (outcomes?.lands ?? []).map(({ terminal, exposure_K_s, peak_C }) => ({ terminal, exposure_K_s, peak_C })),
    phases: run.phases.map(({ id, from_s, to_s, hands_s }, n) => ({
      id,
      from_s,
      to_s,
      // the hands' own time holds what changing tools took before it
      heat_s: Math.max(0, to_s - (run.phases[n - 1]?.to_s ?? 0) - hands_s),
      hands_s,
    })),
    state: run.state(),
  };
}
