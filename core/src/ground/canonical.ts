import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

/** JSON with sorted keys, no undefined, and -0 as 0: equal values give equal text. */
export function canonicalJson(value: unknown): string {
  if (value === null || typeof value !== 'object') {
    if (typeof value === 'number' && !Number.isFinite(value)) throw new Error('Not a finite number');
    return JSON.stringify(Object.is(value, -0) ? 0 : value) ?? 'null';
  }
  if (Array.isArray(value)) return `[${value.map(canonicalJson).join(',')}]`;
  const entries = Object.entries(value).filter(([, v]) => v !== undefined);
  entries.sort(([a], [b]) => (a < b ? -1 : 1));
  return `{${entries.map(([k, v]) => `${JSON.stringify(k)}:${canonicalJson(v)}`).join(',')}}`;
}

/** SHA-256 of a text as it stands, lower-case hex. */
export const textHash = (text: string): string => bytesToHex(sha256(utf8ToBytes(text)));

/** SHA-256 of the canonical JSON, lower-case hex. */
export const contentHash = (value: unknown): string => textHash(canonicalJson(value));

/** SHA-256 of bytes as they are, hex: works where a page that is not served over TLS has no cryptography of its own. */
export const checksumOf = (bytes: Uint8Array): string => bytesToHex(sha256(bytes));
