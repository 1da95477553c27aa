// What a fresh machine lacks: packages, and for the tests a browser. Installs it, and says what it does.
import { execFileSync, spawnSync } from 'node:child_process'
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

const CHROMIUM = '/usr/bin/chromium'

/** Installs Debian's Chromium where it is missing. */
export function ensureChromium() {
  if (existsSync(CHROMIUM)) return
  console.log('Installing Chromium …')
  const asRoot = process.getuid?.() === 0 ? [] : ['sudo']
  const apt = (...args) => {
    const [command, ...rest] = [...asRoot, 'apt-get', ...args]
    execFileSync(command, rest, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    })
  }
  apt('update', '-qq')
  apt('install', '-y', '-qq', '--no-install-recommends', 'chromium')
}
