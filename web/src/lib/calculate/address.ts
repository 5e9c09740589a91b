import { replaceState } from '$app/navigation';
import { resolve } from '$app/paths';
import { page } from '$app/state';
import type { CALCULATORS } from './places';

type Place = (typeof CALCULATORS)[number]['href'];

/** Puts a calculator's numbers into the address, so that it can be copied and shared. */
export function keepInAddress(place: Place, values: Record<string, string>): void {
  const query = new URLSearchParams(values).toString();
  // the router is not there yet on the first pass; the address is right then anyway
  if (page.url.search !== `?${query}`) setTimeout(() => replaceState(resolve(`${place}?${query}`), {}));
}
