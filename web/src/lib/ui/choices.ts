/** What a control offers to choose from: a value that is kept and the words that are shown for it. */
export interface Choice<T extends string = string> {
  value: T;
  label: string;
  disabled?: boolean;
}

/** Choices as they lie about in the code: ready ones, words that are their own value, or words by value. */
export type Choices<T extends string = string> =
  | readonly Choice<T>[]
  | readonly T[]
  | Readonly<Partial<Record<T, string>>>;

export function choicesOf<T extends string>(from: Choices<T>): Choice<T>[] {
  if (!Array.isArray(from))
    return Object.entries<string>(from as Record<T, string>).map(([v, label]) => ({ value: v as T, label }));
  return from.map((c: Choice<T> | T) => (typeof c === 'string' ? { value: c, label: c } : c));
}

/** A list of ticked ones after one of them was ticked or unticked. */
export function ticked<T>(list: readonly T[], item: T, on: boolean): T[] {
  return on ? [...list.filter((x) => x !== item), item] : list.filter((x) => x !== item);
}

/** A file to save, in a menu. */
export interface FileChoice {
  title: string;
  href: string;
}
