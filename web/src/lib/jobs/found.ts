/** What the shop has by a name, for the command palette. */
export interface Found {
  /** What was asked. */
  search: string;
  jobs: { id: string; number: number; device: string; customer: string; complaint: string }[];
  boards: { id: string; name: string }[];
  /** Parts of that name on boards of open jobs. */
  parts: { id: string; number: number; device: string; ref: string; partId: string; what: string }[];
}
