import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: ['{core,headless,server,web}/src/**/*.test.ts'],
    setupFiles: ['core/test/load-geometry.ts'],
    testTimeout: 30_000,
    // All cores: the default leaves one of two unused.
    maxWorkers: '100%',
  },
})
