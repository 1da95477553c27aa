// Nesting today against the engine as it was before its second part (baseline/nester.mjs), on the instances of wide.ts.
// `npx tsx bench/against.ts [seconds] [from] [name]`: scores after so many seconds (less is better), both at the same time on one thread
// each, and sweeps of the overlap search a second (more is better), both from the baseline's first layout, in turns of a tenth of a second on
// one thread. Where the baseline is as good as at a proven bound nothing can be gained: such are marked, and averages given without them too.
// Needs two quiet cores.
import { fork } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { seededRandom } from '@feuillet/core/base'
import { loadGeometry, offset, polygonArea } from '@feuillet/core/base/geometry'
import { Nester, Rivals, type NestInstance } from '@feuillet/core/stages/sheets'
import { Improver } from '../core/src/stages/sheets/nest/overlap/improver'
import * as baseline from './baseline/nester.mjs'
import { wide } from './wide'

const ENGINES = { today: { Nester, Improver }, baseline }
type Engine = keyof typeof ENGINES
/** Turns that each engine has at sweeping, and how long one is. */
const TURNS = 15
const TURN_MS = 100
const SEED = 1
const NAMES = ['today', 'baseline'] as const

/** A score within this share of the bound is at it. */
const AT_BOUND = 0.005

/**
 * No layout scores less. Pieces that lie a gap apart do not overlap when each is grown by half of it, and lie in what may be cut grown as much:
 * on the whole sheets, and on the last as far as it is used.
 */
function leastScore({ sheet, gap, pieces }: NestInstance): number {
  const grown = pieces.reduce((sum, { shape, qty }) => {
    const areas = offset([shape], gap / 2).map(polygonArea)
    return sum + qty * areas.reduce((all, area) => all + area, 0)
  }, 0)
  const [w, h] = [sheet.w - 2 * sheet.margin, sheet.h - 2 * sheet.margin]
  const whole = (w + gap) * (h + gap)
  const before = Math.max(0, Math.ceil(grown / whole) - 1)
  const rest = grown - before * whole
  return before + Math.max(0, Math.min((rest / (h + gap) - gap) / w, (rest / (w + gap) - gap) / h))
}

/** Sweeps in a second of each engine, each attempt beginning from the same layout. */
function sweepsOf(instance: NestInstance): Record<Engine, number> {
  const from = new baseline.Nester(instance, SEED, 'orders').best
  const improvers = NAMES.map((name) => new ENGINES[name].Improver(instance, seededRandom(SEED)))
  const done = improvers.map((improver) => {
    // What is set up once does not count.
    do improver.step(from)
    while (improver.underWay)
    return { sweeps: 0, ms: 0 }
  })
  for (let turn = 0; turn < 2 * TURNS; turn++) {
    const [improver, tally] = [improvers[turn % 2]!, done[turn % 2]!]
    const start = performance.now()
    while (performance.now() - start < TURN_MS) {
      improver.step(from)
      if (!improver.underWay) tally.sweeps++
    }
    tally.ms += performance.now() - start
  }
  const [today, before] = done.map(({ sweeps, ms }) => (sweeps / ms) * 1000)
  return { today: today!, baseline: before! }
}

function scoreOf(engine: Engine, instance: NestInstance, seconds: number): number {
  const start = performance.now()
  const share = () => (performance.now() - start) / (seconds * 1000)
  if (engine === 'baseline') {
    const nester = new baseline.Nester(instance, SEED)
    while (share() < 1 && !nester.done) nester.step()
    return nester.best.score
  }
  // As searches of the page and the shell go on: where there is much time, from several seeds.
  const rivals = new Rivals({ instance, seed: SEED, seconds }, new Nester(instance, SEED))
  while (share() < 1 && !rivals.done) rivals.step(share())
  return rivals.best.score
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
    process.send!(scoreOf(engine, instance, seconds))
  })
else {
  const runs = NAMES.map((name) =>
    fork(fileURLToPath(import.meta.url), process.argv.slice(2), {
      env: { ...process.env, ENGINE: name },
    }),
  )
  const [scores, open, sweeps]: [number[], number[], number[]] = [[], [], []]
  const mean = (ratios: number[]) => Math.exp(ratios.reduce((sum, r) => sum + Math.log(r), 0) / ratios.length)
  console.log(`${'instance'.padEnd(26)} pieces  score  baseline  ratio   sweeps/s  baseline  ratio`)
  for (const [k, { name, instance }] of instances.entries()) {
    const [today, before] = await Promise.all(
      runs.map(
        (run) =>
          new Promise<number>((settle) => {
            run.once('message', (score) => settle(score as number))
            run.send(k)
          }),
      ),
    )
    const speed = sweepsOf(instance)
    scores.push(today! / before!)
    const isAtBound = before! <= leastScore(instance) * (1 + AT_BOUND)
    if (!isAtBound) open.push(scores.at(-1)!)
    sweeps.push(speed.today / speed.baseline)
    const cells = [
      today!.toFixed(3).padStart(7),
      before!.toFixed(3).padStart(9),
      scores.at(-1)!.toFixed(3).padStart(6),
      speed.today.toFixed(0).padStart(10),
      speed.baseline.toFixed(0).padStart(9),
      sweeps.at(-1)!.toFixed(2).padStart(6),
    ]
    const mark = isAtBound ? '  at its bound' : ''
    console.log(`${name.padEnd(26)} ${String(instance.pieces.length).padStart(6)} ${cells.join(' ')}${mark}`)
  }
  console.log(
    `on average (geometric): score ${mean(scores).toFixed(3)}, of the ${open.length} not at their bound ${mean(open).toFixed(3)}, worst ${Math.max(...scores).toFixed(3)}; sweeps in a second ${mean(sweeps).toFixed(2)}`,
  )
  for (const run of runs) run.disconnect()
}
