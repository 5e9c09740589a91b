import { describe, expect, it } from 'vitest';
import { benchTimes } from './benchTimes.ts';

describe('believable bench times', () => {
  it.each(benchTimes.map((b) => [b.name, b] as const))('%s', async (_, b) => {
    for (const { what, value, from, to } of await b.run()) {
      expect(value, what).toBeGreaterThanOrEqual(from);
      expect(value, what).toBeLessThanOrEqual(to);
    }
  });
});
