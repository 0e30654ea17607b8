import { defineConfig } from 'vitest/config';

/** Stories and bursts in Debian's Firefox and WebKit: npm run browsers. Not part of bin/test. */
export default defineConfig({
  resolve: { conditions: ['source'] },
  ssr: { resolve: { conditions: ['source'], externalConditions: ['source'] } },
  test: {
    testTimeout: 120_000,
    hookTimeout: 120_000,
    // A browser at a time: what is measured is how it behaves, not how two share a machine.
    fileParallelism: false,
    include: ['test/browsers/**/*.browsers.ts'],
  },
});
