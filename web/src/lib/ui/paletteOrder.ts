/** Which commands fit what was typed, and in which order. */
import { COMMAND_GROUPS, type Command } from './palette.svelte';

/** Of one group. */
const MOST = 12;
const wordsOf = (text: string) =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}.°Ωµ]+/u)
    .filter(Boolean);
const squeezed = (text: string) => wordsOf(text).join('');

/** How well a command fits; 0: not at all. Every word typed must begin one of its own, spaces aside (`qfp 44`, `qfp44`). */
export function fits(command: Command, search: string): number {
  const typed = wordsOf(search);
  if (typed.length === 0) return 1;
  const title = wordsOf(command.title);
  const whole = typed.join('');
  if (title[0] === whole) return 4;
  if (squeezed(command.title).startsWith(whole)) return 3;
  const all = [...title, ...wordsOf(command.words ?? ''), ...wordsOf(command.hint ?? '')];
  if (typed.every((t) => all.some((w) => w.startsWith(t)))) return typed.every((t) => title.includes(t)) ? 2 : 1;
  // a name typed without its spaces or dashes
  const name = squeezed(command.words ?? '');
  return whole.length > 2 && name.includes(whole) ? 0.5 : 0;
}

/** What fits, by group in their fixed order, best first within each; equal ones as they were offered. */
export function ordered(commands: readonly Command[], search: string): { title: string; commands: Command[] }[] {
  return Object.entries(COMMAND_GROUPS)
    .map(([group, title]) => ({
      title,
      commands: commands
        .filter((c) => c.group === group)
        .map((command) => ({ command, fit: fits(command, search) }))
        .filter((c) => c.fit > 0)
        .toSorted((a, b) => b.fit - a.fit)
        .slice(0, MOST)
        .map((c) => c.command),
    }))
    .filter((g) => g.commands.length > 0);
}
