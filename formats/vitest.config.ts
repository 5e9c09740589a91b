import { defineConfig } from 'vitest/config';

/** Pure functions: files share what they import, on every core there is. */
export default defineConfig({
  test: { include: ['test/**/*.test.ts'], testTimeout: 60_000, isolate: false, maxWorkers: '100%' },
});
