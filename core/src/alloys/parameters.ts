/**
 * Parameters of the phase-diagram model: J per mole of atoms, K. Reference: the pure liquid of each element is 0 at every
 * temperature. A term is [a, b], read a + b·T. Fitted to published invariant points (`published.ts`); pairs of Ag, Cu, Sb, Cd
 * and Zn among each other are guesses. Heat capacities of solid and liquid are taken as equal.
 */
import type { Element } from './elements.ts';

/** a + b·T. */
export type Term = readonly [a: number, b: number];
type Pair = `${Element}-${Element}`;

/** Redlich–Kister terms of a pair, order 0 upward; the order of the names fixes the sign of x_i − x_j. */
type Pairs = Partial<Record<Pair, readonly Term[]>>;

export const LIQUID: { pairs: Pairs; triples: Record<string, readonly [number, number, number]> } = {
  pairs: {
    'Sn-Pb': [
      [5631, 0.232],
      [3, 0],
    ],
    'Sn-Bi': [
      [253, 0.97],
      [269, 0.235],
    ],
    'Sn-In': [
      [-1054, -1.69],
      [-299, 0],
    ],
    'Ag-Sn': [
      [-7651, -5.01],
      [-16986, 3.321],
      [-6687, 0],
    ],
    'Cu-Sn': [
      [-9003, -5.838],
      [-20100, 3.637],
      [-10528, 0],
    ],
    'Pb-Bi': [
      [-5180, 0],
      [547, 0],
    ],
    'Pb-In': [
      [3315, -2.31],
      [-478, 0],
    ],
    'Ag-Pb': [
      [4395, 4.392],
      [-3388, 0],
    ],
    'Cu-Pb': [
      [27190, -4.213],
      [2229, -0.536],
      [-7029, 10.727],
    ],
    'Bi-In': [
      [-6899, 1.3],
      [483, 0],
    ],
    'Ag-Bi': [
      [10091, -4.688],
      [-639, 0],
    ],
    'Cu-Bi': [
      [20747, -5.85],
      [4925, -2.55],
      [4387, -2.3],
    ],
    'Ag-In': [
      [-14000, -5],
      [-11000, 0],
      [-4500, 0],
    ],
    'Cu-In': [
      [-15000, 0],
      [-15000, 0],
    ],
    'Ag-Cu': [
      [17384, -4.464],
      [1661, -2.315],
    ],
    'Sn-Sb': [
      [-5414, -1.7],
      [2121, 0],
    ],
    'Pb-Sb': [
      [-1221, 0],
      [522, 0],
    ],
    'Bi-Sb': [[2710, 0]],
    'In-Sb': [[-25600, 18]],
    'Ag-Sb': [
      [-3600, -8],
      [-20000, 0],
    ],
    'Cu-Sb': [
      [-13000, 0],
      [-20000, 0],
    ],
    'Sn-Cd': [
      [5955, 0],
      [276, 0],
    ],
    'Pb-Cd': [
      [9057, 0],
      [-892, 0],
    ],
    'Bi-Cd': [
      [797, 0],
      [-339, 0],
    ],
    'In-Cd': [
      [4528, 0],
      [1885, 0],
    ],
    'Ag-Cd': [[-25000, 0]],
    'Cu-Cd': [[-8000, 0]],
    'Sb-Cd': [[-8000, 0]],
    'Sn-Zn': [
      [13070, -12.412],
      [-2167, 4.2],
    ],
    'Pb-Zn': [
      [23161, -6],
      [-54, 0],
    ],
    'Bi-Zn': [
      [17848, -8.404],
      [-3533, 0],
    ],
    'In-Zn': [
      [10751, -3],
      [-602, 0],
    ],
    'Cd-Zn': [
      [8729, -1.5],
      [334, 0],
    ],
    'Ag-Zn': [[-22000, 0]],
    'Cu-Zn': [[-36000, 5]],
    'Sb-Zn': [[-10000, 0]],
  },
  triples: {
    'Sn-Pb-Bi': [-2220, -1960, -4130],
    'Sn-Pb-Cd': [-3130, 5320, -2410],
    'Pb-Bi-Cd': [-9480, -5140, -3910],
    'Sn-Bi-Cd': [1210, -12650, 4720],
    'Sn-In-Cd': [-2890, -3720, -9030],
    'Sn-Bi-In': [-26250, -11920, 19960],
    'Pb-Bi-In': [-4510, 10610, 17710],
    'Sn-Ag-Cu': [-37010, -37010, -37010],
    'Sn-Bi-Ag': [-13520, -13520, -13520],
    'Pb-In-Ag': [-7690, -7690, -7690],
  },
};

