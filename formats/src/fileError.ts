/** A file is not what it should be; the sentence says where and what was expected. Nothing has been changed. */
export class BoardFileError extends Error {
  /** Line in the file, from 1; absent when the file as a whole is meant. */
  readonly line: number | undefined;
  /** Which file of a set. */
  file: string | undefined;
  constructor(message: string, line?: number) {
    super(message);
    this.name = 'BoardFileError';
    this.line = line;
  }
  /** `top.gbr, line 12: …` */
  get sentence(): string {
    const where = [this.file, this.line === undefined ? undefined : `line ${this.line}`].filter(Boolean).join(', ');
    return where ? `${where}: ${this.message}` : this.message;
  }
}
