/** Values as the shop reads them: SI inside, the user's units at the edge. */
export interface UnitSettings {
  temperature: 'C' | 'F';
  length: 'mm' | 'mil' | 'in';
}

const PER_MM = { mm: 1, mil: 1000 / 25.4, in: 1 / 25.4 } as const;
const DIGITS = { mm: 1, mil: 0, in: 3 } as const;

/** "181 °C" or "358 °F", whole degrees. */
export function formatTemperature(celsius: number, units: UnitSettings): string {
  const value = units.temperature === 'C' ? celsius : celsius * 1.8 + 32;
  return `${Math.round(value)} °${units.temperature}`;
}

/** Degrees as typed in the user's scale to °C. */
export function toCelsius(value: number, units: UnitSettings): number {
  return units.temperature === 'C' ? value : (value - 32) / 1.8;
}

/** "4.2 mm", "165 mil", "0.165 in". */
export function formatLength(mm: number, units: UnitSettings): string {
  return `${(mm * PER_MM[units.length]).toFixed(DIGITS[units.length])} ${units.length}`;
}

/** The same to a tenth of what hands see: gaps that a part is set by. */
export function formatGap(mm: number, units: UnitSettings): string {
  return `${(mm * PER_MM[units.length]).toFixed(DIGITS[units.length] + 1)} ${units.length}`;
}

/** A typed number with point or comma as decimal sign; null when it is none. */
export function parseDecimal(text: string): number | null {
  const trimmed = text.trim();
  if (!/^[-+]?(\d+([.,]\d*)?|[.,]\d+)$/.test(trimmed)) return null;
  return Number(trimmed.replace(',', '.'));
}
