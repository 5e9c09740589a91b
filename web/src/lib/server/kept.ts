/** Things read from the database that never change once written, kept by id; those used longest ago go first. */
export class Kept<T> {
  private readonly map = new Map<string, T>();
  private readonly most: number;
  constructor(most: number) {
    this.most = most;
  }
  get(id: string): T | undefined {
    const value = this.map.get(id);
    if (value !== undefined) this.set(id, value);
    return value;
  }
  set(id: string, value: T): T {
    this.map.delete(id);
    this.map.set(id, value);
    for (const oldest of this.map.keys()) {
      if (this.map.size <= this.most) break;
      this.map.delete(oldest);
    }
    return value;
  }
  /** The value kept, else the one read now; nothing is kept of what is not there. */
  async or(id: string, read: () => Promise<T | undefined>): Promise<T | undefined> {
    const known = this.get(id);
    if (known !== undefined) return known;
    const value = await read();
    return value === undefined ? undefined : this.set(id, value);
  }
}
