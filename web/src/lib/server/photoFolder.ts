/**
 * The folder of a shop that a phone or a microscope puts pictures into. It is looked into while a job is open and nothing in it is changed: what had not been
 * there at the look before has arrived, whatever its date says.
 */
import { createHash } from 'node:crypto';
import { readdir, readFile, stat } from 'node:fs/promises';
import { join } from 'node:path';

/** What browsers can read. */
const PICTURE = /^[^.].*\.(jpe?g|png|webp|avif|gif|bmp)$/i;
const MOST_BYTES = 60 * 1024 * 1024;
const APART_MS = 300;

interface Seen {
  /** Of the last look, and when that was, ms: it is whole once two looks some time apart agree. */
  size: number;
  looked: number;
  /** When it was whole first, ms; 0: it lay there before; null: it is still being written. */
  arrived: number | null;
  id: string;
}

export class PhotoFolder {
  readonly path: string;
  private readonly seen = new Map<string, Seen>();
  private first = true;

  constructor(path: string) {
    this.path = path;
  }

  /** Pictures that arrived after `since`, ms. Rejects where the folder cannot be read. */
  async arrivedSince(since: number, now: number): Promise<{ name: string; id: string }[]> {
    const names = (await readdir(this.path)).filter((n) => PICTURE.test(n));
    const here = new Set(names);
    for (const name of this.seen.keys()) if (!here.has(name)) this.seen.delete(name);
    for (const name of names) await this.look(name, now);
    this.first = false;
    return [...this.seen].flatMap(([name, { arrived, id }]) =>
      arrived !== null && arrived > since ? { name, id } : [],
    );
  }

  private async look(name: string, now: number): Promise<void> {
    const before = this.seen.get(name);
    if (before !== undefined && before.arrived !== null) return;
    if (this.first) return void this.seen.set(name, { size: 0, looked: now, arrived: 0, id: '' });
    // it may have gone again
    const is = await stat(join(this.path, name)).catch(() => null);
    if (!is?.isFile() || is.size === 0 || is.size > MOST_BYTES) return;
    // two pages may look at once
    if (before && now - before.looked < APART_MS) return;
    const whole = before?.size === is.size;
    this.seen.set(name, {
      size: is.size,
      looked: now,
      arrived: whole ? now : null,
      id: idOf(name, is.size, is.mtimeMs),
    });
  }

  /** A picture that arrived; null for anything else. */
  async read(name: string): Promise<Buffer | null> {
    if (!this.seen.get(name)?.arrived) return null;
    return readFile(join(this.path, name)).catch(() => null);
  }
}

/** The same file has the same id (version 7), whoever takes it: a job has it once. */
function idOf(name: string, size: number, mtimeMs: number): string {
  const time = Math.max(0, Math.floor(mtimeMs)).toString(16).padStart(12, '0').slice(-12);
  const rest = createHash('sha256').update(`${name}\n${size}\n${mtimeMs}`).digest('hex');
  return `${time.slice(0, 8)}-${time.slice(8)}-7${rest.slice(0, 3)}-8${rest.slice(3, 6)}-${rest.slice(6, 18)}`;
}

let watched: PhotoFolder | undefined;
/** The folder of this path, as it was looked into before. */
export function photoFolder(path: string): PhotoFolder {
  if (watched?.path !== path) watched = new PhotoFolder(path);
  return watched;
}
