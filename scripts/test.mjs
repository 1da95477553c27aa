// Installs what is missing and runs every check. The last line is the true total of all of them.
import { spawn, spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureChromium, ensurePackages, root } from './ready.mjs'

ensurePackages()
ensureChromium()

const total = { passed: 0, failed: 0, skipped: 0 }
const results = mkdtempSync(join(tmpdir(), 'feuillet-test-'))

function step(title, command, args, env = {}) {
  console.log(`\n— ${title}`)
  const { status } = spawnSync(command, args, {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  })
  return status === 0
}

/** A check that is one pass or one failure. */
function check(title, command, args) {
  const good = step(title, command, args)
  total[good ? 'passed' : 'failed']++
  return good
}

/** Checks that do not touch each other, `[title, command, args]` each: two at a time, what each says in one piece. */
async function checks(list) {
  const left = [...list]
  const hand = async () => {
    for (let next = left.shift(); next; next = left.shift()) {
      const [title, command, args] = next
      const good = await new Promise((settle) => {
        let said = ''
        const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] })
        for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (said += text))
        const end = (status) => {
          console.log(`\n— ${title}${status === 0 ? '' : ': failed'}\n${said}`.trimEnd())
          settle(status === 0)
        }
        child.on('error', (error) => {
          said += error.message
          end(1)
        })
        child.on('close', end)
      })
      total[good ? 'passed' : 'failed']++
    }
  }
  await Promise.all([hand(), hand()])
}

/** A runner that writes its counts to a JSON file; no readable file is a failure. */
function suite(title, command, args, file, count, env = {}) {
  const good = step(title, command, args, env)
  let counts = { passed: 0, failed: 0, skipped: 0 }
  try {
    counts = count(JSON.parse(readFileSync(file, 'utf8')))
  } catch {
    console.error(`${title}: the runner left no readable result.`)
  }
  if (counts.passed + counts.failed === 0 || (!good && counts.failed === 0)) counts.failed++
  for (const key of Object.keys(total)) total[key] += counts[key]
  if (counts.late > 0) console.log(`${title}: ${counts.late} came right only when tried again (see above).`)
}

await checks([
  ['lint', 'npx', ['eslint', '.', '--max-warnings', '0']],
  ['format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
  ...['core', 'core/tsconfig.test.json', 'headless', 'server', 'web', 'e2e', 'bench', 'scripts'].map(
    (part) => [`types of ${part}`, 'npx', ['tsc', '-p', part]],
  ),
  ['published schema is up to date', 'npx', ['tsx', 'scripts/schema.ts', '--check']],
  ['layering rule', 'npm', ['run', '--silent', 'layers']],
])

const unit = join(results, 'unit.json')
suite(
  'unit and property tests',
  'npx',
  ['vitest', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${unit}`],
  unit,
  (r) => ({
    passed: r.numPassedTests,
    failed:
      r.numFailedTests +
      r.testResults.filter((t) => t.status === 'failed' && t.assertionResults.length === 0).length,
    skipped: r.numPendingTests + r.numTodoTests,
  }),
)

const built = check('build', 'npm', ['run', '--silent', 'build'])
const faces = join(results, 'interface.json')
if (built)
  suite(
    'interface tests',
    'npx',
    ['playwright', 'test', '-c', 'e2e', '--reporter=list,json'],
    faces,
    ({ stats }) => ({
      passed: stats.expected + stats.flaky,
      failed: stats.unexpected,
      skipped: stats.skipped,
      late: stats.flaky,
    }),
    { PLAYWRIGHT_JSON_OUTPUT_NAME: faces },
  )
else total.failed++

rmSync(results, { recursive: true, force: true })
console.log(`\n${total.passed} passed, ${total.failed} failed, ${total.skipped} skipped`)
process.exit(total.failed > 0 ? 1 : 0)
