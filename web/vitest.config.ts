import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  resolve: { alias: { $lib: here('./src/lib') } },
  test: { include: ['test/**/*.test.ts'], testTimeout: 30_000, hookTimeout: 60_000 },
});
