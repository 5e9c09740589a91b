/** Somebody else saved first: carries what is stored now, so that both versions can be shown. */
export class ConflictError extends Error {
  readonly stored: unknown;
  constructor(what: string, stored: unknown) {
    super(`${what} was changed elsewhere in the meantime.`);
    this.name = 'ConflictError';
    this.stored = stored;
  }
}
