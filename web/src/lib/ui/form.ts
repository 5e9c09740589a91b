/** What the server said of a form that was posted, for the fields in it. */
import { getContext, setContext } from 'svelte';

/** A page's answer to a post, as far as forms go by it. */
export interface Answer {
  /** Which of several forms of a page it speaks of. */
  id?: string;
  values?: Record<string, unknown>;
  issues?: Record<string, string>;
  saved?: boolean;
}

/** Asks what was typed under a name, and what is wrong with it. */
export interface Posted {
  /** Typed and refused, else `start`. */
  value: (name: string, start?: string) => string;
  issue: (name: string) => string | undefined;
}

const KEY = Symbol('posted form');
export const tellFields = (posted: Posted): void => void setContext(KEY, posted);
/** The form a field stands in; none outside of one. */
export const formAround = (): Posted | undefined => getContext<Posted | undefined>(KEY);
