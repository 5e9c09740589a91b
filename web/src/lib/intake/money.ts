/** Money as it is typed and shown; kept in minor units. */
import { parseDecimal } from '@orthos/core/ground';

const digits = (currency: string): number =>
  new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2;

export const formatMoney = (minor: number, currency: string): string =>
  new Intl.NumberFormat('en-GB', { style: 'currency', currency }).format(minor / 10 ** digits(currency));

/** Minor units; null when it is not an amount from 0 up. */
export function parseMoney(text: string, currency: string): number | null {
  const value = parseDecimal(text.trim());
  return value === null || value < 0 ? null : Math.round(value * 10 ** digits(currency));
}

export const moneyField = (minor: number, currency: string): string => {
  const value = minor / 10 ** digits(currency);
  return Number.isInteger(value) ? String(value) : value.toFixed(digits(currency));
};
