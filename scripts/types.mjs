// Checks the types of every part with TypeScript's native compiler (docs/decisions/0032). `npm run types`.
import { spawnSync } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { root } from './ready.mjs'

const PARTS = ['core', 'core/tsconfig.test.json', 'headless', 'server', 'web', 'e2e', 'bench', 'scripts']

/** The check of each part: title, command, arguments. */
export const typeChecks = PARTS.map((part) => [
  `types of ${part}`,
  'node',
  // By its place: another package gives a command of the same name.
  ['node_modules/typescript-native/bin/tsc', '-p', part],
])

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const failed = typeChecks.filter(([title, command, args]) => {
    console.log(title)
    return spawnSync(command, args, { cwd: root, stdio: 'inherit' }).status !== 0
  })
  process.exit(failed.length > 0 ? 1 : 0)
}
