/** Alloys one can choose from, named by their composition only. Cadmium is in none of them. */
import type { Composition } from './elements.ts';

export interface LibraryAlloy {
  id: string;
  wt: Composition;
  /** What it is for. */
  use: 'joint' | 'spike' | 'low-melt';
  says: string;
}

export const ALLOY_LIBRARY: readonly LibraryAlloy[] = [
  { id: 'Sn96.5Ag3Cu0.5', wt: { Sn: 96.5, Ag: 3, Cu: 0.5 }, use: 'joint', says: 'usual lead-free joint' },
  { id: 'Sn99.3Cu0.7', wt: { Sn: 99.3, Cu: 0.7 }, use: 'joint', says: 'lead-free wave joint' },
  { id: 'Sn96.5Ag3.5', wt: { Sn: 96.5, Ag: 3.5 }, use: 'joint', says: 'lead-free, warm places' },
  { id: 'Sn63Pb37', wt: { Sn: 63, Pb: 37 }, use: 'spike', says: 'leaded, one melting point' },
  { id: 'Sn60Pb40', wt: { Sn: 60, Pb: 40 }, use: 'spike', says: 'leaded' },
  { id: 'Sn62Pb36Ag2', wt: { Sn: 62, Pb: 36, Ag: 2 }, use: 'spike', says: 'leaded, for silver lands' },
  { id: 'Sn95Sb5', wt: { Sn: 95, Sb: 5 }, use: 'joint', says: 'lead-free, hot service' },
  { id: 'Pb93Sn5Ag2', wt: { Pb: 93, Sn: 5, Ag: 2 }, use: 'joint', says: 'inside power parts' },
  {
    id: 'Bi58Sn42',
    wt: { Bi: 58, Sn: 42 },
    use: 'low-melt',
    says: 'without lead; also factory joints of heat-sensitive parts',
  },
  { id: 'Bi57Sn42Ag1', wt: { Bi: 57, Sn: 42, Ag: 1 }, use: 'low-melt', says: 'without lead, tougher' },
  { id: 'Bi52.5Pb32Sn15.5', wt: { Bi: 52.5, Pb: 32, Sn: 15.5 }, use: 'low-melt', says: 'with lead, stays liquid long' },
  { id: 'Sn43Pb43Bi14', wt: { Sn: 43, Pb: 43, Bi: 14 }, use: 'low-melt', says: 'with lead, milder' },
  {
    id: 'Bi49Pb18Sn12In21',
    wt: { Bi: 49, Pb: 18, Sn: 12, In: 21 },
    use: 'low-melt',
    says: 'with lead and indium, least heat',
  },
  { id: 'Bi57In26Sn17', wt: { Bi: 57, In: 26, Sn: 17 }, use: 'low-melt', says: 'without lead, with indium' },
  { id: 'In52Sn48', wt: { In: 52, Sn: 48 }, use: 'low-melt', says: 'without lead or bismuth, soft, dear' },
];

/** What a bead is made of where nothing else is said: stays liquid long, with lead. */
export const LOW_MELT: Composition = { Bi: 52.5, Pb: 32, Sn: 15.5 };
/** The same where the board has to stay free of lead. */
export const LOW_MELT_LEAD_FREE: Composition = { Bi: 58, Sn: 42 };
