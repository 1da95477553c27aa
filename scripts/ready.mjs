// What a fresh machine lacks: packages, and for the tests a browser. Installs it, and says what it does.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { setTimeout } from 'node:timers/promises'
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

/** Ends once a command did; gives null, or what it complained of. */
const said = (command, args, env) =>
  new Promise((settle) => {
    let complaint = ''
    const child = spawn(command, args, { env, stdio: ['ignore', 'ignore', 'pipe'] })
    child.stderr.on('data', (text) => (complaint += text))
    child.on('error', (error) => settle(error.message))
    child.on('close', (status) => settle(status === 0 ? null : complaint.trim() || `it ended with ${status}`))
  })

/** Runs apt-get; gives null, or why it failed. */
async function apt(...args) {
  const asRoot = process.getuid?.() === 0 ? [] : ['sudo']
  // Another installation may be under way: wait for its lock.
  const [command, ...rest] = [...asRoot, 'apt-get', '-o', 'DPkg::Lock::Timeout=300', ...args]
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  for (let tries = 1; ; tries++) {
    const why = await said(command, rest, env)
    if (why === null) return null
    if (!/lock/i.test(why) || tries === 10) return why.split('\n').at(-1)
    // Lists have a lock of their own, which apt-get does not wait for.
    await setTimeout(15_000)
  }
}

/** Installs Debian's Chromium where none is there; gives null, or a sentence that says why it could not. */
export async function ensureChromium() {
  const [[, quickest]] = BROWSERS
  if (existsSync(quickest)) return null
  console.log('Installing Chromium …')
  let why = await apt('update', '-qq')
  for (const [name, path] of BROWSERS) {
    if (existsSync(path)) return null
    why = await apt('install', '-y', '-qq', '--no-install-recommends', name)
    if (why === null && existsSync(path)) return null
  }
  return `Chromium could not be installed: ${why} Install the package chromium by hand and start again.`
}
