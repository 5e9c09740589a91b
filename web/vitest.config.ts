import { svelte } from '@sveltejs/vite-plugin-svelte';
import { svelteTesting } from '@testing-library/svelte/vite';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/** `test/*.test.ts` runs as the server does; `test/page/*.test.ts` as a page does, with stores and components compiled for a browser. */
export default defineConfig({
  resolve: {
    alias: {
      $lib: here('./src/lib'),
      $app: here('../node_modules/@sveltejs/kit/src/runtime/app'),
      '$service-worker': here('./test/serviceWorkerBuild.ts'),
    },
  },
  test: {
    testTimeout: 30_000,
    hookTimeout: 60_000,
    maxWorkers: '100%',
    projects: [
      { extends: true, test: { name: 'server', include: ['test/*.test.ts'], isolate: false } },
      {
        extends: true,
        plugins: [svelte(), svelteTesting()],
        test: { name: 'page', environment: 'jsdom', include: ['test/page/*.test.ts'] },
      },
    ],
  },
});
