/**
 * The number in a meter's answer (IEEE 488.2 decimal data, `<NR1>`, `<NR2>`, `<NR3>`): a value in base units,
 * "OL" for the over-range mark 9.9E37 of SCPI-99, or null when the answer is no number.
 */
export function parseMeterAnswer(line: string): number | 'OL' | null {
  const text = line.trim();
  if (!/^[-+]?(\d+\.?\d*|\.\d+)([eE][-+]?\d+)?$/.test(text)) return null;
  const value = Number(text);
  return Math.abs(value) >= 9.9e37 ? 'OL' : value;
}