export interface SolidParameters {
  /** Elements whose own crystal it is. */
  native: readonly Element[];
  /** It only forms where all of these are present. */
  needs: readonly Element[];
  /** Its minimum is also looked for from the alloy's own composition. */
  fromComposition?: boolean;
  /** Lattice stability of each element it dissolves, against that element's own crystal. */
  lattice: Partial<Record<Element, Term>>;
  pairs: Pairs;
}

export const SOLIDS: Record<string, SolidParameters> = {
  BCT_SN: {
    native: ['Sn'],
    needs: ['Sn'],
    lattice: { Sn: [0, 0], Pb: [489, 3.52], Bi: [4184, 0], In: [2092, 0], Sb: [5000, 0], Cd: [3000, 0], Zn: [3000, 0] },
    pairs: {
      'Sn-Pb': [[16301, -6.685]],
      'Sn-Bi': [[3359, 0.694]],
      'Sn-In': [[-686, 0]],
      'Sn-Sb': [[-2846, 0]],
      'Sn-Cd': [[14235, 0]],
      'Sn-Zn': [[25000, 0]],
      'Pb-Bi': [[-337, 0]],
      'Pb-In': [[5000, 0]],
      'Bi-In': [[-3000, 0]],
    },
  },
  FCC_PB: {
    native: ['Pb'],
    needs: ['Pb'],
    fromComposition: true,
    lattice: {
      Pb: [0, 0],
      Sn: [4150, -5.2],
      Bi: [9900, -12.5],
      In: [17, 0],
      Sb: [6000, 0],
      Cd: [3000, 0],
      Ag: [3000, 0],
    },
    pairs: {
      'Sn-Pb': [
        [7900, -4.439],
        [593, 0],
      ],
      'Pb-Bi': [[-3977, -1.203]],
      'Pb-In': [
        [4413, -3.515],
        [-859, 0],
      ],
      'Pb-Sb': [[7071, 0]],
      'Pb-Cd': [[10544, 0]],
      'Ag-Pb': [[30000, 0]],
      'Sn-In': [[-1965, 0]],
      'Bi-In': [[1871, 0]],
      'Sn-Bi': [[2365, 0]],
      'Sn-Sb': [[0, 0]],
    },
  },
  RHOMB: {
    native: ['Bi', 'Sb'],
    needs: [],
    lattice: { Bi: [0, 0], Sb: [0, 0], Sn: [6000, 0], Pb: [6000, 0] },
    pairs: {
      'Sn-Bi': [[10353, 0]],
      'Pb-Bi': [[13373, 0]],
      'Bi-Sb': [[3600, 0]],
      'Pb-Sb': [[20000, 0]],
      'Sn-Sb': [[5000, 0]],
    },
  },
  TET_IN: {
    native: ['In'],
    needs: ['In'],
    lattice: { In: [0, 0], Sn: [3000, 0], Pb: [1500, 0], Bi: [5000, 0], Cd: [5000, 0] },
    pairs: {
      'Sn-In': [[-2691, 0]],
      'Pb-In': [[2247, 0]],
      'Bi-In': [[-4067, 0]],
      'In-Cd': [[4570, 0]],
      'Sn-Bi': [[15000, 0]],
      'Sn-Pb': [[5387, 0]],
    },
  },
  BETA_INSN: {
    native: [],
    needs: ['In', 'Sn'],
    lattice: { In: [36, 0], Sn: [2187, 0], Pb: [2027, 0], Bi: [9443, 0], Cd: [5000, 0] },
    pairs: {
      'Sn-In': [
        [-2288, 0],
        [-255, 0],
      ],
      'Pb-In': [[3500, 0]],
      'Sn-Pb': [[7971, 0]],
      'Bi-In': [[4147, 0]],
      'Sn-Bi': [[2000, 0]],
      'In-Cd': [[6000, 0]],
      'Sn-Cd': [[8000, 0]],
    },
  },
  GAMMA_SNIN: {
    native: [],
    needs: ['In', 'Sn'],
    lattice: { Sn: [181, 0], In: [5065, -3.136], Pb: [571, 0], Bi: [4500, 0], Cd: [4000, 0] },
    pairs: {
      'Sn-In': [
        [-1477, -6.895],
        [69, 0],
      ],
      'Pb-In': [[4748, 0]],
      'Sn-Pb': [[12858, 0]],
      'Sn-Bi': [[3500, 0]],
      'Bi-In': [[-14489, 0]],
      'In-Cd': [[6000, 0]],
      'Sn-Cd': [[10000, 0]],
    },
  },
  EPS_PBBI: {
    native: [],
    needs: ['Pb', 'Bi'],
    lattice: { Pb: [574, 1.173], Bi: [9900, -11.8], Sn: [3236, -4], In: [1500, 0] },
    pairs: {
      'Pb-Bi': [
        [-8159, 0],
        [-2363, 0],
      ],
      'Sn-Pb': [[6000, 0]],
      'Pb-In': [[5965, 0]],
      'Bi-In': [[-3667, 0]],
      'Sn-Bi': [[-1423, 0]],
      'Sn-In': [[1500, 0]],
    },
  },
  HCP_CD: {
    native: ['Cd'],
    needs: ['Cd'],
    lattice: { Cd: [0, 0], Zn: [3000, 0] },
    pairs: {
      'Cd-Zn': [[11402, 0]],
    },
  },
  HCP_ZN: {
    native: ['Zn'],
    needs: ['Zn'],
    lattice: { Zn: [0, 0], Cd: [3000, 0] },
    pairs: {
      'Cd-Zn': [[14813, 0]],
    },
  },
  FCC_AG: {
    native: ['Ag', 'Cu'],
    needs: [],
    lattice: { Ag: [0, 0], Cu: [0, 0] },
    pairs: {
      'Ag-Cu': [
        [33819, -8.124],
        [-5602, 1.329],
      ],
    },
  },
};

