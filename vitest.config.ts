import { defineConfig } from 'vitest/config';

export default defineConfig({
  // The packages' sources, not what was built of them last.
  resolve: { conditions: ['source'] },
  ssr: { resolve: { conditions: ['source'], externalConditions: ['source'] } },
  test: {
    include: ['packages/*/test/**/*.test.ts', 'test/**/*.test.ts'],
    testTimeout: 60_000,
    hookTimeout: 60_000,
    // Two cores: browsers and services side by side would only wait for each other.
    maxWorkers: 2,
  },
});
