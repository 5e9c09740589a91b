// The folder that phones and microscopes put pictures into: what arrives, whole, once, and nothing else.
import { appendFileSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { PhotoFolder } from '../src/lib/server/photoFolder.ts';

let path = '';
beforeEach(() => {
  path = mkdtempSync(join(tmpdir(), 'orthos-folder-'));
});
afterEach(() => rmSync(path, { recursive: true }));

const put = (name: string, text = 'picture') => writeFileSync(join(path, name), text);
const names = async (folder: PhotoFolder, since: number, now: number) =>
  (await folder.arrivedSince(since, now)).map((p) => p.name);

describe('a folder for photos', () => {
  it('tells what came after the first look, whatever its date, once two looks some time apart agree', async () => {
    put('old.jpg');
    const folder = new PhotoFolder(path);
    expect(await names(folder, 1000, 1000)).toEqual([]);
    put('new.jpg', 'pic');
    expect(await names(folder, 1000, 2000)).toEqual([]);
    // another page looks at the same moment: that says nothing yet
    expect(await names(folder, 1000, 2001)).toEqual([]);
    appendFileSync(join(path, 'new.jpg'), 'ture');
    expect(await names(folder, 1000, 3000)).toEqual([]);
    expect(await names(folder, 1000, 4000)).toEqual(['new.jpg']);
    // a page that was opened since has nothing to take
    expect(await names(folder, 4000, 5000)).toEqual([]);
    expect(await folder.read('new.jpg')).toEqual(Buffer.from('picture'));
  });
  it('the same file has one id, another of its name another; ids are of version 7', async () => {
    const [one, two] = [new PhotoFolder(path), new PhotoFolder(path)];
    await Promise.all([one.arrivedSince(0, 1), two.arrivedSince(0, 1)]);
    put('a.jpg');
    for (const now of [1000, 2000]) await Promise.all([one.arrivedSince(0, now), two.arrivedSince(0, now)]);
    const [[a], [b]] = [await one.arrivedSince(0, 3000), await two.arrivedSince(0, 3000)];
    expect(a.id).toBe(b.id);
    expect(a.id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-8[0-9a-f]{3}-[0-9a-f]{12}$/);
    rmSync(join(path, 'a.jpg'));
    await one.arrivedSince(0, 4000);
    put('a.jpg', 'another picture');
    for (const now of [5000, 6000]) await one.arrivedSince(0, now);
    expect((await one.arrivedSince(0, 7000))[0].id).not.toBe(a.id);
  });
  it('passes over what is no picture, hidden, empty or gone, and reads nothing that did not arrive', async () => {
    put('before.jpg');
    const folder = new PhotoFolder(path);
    await folder.arrivedSince(0, 1);
    for (const name of ['notes.txt', '.hidden.jpg', 'shape.svg']) put(name);
    put('empty.jpg', '');
    put('gone.jpg');
    await folder.arrivedSince(0, 1000);
    rmSync(join(path, 'gone.jpg'));
    expect(await names(folder, 0, 2000)).toEqual([]);
    for (const name of ['before.jpg', 'notes.txt', '../../etc/passwd', 'gone.jpg', '__proto__'])
      expect(await folder.read(name)).toBeNull();
    rmSync(path, { recursive: true });
    await expect(folder.arrivedSince(0, 3000)).rejects.toThrow();
    path = mkdtempSync(join(tmpdir(), 'orthos-folder-'));
  });
});