/** Pairs of a solid solution that nothing is known of. */
export const UNKNOWN_PAIR: readonly Term[] = [[10_000, 0]];

/** Stoichiometric compounds: atoms and energy per mole of atoms. */
export const COMPOUNDS: Record<string, { atoms: Partial<Record<Element, number>>; g: Term }> = {
  AG3SN: { atoms: { Ag: 3, Sn: 1 }, g: [-18454, 14.338] },
  ZETA_AGSN: { atoms: { Ag: 4, Sn: 1 }, g: [-14023, 6.377] },
  CU6SN5: { atoms: { Cu: 6, Sn: 5 }, g: [-17682, 12.332] },
  CU3SN: { atoms: { Cu: 3, Sn: 1 }, g: [-16142, 5.132] },
  INBI: { atoms: { In: 1, Bi: 1 }, g: [-7056, 8.472] },
  IN2BI: { atoms: { In: 2, Bi: 1 }, g: [-5648, 6.248] },
  IN5BI3: { atoms: { In: 5, Bi: 3 }, g: [-7992, 12.315] },
  AGIN2: { atoms: { Ag: 1, In: 2 }, g: [-15106, 19.115] },
  AG2IN: { atoms: { Ag: 2, In: 1 }, g: [-14103, 2.874] },
  CU11IN9: { atoms: { Cu: 11, In: 9 }, g: [-8842, 0.287] },
  SBSN: { atoms: { Sb: 1, Sn: 1 }, g: [-16513, 16.331] },
  INSB: { atoms: { In: 1, Sb: 1 }, g: [-29810, 28.088] },
  CDSB: { atoms: { Cd: 1, Sb: 1 }, g: [-16000, 19] },
  AG5ZN8: { atoms: { Ag: 5, Zn: 8 }, g: [-16000, 8] },
  CU5ZN8: { atoms: { Cu: 5, Zn: 8 }, g: [-21000, 8] },
};

/** Hard grains that float in a joint long after it can be moved: left out of the matrix liquidus. */
export const GRAINS: ReadonlySet<string> = new Set([
  'AG3SN',
  'ZETA_AGSN',
  'CU6SN5',
  'CU3SN',
  'AGIN2',
  'AG2IN',
  'CU11IN9',
  'AG5ZN8',
  'CU5ZN8',
  'FCC_AG',
]);
