/** A value of a data table: SI number with unit, uncertainty (±, same unit) and where it is from. */
export interface Property {
  value: number;
  unit: string;
  plusMinus: number;
  source: string;
}

/** Writes a table row; refuses numbers that cannot be a property, so a typing slip fails at load. */
export function property(value: number, unit: string, plusMinus: number, source: string): Property {
  if (!Number.isFinite(value) || !(plusMinus >= 0) || unit === '' || source === '')
    throw new Error(`Bad property row: ${value} ${unit} ± ${plusMinus} (${source})`);
  return { value, unit, plusMinus, source };
}
