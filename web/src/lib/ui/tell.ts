import { mount } from 'svelte';
import { telling } from './told.svelte';

let shown = false;
/** Says something on whatever page is open; what shows it comes with the first word. */
export const tell: typeof telling.tell = (...said) => {
  telling.tell(...said);
  if (shown) return;
  shown = true;
  void import('./Told.svelte').then(
    ({ default: Told }) => mount(Told, { target: document.body }),
    () => (shown = false),
  );
};
