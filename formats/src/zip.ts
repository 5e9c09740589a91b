/**
 * Opens a zip with hard bounds: what comes out is counted while it comes, whatever the archive says of itself.
 * Names are only labels here; nothing is ever written to a disk.
 */
import { Unzip, UnzipInflate } from 'fflate';
import { BoardFileError } from './fileError.ts';
import { MAX_FILE_BYTES } from './text.ts';

export interface NamedFile {
  name: string;
  bytes: Uint8Array;
}

const MOST_FILES = 200;
/** A text file shrinks ten- to twentyfold; a hundredfold is a bomb. */
const MOST_RATIO = 150;

export const isZip = (bytes: Uint8Array) => bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4;

/** Files of the archive; folders, hidden files and what is no text by its ending are left out. */
export function unzipBounded(bytes: Uint8Array): NamedFile[] {
  const files: NamedFile[] = [];
  let total = 0;
  let count = 0;
  let trouble: BoardFileError | undefined;
  const most = Math.min(MAX_FILE_BYTES * 2, Math.max(1_000_000, bytes.length * MOST_RATIO));
  const stop = (message: string) => {
    trouble ??= new BoardFileError(message);
    throw trouble;
  };
  const unzip = new Unzip((entry) => {
    if (++count > MOST_FILES) stop(`holds more than ${MOST_FILES} files`);
    const name = safeName(entry.name);
    if (entry.name.endsWith('/') || name.startsWith('.') || /\.(zip|png|jpe?g|pdf|step|stp|wrl|gz|7z|exe)$/i.test(name))
      return;
    const chunks: Uint8Array[] = [];
    entry.ondata = (error, chunk, final) => {
      if (error) stop(`"${name}" in the archive is damaged`);
      total += chunk.length;
      if (total > most) stop(`unpacks to more than ${Math.round(most / 1e6)} MB: refused`);
      chunks.push(chunk);
      if (final) files.push({ name, bytes: joined(chunks) });
    };
    entry.start();
  });
  unzip.register(UnzipInflate);
  try {
    // in pieces, so that a bomb is noticed before it has all come out
    for (let i = 0; i < bytes.length; i += 16_384)
      unzip.push(bytes.subarray(i, i + 16_384), i + 16_384 >= bytes.length);
  } catch (error) {
    throw trouble ?? new BoardFileError(`is a damaged archive: ${(error as Error).message}`);
  }
  if (files.length === 0) throw new BoardFileError('the archive is empty or cut off');
  return files;
}

/** The last part of the path, of printable letters. */
function safeName(path: string): string {
  const last = path.split(/[\\/]/).pop() ?? '';
  return (
    [...last]
      .filter((c) => c >= ' ' && c !== '\u007f')
      .join('')
      .slice(0, 120) || 'unnamed'
  );
}

function joined(chunks: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(chunks.reduce((n, c) => n + c.length, 0));
  let at = 0;
  for (const c of chunks) {
    out.set(c, at);
    at += c.length;
  }
  return out;
}
