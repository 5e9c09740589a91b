/** Designs of Plackett & Burman (Biometrika 33, 1946): every input's effect comes out of all runs together, each input off up or down in half of them. */

/** First rows of the designs for up to seven, eleven and fifteen inputs; the others are its turns, and a last one with all low. */
const ROWS = [
  [1, 1, 1, -1, 1, -1, -1],
  [1, 1, -1, 1, 1, 1, -1, -1, -1, 1, -1],
  [1, 1, 1, 1, -1, 1, -1, 1, 1, -1, -1, 1, -1, -1, -1],
];

/** The runs for so many inputs, at most fifteen and at least `least` runs: how far each is off in each. */
export function designFor(inputs: number, least = 0): readonly (readonly number[])[] {
  const row = ROWS.find((r) => r.length >= inputs && r.length + 1 >= least);
  if (!row) throw new Error(`${inputs} inputs are too many for a design of sixteen runs.`);
  const n = row.length;
  return [...row.map((_, shift) => row.map((_sign, i) => row[(i + n - shift) % n])), row.map(() => -1)];
}

/** Effect of every input on a response over its design: half the difference between high and low. */
export function effectsOf(responses: readonly number[], inputs: number): number[] {
  if (inputs === 0) return [];
  const design = designFor(inputs, responses.length);
  return Array.from(
    { length: inputs },
    (_, i) => responses.reduce((sum, r, n) => sum + design[n][i] * r, 0) / responses.length,
  );
}
