import { svelte } from '@sveltejs/vite-plugin-svelte';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [svelte()],
  base: '/~/console/',
  build: { outDir: 'dist', emptyOutDir: true, modulePreload: { polyfill: false }, chunkSizeWarningLimit: 900 },
});
