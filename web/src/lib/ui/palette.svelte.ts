/** What the command palette can find: what the open page offers, then places, jobs, boards, calculators. */
import { onMount } from 'svelte';

/** Where a command belongs, in the order in which they are shown: the board on the bench comes first. */
export const COMMAND_GROUPS = {
  part: 'On this board',
  act: 'Here',
  step: 'Steps of this job',
  place: 'Places',
  job: 'Jobs',
  board: 'Boards',
  calculator: 'Calculators',
  elsewhere: 'Parts on other boards',
} as const;
type CommandGroup = keyof typeof COMMAND_GROUPS;

export interface Command {
  group: CommandGroup;
  title: string;
  hint?: string;
  /** Further words by which it is found: a part's package, say. */
  words?: string;
  run: () => void;
}

/** Goes to another place: asked for twice where that leaves a job by a bare Enter. */
export const leaves = (c: Command) => !['part', 'act', 'step'].includes(c.group);

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
