/** What lies under a board, and what sits on its parts, by name. */

/** A silicone mat takes √(kρc/πt) = 58 W/(m²·K) from a board that lies on it for half a minute (0.25 W/(m·K), 1.3 MJ/(m³·K)). */
export const MAT = { kind: 'mat', contact_R: 2e-3, h: 60 } as const;

/** What can sit on a part and has to come off first. */
export const STUCK_ON = ['label', 'coating', 'glue'] as const;
export type StuckOn = (typeof STUCK_ON)[number];
