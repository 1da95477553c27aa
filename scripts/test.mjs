// Installs what is missing and runs every check. The last line is the true total of all of them.
import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureChromium, ensurePackages, root } from './ready.mjs'
import { typeChecks } from './types.mjs'

ensurePackages()
// Only the last of the checks needs it.
const chromium = ensureChromium()

const total = { passed: 0, failed: 0, skipped: 0 }
/** Names of what failed, and of what came right only when tried again. */
const failures = []
const late = []
const results = mkdtempSync(join(tmpdir(), 'feuillet-test-'))

/** Runs `[title, command, args]`; whether it went well. */
function step([title, command, args], env = {}) {
  console.log(`\n— ${title}`)
  const child = spawn(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } })
  return new Promise((settle) => {
    child.on('error', ({ message }) => {
      console.error(message)
      settle(false)
    })
    child.on('close', (status) => settle(status === 0))
  })
}

function note(title, good) {
  total[good ? 'passed' : 'failed']++
  if (!good) failures.push(title)
}

/** A check that is one pass or one failure. */
async function check(one) {
  const good = await step(one)
  note(one[0], good)
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
      note(title, good)
    }
  }
  await Promise.all([hand(), hand()])
}

/**
 * A runner, `[title, command, args]`, that writes its results to a JSON file; no readable file is a failure.
 * @param read what of it passed, by number, what was skipped, and names of what failed and of what was late
 */
async function suite(runner, { file, read, env }) {
  const [title] = runner
  const good = await step(runner, env)
  let result = { passed: 0, skipped: 0, failed: [], late: [] }
  try {
    result = read(JSON.parse(readFileSync(file, 'utf8')))
  } catch {
    result.failed.push('the runner left no readable result')
  }
  if (result.failed.length === 0 && (!good || result.passed === 0)) result.failed.push('the runner itself')
  total.passed += result.passed
  total.failed += result.failed.length
  total.skipped += result.skipped
  failures.push(...result.failed.map((name) => `${title}: ${name}`))
  late.push(...result.late.map((name) => `${title}: ${name}`))
}

/** Results of the unit tests as the suite counts them. */
function unitResults({ numPassedTests, numPendingTests, numTodoTests, testResults }) {
  const names = (of) => testResults.flatMap((file) => file.assertionResults.filter(of)).map((t) => t.fullName)
  return {
    passed: numPassedTests,
    skipped: numPendingTests + numTodoTests,
    failed: [
      ...names(({ status }) => status === 'failed'),
      // A file that could not even be read.
      ...testResults
        .filter(({ status, assertionResults }) => status === 'failed' && assertionResults.length === 0)
        .map(({ name }) => name),
    ],
    late: names(({ status, failureMessages }) => status === 'passed' && failureMessages.length > 0),
  }
}

/** Results of the page tests as the suite counts them. */
function pageResults({ stats, suites }) {
  const specs = (list) => list.flatMap((one) => [...(one.specs ?? []), ...specs(one.suites ?? [])])
  const names = (state) =>
    specs(suites)
      .filter(({ tests }) => tests.some(({ status }) => status === state))
      .map(({ title }) => title)
  return {
    passed: stats.expected + stats.flaky,
    skipped: stats.skipped,
    failed: names('unexpected'),
    late: names('flaky'),
  }
}

await checks([
  ['lint', 'npx', ['eslint', '.', '--max-warnings', '0']],
  ['format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
  ...typeChecks,
  ['published schema is up to date', 'npx', ['tsx', 'scripts/schema.ts', '--check']],
  ['compiled kernel is up to date', 'node', ['scripts/kernel.mjs', '--check']],
  ['layering rule', 'npm', ['run', '--silent', 'layers']],
])

const unit = join(results, 'unit.json')
await suite(
  [
    'unit and property tests',
    'npx',
    ['vitest', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${unit}`],
  ],
  { file: unit, read: unitResults },
)

const built = await check(['build', 'npm', ['run', '--silent', 'build']])
const lacking = await chromium
if (lacking) console.error(lacking)
const faces = join(results, 'interface.json')
if (built && !lacking)
  await suite(['interface tests', 'npx', ['playwright', 'test', '-c', 'e2e', '--reporter=list,json']], {
    file: faces,
    read: pageResults,
    env: { PLAYWRIGHT_JSON_OUTPUT_NAME: faces },
  })
else note('interface tests', false)

rmSync(results, { recursive: true, force: true })
for (const name of late) console.log(`came right only when tried again: ${name}`)
for (const name of failures) console.log(`failed: ${name}`)
console.log(`\n${total.passed} passed, ${total.failed} failed, ${total.skipped} skipped`)
process.exit(total.failed > 0 ? 1 : 0)
