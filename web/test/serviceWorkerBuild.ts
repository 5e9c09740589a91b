/** Stands for what the build tells a service worker: the deployment a test speaks of. */
export const { build, files, version } = (
  globalThis as unknown as { deployed: { build: string[]; files: string[]; version: string } }
).deployed;
