/** JSON text of a result; typed arrays become plain arrays. */
export function resultJson(value: unknown, space?: number): string {
  return JSON.stringify(value, (_, v: unknown) => (v instanceof Float32Array ? Array.from(v) : v), space);
}
