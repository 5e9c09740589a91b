/** What is known of the board a part was taken from. */
export const DONORS = ['ran until it came off', 'dead of something else', 'not known'] as const;
export type Donor = (typeof DONORS)[number];
