// Many pieces of many corners, all of them different, against the engine as it was before its second part (baseline/nester.mjs).
// `npx tsx bench/many.ts [pieces] [corners]`: the time to a first legal layout (less is better), how long the longest and a middling of the
// first steps take, and memory. Smooth outlines and ragged ones.
import { seededRandom } from '@feuillet/core/base'
import { loadGeometry, type Polygon } from '@feuillet/core/base/geometry'
import { Nester, type NestInstance } from '@feuillet/core/stages/sheets'
import * as baseline from './baseline/nester.mjs'

const [count, corners] = [Number(process.argv[2] ?? 500), Number(process.argv[3] ?? 2000)]
/** Steps are watched for so long, ms. */
const WATCHED_MS = 20_000

/** A blossom with so many lobes, its outline rough by a share of its size. */
function blossom(random: () => number, rough: number): Polygon {
  const lobes = 3 + Math.floor(random() * 6)
  const [size, depth, frill, at] = [20 + random() * 20, random() * 0.25, random() * 0.1, random() * 6]
  const outer = new Float64Array(2 * corners)
  for (let k = 0; k < corners; k++) {
    const angle = (k / corners) * 2 * Math.PI
    const wave = depth * Math.sin(lobes * angle + at) + frill * Math.sin(17 * angle)
    const reach = size * (1 + wave + rough * (random() - 0.5))
    outer[2 * k] = Math.cos(angle) * reach
    outer[2 * k + 1] = Math.sin(angle) * reach * (0.6 + 1.6 * depth)
  }
  return { outer, holes: [] }
}

const seconds = (ms: number) => `${(ms / 1000).toFixed(2)} s`

function timed<T>(work: () => T): { ms: number; value: T } {
  const start = performance.now()
  const value = work()
  return { ms: performance.now() - start, value }
}

await Promise.all([loadGeometry(), baseline.loadGeometry()])
console.log(`${count} pieces of ${corners} corners, on sheets of 304.8 × 304.8 mm`)
for (const [name, rough] of [
  ['smooth', 0],
  ['rough', 0.012],
  ['ragged', 0.06],
] as const) {
  const random = seededRandom(11)
  const pieces = Array.from({ length: count }, (_, k) => ({
    id: `blossom-${k}`,
    shape: blossom(random, rough),
    qty: 1,
    turns: 'free' as const,
  }))
  const instance: NestInstance = { sheet: { w: 304.8, h: 304.8, margin: 6.35 }, gap: 2, pieces }
  const today = timed(() => new Nester(instance, 1))
  const before = timed(() => new baseline.Nester(instance, 1))
  const nester = today.value
  const first = nester.best.score
  const steps: number[] = []
  for (const start = performance.now(); performance.now() - start < WATCHED_MS;)
    steps.push(timed(() => nester.step()).ms)
  steps.sort((a, b) => a - b)
  console.log(
    `${name.padEnd(8)} first layout ${seconds(today.ms)}, before ${seconds(before.ms)}: 1/${(before.ms / today.ms).toFixed(1)}; ` +
      `score ${first.toFixed(3)}, before ${before.value.best.score.toFixed(3)}, after ${seconds(WATCHED_MS)} ${nester.best.score.toFixed(3)}; ` +
      `steps: middling ${seconds(steps[Math.floor(steps.length / 2)]!)}, longest ${seconds(steps.at(-1)!)}; ` +
      `${(process.memoryUsage().rss / 1e6).toFixed(0)} MB`,
  )
}
