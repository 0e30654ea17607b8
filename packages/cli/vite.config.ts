import { defineConfig } from 'vite';

// One file for what every command needs, and one for each command: finding hundreds of modules would take longer than most
// commands do. The service stays outside; only what serves loads it.
export default defineConfig({
  build: {
    ssr: 'src/main.ts',
    outDir: 'dist',
    emptyOutDir: false,
    target: 'node20',
    rolldownOptions: { output: { entryFileNames: '[name].js', chunkFileNames: 'parts/[name].js' } },
  },
  ssr: { noExternal: true, external: ['@pallmist/service', 'jiti'] },
});
