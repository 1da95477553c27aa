// Nesting today against the engine as it was before its second part (baseline/nester.mjs): both at the same time, one thread each, on the
// forty instances of wide.ts. `npx tsx bench/against.ts [seconds] [from] [name]`: ratios of scores (less is better) after so many seconds, and
// of sweeps of the overlap search in a second (more is better), both from the baseline's first layout. Needs two quiet cores.
import { fork } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { seededRandom } from '@feuillet/core/base'
import { loadGeometry } from '@feuillet/core/base/geometry'
import { Nester, type NestInstance, type NestLayout } from '@feuillet/core/stages/sheets'
import { Improver } from '../core/src/stages/sheets/nest/overlap/improver'
import * as baseline from './baseline/nester.mjs'
import { wide } from './wide'

const ENGINES = { today: { Nester, Improver }, baseline }
type Engine = keyof typeof ENGINES
const SWEEP_SECONDS = 2
const SEED = 1

interface Result {
  score: number
  sweeps: number
}

/** Sweeps in a second, each attempt beginning from the same layout. */
function sweepsOf(engine: Engine, instance: NestInstance, from: NestLayout): number {
  const improver = new ENGINES[engine].Improver(instance, seededRandom(SEED))
  improver.step(from)
  const start = performance.now()
  let sweeps = 0
  for (; performance.now() - start < SWEEP_SECONDS * 1000; sweeps++) improver.step(from)
  return (sweeps / (performance.now() - start)) * 1000
}

function scoreOf(engine: Engine, instance: NestInstance, seconds: number): number {
  const start = performance.now()
  const nester = new ENGINES[engine].Nester(instance, SEED)
  while (performance.now() - start < seconds * 1000 && !nester.done) nester.step()
  return nester.best.score
}

const [seconds, from, only] = [
  Number(process.argv[2] ?? 10),
  Number(process.argv[3] ?? 1000),
  process.argv[4] ?? '',
]
const engine = process.env['ENGINE'] as Engine | undefined
await Promise.all([loadGeometry(), baseline.loadGeometry()])
const instances = wide(from).filter(({ name }) => name.includes(only))

if (engine)
  process.on('message', (k: number) => {
    const { instance } = instances[k]!
    const first = new baseline.Nester(instance, SEED, 'orders').best
    const score = seconds > 0 ? scoreOf(engine, instance, seconds) : NaN
    process.send!({ score, sweeps: sweepsOf(engine, instance, first) } satisfies Result)
  })
else {
  const runs = (['today', 'baseline'] as const).map((name) =>
    fork(fileURLToPath(import.meta.url), process.argv.slice(2), {
      env: { ...process.env, ENGINE: name },
      serialization: 'advanced',
    }),
  )
  const [scores, sweeps]: [number[], number[]] = [[], []]
  const mean = (ratios: number[]) => Math.exp(ratios.reduce((sum, r) => sum + Math.log(r), 0) / ratios.length)
  console.log(`${'instance'.padEnd(26)} pieces  score  baseline  ratio   sweeps/s  baseline  ratio`)
  for (const [k, { name, instance }] of instances.entries()) {
    const [today, before] = await Promise.all(
      runs.map(
        (run) =>
          new Promise<Result>((settle) => {
            run.once('message', (result) => settle(result as Result))
            run.send(k)
          }),
      ),
    )
    scores.push(today!.score / before!.score)
    sweeps.push(today!.sweeps / before!.sweeps)
    const cells = [
      today!.score.toFixed(3).padStart(7),
      before!.score.toFixed(3).padStart(9),
      scores.at(-1)!.toFixed(3).padStart(6),
      today!.sweeps.toFixed(0).padStart(10),
      before!.sweeps.toFixed(0).padStart(9),
      sweeps.at(-1)!.toFixed(2).padStart(6),
    ]
    console.log(`${name.padEnd(26)} ${String(instance.pieces.length).padStart(6)} ${cells.join(' ')}`)
  }
  console.log(
    `on average (geometric): score ${mean(scores).toFixed(3)}, worst ${Math.max(...scores).toFixed(3)}; sweeps in a second ${mean(sweeps).toFixed(2)}`,
  )
  for (const run of runs) run.disconnect()
}
