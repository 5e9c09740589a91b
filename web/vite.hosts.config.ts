// Bundles the hosts of the calculation registry that run in plain Node: command line and server thread.
import { defineConfig } from 'vite';

export default defineConfig({
  publicDir: false,
  build: {
    ssr: true,
    target: 'node20',
    outDir: `${process.env.ORTHOS_OUT ?? 'build'}-hosts`,
    emptyOutDir: true,
    rollupOptions: {
      input: { calc: 'hosts/calc.ts', thread: 'hosts/thread.ts', media: 'hosts/media.ts' },
      output: { entryFileNames: '[name].mjs' },
    },
  },
  // pdfkit reads its fonts from its own folder
  ssr: { noExternal: true, external: ['pdfkit'] },
});
