import { defineConfig } from '@playwright/test'
import { browserArgs, chromiumPath, origin, port, spaceArgs } from './browser'

export default defineConfig({
  testDir: 'tests',
  outputDir: '../test-results',
  workers: 2,
  fullyParallel: true,
  forbidOnly: true,
  // A machine that stalls for a while must not fail the whole; what came right only then is told with the total.
  retries: 1,
  timeout: 90_000,
  expect: { timeout: 20_000 },
  use: {
    baseURL: origin,
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: chromiumPath, args: browserArgs },
    trace: 'off',
  },
  projects: [
    // By far the longest: begun last it would leave the other worker idle.
    {
      name: 'in space',
      testMatch: 'light-box.spec.ts',
      use: { launchOptions: { executablePath: chromiumPath, args: spaceArgs } },
    },
    { name: 'pages', testIgnore: 'light-box.spec.ts' },
  ],
  webServer: {
    command: 'npm run --silent start',
    cwd: '..',
    env: { PORT: String(port) },
    url: origin,
    reuseExistingServer: false,
  },
})
