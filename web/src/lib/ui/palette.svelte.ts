/** What the command palette can find besides jobs: places, and what the open page offers (parts, actions). */
import { onMount } from 'svelte';

export interface Command {
  title: string;
  hint?: string;
  run: () => void;
}

const sources = $state<{ commands: () => Command[] }[]>([]);

/** Offers commands while the calling component is on the page. */
export function useCommands(commands: () => Command[]): void {
  onMount(() => {
    sources.push({ commands });
    return () => {
      const at = sources.findIndex((s) => s.commands === commands);
      if (at >= 0) sources.splice(at, 1);
    };
  });
}

export function offeredCommands(): Command[] {
  return sources.flatMap((s) => s.commands());
}
