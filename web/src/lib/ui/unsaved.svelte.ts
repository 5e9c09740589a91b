/** What somebody has typed and not saved: asked about before it is left. */
import type { Attachment } from 'svelte/attachments';
import { SvelteSet } from 'svelte/reactivity';

const forms = new SvelteSet<HTMLFormElement>();

/** Something on this page is typed and not saved. */
export const isUnsaved = (): boolean => forms.size > 0;

/** Nothing of it is to be kept. */
export const dropUnsaved = (): void => forms.clear();

/** Something is typed into a form. */
export const markTyped = (form: HTMLFormElement): void => void forms.add(form);

/** A form is saved: it no longer holds anybody back. */
export const markSaved = (form: HTMLFormElement): void => void forms.delete(form);

/** A form whose typing is not to be lost, until it is marked as saved or closes. A link inside of it is meant. */
export const guarded: Attachment<HTMLFormElement> = (form) => {
  const typed = () => markTyped(form);
  const meant = (e: Event) => {
    if ((e.target as Element).closest('a')) markSaved(form);
  };
  for (const event of ['input', 'change']) form.addEventListener(event, typed);
  form.addEventListener('click', meant);
  return () => {
    for (const event of ['input', 'change']) form.removeEventListener(event, typed);
    form.removeEventListener('click', meant);
    markSaved(form);
  };
};
