import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig, type Plugin } from 'vite';

/** How files are cut, once it is known whether they are the server's or the page's. */
const cut: Plugin = {
  name: 'cut',
  config: ({ build }) => ({
    build: {
      rollupOptions: build?.ssr
        ? // what the server loads need not be small
          { treeshake: false }
        : // a page asks for dozens of files instead of a hundred; merged further, pages load what others need
          { output: { experimentalMinChunkSize: 1_200 } },
    },
  }),
};

export default defineConfig({
  plugins: [tailwindcss(), sveltekit(), cut],
  worker: { format: 'es' },
  build: {
    reportCompressedSize: false,
    // the content policy allows no data: fonts or wasm
    assetsInlineLimit: (file) => (/\.(woff2?|wasm)$/.test(file) ? false : undefined),
  },
});
