import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

// The packages' sources, so that a change in them shows at once.
export default defineConfig({
  root: fileURLToPath(new URL('.', import.meta.url)),
  resolve: { conditions: ['source', 'module', 'browser'] },
  build: { outDir: 'dist', emptyOutDir: true },
});
