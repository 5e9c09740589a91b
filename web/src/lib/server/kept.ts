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
  delete(id: string): void {
    this.map.delete(id);
  }
  /** The values of these ids, those that are not kept read in one go; ids of nothing are left out. */
  async all(ids: Iterable<string>, read: (missing: string[]) => Promise<[string, T][]>): Promise<Map<string, T>> {
    const found = new Map<string, T>();
    const missing: string[] = [];
    for (const id of new Set(ids)) {
      const value = this.get(id);
      if (value === undefined) missing.push(id);
      else found.set(id, value);
    }
    if (missing.length > 0) for (const [id, value] of await read(missing)) found.set(id, this.set(id, value));
    return found;
  }
}

/** Things made of two others that never change, kept as long as the first of them is. */
export class MadeOf<A extends WeakKey, B, T> {
  private readonly made = new WeakMap<A, Map<B, T>>();
  of(a: A, b: B, make: () => T): T {
    const mine = this.made.get(a) ?? new Map<B, T>();
    this.made.set(a, mine);
    const known = mine.get(b);
    if (known !== undefined) return known;
    const value = make();
    mine.set(b, value);
    return value;
  }
}
