/**
 * Between what each setting of a phase, and each figure of a station, may lie: said once, for the forms of phases, the fields on a screen, and what is
 * tried off.
 */
export type Range = readonly [min: number, max: number];

const iron = {
  set_C: [150, 480],
  /** Contact width of the tip along the row. */
  tip_mm: [0.5, 10],
  /** Contact of the tip against that of a well wetted film. */
  contact: [0.1, 3],
  power_W: [10, 500],
} as const satisfies Record<string, Range>;

export const RANGES = {
  /** The hands' times against the usual ones. */
  pace: [0.3, 5],
  /** After how long a phase is given up. */
  phase: { giveUp_s: [1, 1800] },
  air: {
    set_C: [100, 550],
    flow_L_min: [2, 200],
    nozzle_mm: [2, 40],
    standoff_mm: [3, 120],
    sweep_mm: [0, 40],
    sweep_deg: [-360, 360],
    /** When a stage of the setting begins. */
    from_s: [0, 300],
    /** On and off of pulses. */
    pulse_s: [0.2, 60],
    tilt_deg: [0, 60],
    approach_deg: [-360, 360],
    /** Width and height of a mouth that is no round hole. */
    mouth_mm: [1, 80],
  },
  bead: {
    ...iron,
    bead_mm3_mm: [0.05, 10],
    stroke_s: [2, 120],
    pass_s: [0.2, 20],
    rest_s: [0, 20],
    wire_mm: [0.2, 3],
  },
  spike: { ratio: [0.1, 5], most_s: [1, 30] },
  below: {
    T_C: [40, 400],
    h: [1, 2000],
    flux_W_m2: [0, 60_000],
    window_mm: [1, 500],
  },
  /** When what sits on a part gives. */
  soften: { soft_C: [40, 180] },
  pool: { pool_mm3: [0.5, 60] },
  rest: {},
  lift: { stays_s: [0, 30] },
  /** Putting on: solder of a joint against what it usually has; how fast a row is dragged. */
  fit: { share: [0.05, 3], mm_s: [0.5, 10] },
  iron: { ...iron, dwell_s: [0, 30], most_s: [1, 60] },
  station: {
    efficiency: [0.3, 1],
    efficiencyPlusMinus: [0, 0.3],
    handFactor: [0.2, 1.5],
    handFactorPlusMinus: [0, 0.5],
    flowPlusMinus: [0, 0.5],
    ironPlusMinus_K: [0, 80],
  },
} as const satisfies Record<string, Range | Record<string, Range>>;

/** The nearest value of a range. */
export const within = (value: number, [min, max]: Range): number => Math.min(max, Math.max(min, value));
