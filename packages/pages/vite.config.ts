import { svelte } from '@sveltejs/vite-plugin-svelte';
import { defineConfig } from 'vite';

// Built twice: once for the service, which draws pages first, and once for the browser, which takes them over.
export default defineConfig(({ isSsrBuild }) => ({
  plugins: [svelte()],
  base: '/~/assets/',
  build: isSsrBuild
    ? { outDir: 'dist/server', emptyOutDir: true, ssr: 'src/server.ts' }
    : {
        outDir: 'dist/browser',
        emptyOutDir: true,
        manifest: 'manifest.json',
        // One sheet for all: a page is drawn by the service before any of its scripts is there.
        cssCodeSplit: false,
        modulePreload: { polyfill: false },
        // What the parts share is one file, which every page loads: one compresses better than five.
        rolldownOptions: { input: 'src/hydration/start.ts', output: { codeSplitting: { groups: [{ name: 'shared', minShareCount: 2 }] } } },
      },
  // Svelte is bundled, so that the service needs none of its own; core is not, because the two have to share its classes.
  ssr: { noExternal: true, external: ['@pallmist/app', '@pallmist/app/address', '@pallmist/app/view'] },
}));
