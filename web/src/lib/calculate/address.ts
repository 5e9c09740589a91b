import { replaceState } from '$app/navigation';
import { resolve } from '$app/paths';
import { page } from '$app/state';
import { untrack } from 'svelte';
import type { CALCULATORS } from './places';

type Place = (typeof CALCULATORS)[number]['href'];

/** The texts of a calculator's form: from the address where it has them, else as they start. Read once. */
export function fromAddress<K extends string>(start: Record<K, string>): Record<K, string> {
  const query = untrack(() => page.url.searchParams);
  const read = Object.entries<string>(start).map(([key, text]) => [key, query.get(key) ?? text]);
  return Object.fromEntries(read) as Record<K, string>;
}

/** Puts a calculator's numbers into the address, so that it can be copied and shared. */
export function keepInAddress(place: Place, values: Record<string, string>): void {
  const query = new URLSearchParams(values).toString();
  // the router is not there yet on the first pass; the address is right then anyway
  if (page.url.search !== `?${query}`) setTimeout(() => replaceState(resolve(`${place}?${query}`), {}));
}
