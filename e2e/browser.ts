// The browser of the tests: Debian's Chromium, with nothing that reaches out.
import { existsSync } from 'node:fs'

const SHELL = '/usr/bin/chromium-headless-shell'

/** Without windows a page takes half the work to open: it goes first where it is installed. */
export const chromiumPath = existsSync(SHELL) ? SHELL : '/usr/bin/chromium'

export const browserArgs = [
  '--no-sandbox',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  // A page of a test lives for seconds: compiling it for the long run takes more of the machine than it saves, a fifth of all tests' time.
  '--js-flags=--no-turbofan',
]

/** The same, drawing in three dimensions too, in software: slower with every page. */
export const spaceArgs = [
  ...browserArgs,
  '--use-gl=angle',
  '--use-angle=swiftshader',
  '--enable-unsafe-swiftshader',
]

export const port = 4191

export const origin = `http://127.0.0.1:${port}`
