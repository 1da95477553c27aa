import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    setupFiles: ['core/test/load-geometry.ts'],
    testTimeout: 120_000,
    // What came right only when tried again is told at the end of `npm test`.
    retry: 1,
    // All cores: the default leaves one of two unused.
    maxWorkers: '100%',
    projects: [
      {
        extends: true,
        // Nothing in them is kept between tests: loading everything anew for each file would take as long as the tests.
        test: { name: 'core', include: ['{core,headless,server}/src/**/*.test.ts'], isolate: false },
      },
      { extends: true, test: { name: 'page', include: ['web/src/**/*.test.ts'] } },
    ],
  },
})
