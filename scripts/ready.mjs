// What a fresh machine lacks: packages, and for the tests a browser. Installs it, and says what it does.
import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

export const root = fileURLToPath(new URL('..', import.meta.url))

/** Runs a command in the project's folder with its output shown; ends this process where it fails. */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options })
  if (error || status !== 0) {
    console.error(`${command} ${args.join(' ')} failed${error ? `: ${error.message}` : ''}.`)
    process.exit(status || 1)
  }
}

/** Installs the packages where they are missing or do not match the lock file. */
export function ensurePackages() {
  const installed = `${root}/node_modules/.package-lock.json`
  const wanted = JSON.parse(readFileSync(`${root}/package-lock.json`, 'utf8')).packages
  const present = existsSync(installed) ? JSON.parse(readFileSync(installed, 'utf8')).packages : {}
  const missing = Object.entries(wanted).some(
    ([place, { version, optional, link }]) =>
      place.startsWith('node_modules/') && !optional && !link && present[place]?.version !== version,
  )
  if (!missing) return
  console.log('Installing packages …')
  run('npm', ['ci', '--ignore-scripts'])
}

/** Debian's packages that the tests can be driven by, the quicker first, and what they install. */
const BROWSERS = [
  ['chromium-headless-shell', '/usr/bin/chromium-headless-shell'],
  ['chromium', '/usr/bin/chromium'],
]

/** Runs apt-get; gives null, or why it failed. */
function apt(...args) {
  const asRoot = process.getuid?.() === 0 ? [] : ['sudo']
  // Another installation may be under way: wait for its lock.
  const [command, ...rest] = [...asRoot, 'apt-get', '-o', 'DPkg::Lock::Timeout=300', ...args]
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  for (let tries = 1; ; tries++) {
    const { status, stderr } = spawnSync(command, rest, { encoding: 'utf8', env })
    if (status === 0) return null
    const busy = /lock/i.test(stderr ?? '')
    if (!busy || tries === 10) return (stderr ?? '').trim().split('\n').at(-1) || 'apt-get is not there'
    // Lists have a lock of their own, which apt-get does not wait for.
    spawnSync('sleep', ['15'])
  }
}

/** Installs Debian's Chromium where none is there; ends this process with a sentence where it cannot. */
export function ensureChromium() {
  const [[, quickest]] = BROWSERS
  if (existsSync(quickest)) return
  console.log('Installing Chromium …')
  let why = apt('update', '-qq')
  for (const [name, path] of BROWSERS) {
    if (existsSync(path)) return
    why = apt('install', '-y', '-qq', '--no-install-recommends', name)
    if (why === null && existsSync(path)) return
  }
  console.error(
    `Chromium could not be installed: ${why} Install the package chromium by hand and start again.`,
  )
  process.exit(1)
}
