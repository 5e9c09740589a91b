/**
 * Keys of the place one is in. A component offers its keys with `useKeys`; the frame dispatches them,
 * shows the important ones in the key line and all of them in the `?` sheet. (Own code instead of a
 * shortcut package: the list with its labels is needed anyway, the dispatch is a dozen lines.)
 */
import { onMount } from 'svelte';

export interface Key {
  /** `KeyboardEvent.key`, lower-case letters; several for the same action. */
  keys: string[];
  label: string;
  /** Gets the name of the key that was pressed. */
  run: (key: string) => void;
  /** Shown in the key line at the bottom. */
  line?: boolean;
  /** How the keys are written where several mean the same; otherwise as they are. */
  shown?: string[];
}

interface Group {
  title: string;
  keys: () => Key[];
  order: number;
}

const groups = $state<Group[]>([]);
let made = 0;

/**
 * Offers keys while the calling component is on the page. Those of a component made later (a child, say) win.
 */
export function useKeys(title: string, keys: () => Key[]): void {
  const group: Group = { title, keys, order: made++ };
  // once mounted: what a component writes while it is being made can be undone by the leaving of the one before
  onMount(() => {
    const behind = groups.findIndex((g) => g.order > group.order);
    groups.splice(behind < 0 ? groups.length : behind, 0, group);
    return () => {
      const at = groups.findIndex((g) => g.order === group.order);
      if (at >= 0) groups.splice(at, 1);
    };
  });
}

export function offeredKeys(): { title: string; keys: Key[] }[] {
  return groups.map((g) => ({ title: g.title, keys: g.keys() }));
}

function takesText(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  // what can only be read takes no letters
  if (target instanceof HTMLTextAreaElement || target instanceof HTMLInputElement) return !target.readOnly;
  if (target.isContentEditable) return true;
  // letters choose in a list, open or not
  return ['combobox', 'listbox', 'spinbutton'].includes(target.role ?? '');
}

/** Runs what a key press means here; true when something took it. */
export function dispatchKey(event: KeyboardEvent): boolean {
  // whoever took the key says so: a list that was open closes with Escape, and nothing else does
  if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return false;
  // what a key opened closes with Escape, also from within one of its fields
  if (takesText(event.target) && event.key !== 'Escape') return false;
  const name = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  const onControl = event.target instanceof HTMLButtonElement || event.target instanceof HTMLAnchorElement;
  // Enter and Space on a focused button are the button's own
  if (onControl && (name === 'Enter' || name === ' ')) return false;
  // so are the arrows on a row of choices and on a slider
  if (event.target instanceof HTMLElement && ['radio', 'slider'].includes(event.target.role ?? ''))
    if (name.startsWith('Arrow') || name === 'Home' || name === 'End') return false;
  for (let i = groups.length - 1; i >= 0; i--) {
    const key = groups[i].keys().find((k) => k.keys.includes(name));
    if (key) {
      event.preventDefault();
      key.run(name);
      return true;
    }
  }
  return false;
}

const NAMES: Record<string, string> = {
  ArrowLeft: '←',
  ArrowRight: '→',
  ArrowUp: '↑',
  ArrowDown: '↓',
  ' ': 'Space',
  Escape: 'Esc',
};

/** Key names as printed on key caps. */
export function shownKeys(key: Key): string[] {
  return key.shown ?? key.keys.map((k) => NAMES[k] ?? (k.length === 1 ? k.toUpperCase() : k));
}
