import { defineConfig } from 'vitest/config';

export default defineConfig({
  // The packages' sources, not what was built of them last.
  resolve: { conditions: ['source'] },
  ssr: { resolve: { conditions: ['source'], externalConditions: ['source'] } },
  test: {
    include: ['packages/*/test/**/*.test.ts', 'test/**/*.test.ts', 'examples/*/test/**/*.test.ts'],
    // A machine that is shared can be ten times slower than a quiet one; the tests wait for conditions, not for these limits.
    testTimeout: 300_000,
    hookTimeout: 300_000,
    // Two cores: browsers and services side by side would only wait for each other.
    maxWorkers: 2,
  },
});
