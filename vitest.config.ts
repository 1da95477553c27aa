import { createRequire } from 'node:module'
import { defineConfig } from 'vitest/config'
import { addressed } from './web/vite.config.ts'

// Node's entries of the router are CommonJS, each with a router of its own.
const esmOf = (entry: string) =>
  createRequire(import.meta.url)
    .resolve(entry)
    .replace(/\.js$/, '.mjs')
const router = ['react-router', 'react-router/dom'].map((entry) => ({
  find: new RegExp(`^${entry}$`),
  replacement: esmOf(entry),
}))

export default defineConfig({
  test: {
    setupFiles: ['core/test/load-geometry.ts'],
    testTimeout: 120_000,
    hookTimeout: 60_000,
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
      {
        extends: true,
        resolve: { alias: [...addressed, ...router] },
        // React as makers get it: as it is for its developers it takes twice the time.
        oxc: { jsx: { runtime: 'automatic', development: false } },
        // Whole screens in a document without a browser.
        test: {
          name: 'screens',
          include: ['web/src/**/*.test.tsx'],
          environment: 'jsdom',
          env: { NODE_ENV: 'production' },
          setupFiles: ['web/test/in-jsdom.ts'],
        },
      },
    ],
  },
})
