/** Bytes of a file to text: UTF-8, or UTF-16 when a mark at the start says so; nothing else is guessed at. */
import { BoardFileError } from './fileError.ts';

export const MAX_FILE_BYTES = 64_000_000;

export function decodeText(bytes: Uint8Array): string {
  if (bytes.length > MAX_FILE_BYTES) throw new BoardFileError(`is larger than ${MAX_FILE_BYTES / 1e6} MB`);
  if (bytes.length === 0) throw new BoardFileError('is empty');
  const [a, b] = bytes;
  const encoding = a === 0xff && b === 0xfe ? 'utf-16le' : a === 0xfe && b === 0xff ? 'utf-16be' : 'utf-8';
  if (encoding === 'utf-8') {
    const zero = bytes.subarray(0, 4096).indexOf(0);
    if (zero >= 0) throw new BoardFileError('is not text: a zero byte near its start', lineOf(bytes, zero));
  }
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(bytes);
  } catch {
    // names of nets and parts in an old single-byte encoding: letters are lost, numbers are not
    if (encoding !== 'utf-8') throw new BoardFileError(`is broken ${encoding.toUpperCase()} text`);
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

function lineOf(bytes: Uint8Array, at: number): number {
  let line = 1;
  for (let i = 0; i < at; i++) if (bytes[i] === 10) line++;
  return line;
}
