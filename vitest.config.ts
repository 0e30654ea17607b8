import { defineConfig } from 'vitest/config';

/** Tests of pure functions, which run first: what fails here would fail everywhere. */
const ofTheCore = ['packages/address/test/**/*.test.ts', 'packages/app/test/**/*.test.ts'];

export default defineConfig({
  // The packages' sources, not what was built of them last.
  resolve: { conditions: ['source'] },
  ssr: { resolve: { conditions: ['source'], externalConditions: ['source'] } },
  test: {
    // Loading the module graph again for each file would take a tenth of the whole time; no test changes a module.
    isolate: false,
    setupFiles: ['./test/support/same-values.ts'],
    // A machine that is shared can be ten times slower than a quiet one; the tests wait for conditions, not for these limits.
    testTimeout: 300_000,
    hookTimeout: 300_000,
    expect: { poll: { timeout: 240_000 } },
    // Two cores: browsers and services side by side would only wait for each other.
    maxWorkers: 2,
    projects: [
      { extends: true, test: { name: 'core', include: ofTheCore } },
      {
        extends: true,
        test: {
          name: 'others',
          include: ['packages/*/test/**/*.test.ts', 'test/**/*.test.ts', 'examples/*/test/**/*.test.ts'],
          exclude: [...ofTheCore, '**/node_modules/**'],
        },
      },
    ],
  },
});
