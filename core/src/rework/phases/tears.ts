/** Chance that one of several goes wrong, each alike. */
export const anyOf = (n: number, each: number): number => 1 - (1 - each) ** n;

/** Least distance between neighbouring lands of a package, mm; Infinity where there is one. */
export function pitchOf(terminals: readonly { land: { x: number; y: number } }[]): number {
  let least = Infinity;
  for (const [i, a] of terminals.entries())
    for (const b of terminals.slice(i + 1))
      least = Math.min(least, Math.hypot(a.land.x - b.land.x, a.land.y - b.land.y));
  return least;
}
