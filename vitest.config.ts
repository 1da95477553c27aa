import { createRequire } from 'node:module'
import { defineConfig } from 'vitest/config'
import { BaseSequencer, type TestSpecification } from 'vitest/node'
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

const ORDER = ['screens', 'core', 'page']

/**
 * Files of one project after those of another: a worker that shares what it loaded between files is ended where the next one is of
 * another kind. The longest come first, and last those that are short and each on its own.
 */
class ByProject extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const place = ({ project }: TestSpecification) => ORDER.indexOf(project.name)
    return (await super.sort(files)).toSorted((a, b) => place(a) - place(b))
  }
}

export default defineConfig({
  test: {
    sequence: { sequencer: ByProject },
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
        // Whole screens in a document without a browser. Each file leaves the page as it found it (test/screens.tsx), so that all
        // share one application: opening it anew takes as long as many a test.
        test: {
          name: 'screens',
          isolate: false,
          include: ['web/src/**/*.test.tsx'],
          environment: 'jsdom',
          env: { NODE_ENV: 'production' },
          setupFiles: ['web/test/in-jsdom.ts'],
        },
      },
    ],
  },
})
