/** Bytes as base64 text, the same in browser, worker and server. */
const CHUNK = 0x8000;

export function encodeBytes(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += CHUNK) text += String.fromCharCode(...bytes.subarray(i, i + CHUNK));
  return btoa(text);
}

export function decodeBytes(text: string): Uint8Array {
  const packed = atob(text);
  const bytes = new Uint8Array(packed.length);
  for (let i = 0; i < bytes.length; i++) bytes[i] = packed.charCodeAt(i);
  return bytes;
}
