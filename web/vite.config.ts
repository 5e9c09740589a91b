import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

export default defineConfig(({ isSsrBuild }) => ({
  plugins: [tailwindcss(), sveltekit()],
  worker: { format: 'es' },
  build: {
    reportCompressedSize: false,
    // what the server loads need not be small
    ...(isSsrBuild ? { rollupOptions: { treeshake: false } } : {}),
    // the content policy allows no data: fonts or wasm
    assetsInlineLimit: (file) => (/\.(woff2?|wasm)$/.test(file) ? false : undefined),
  },
}));
