// A longer search over the papers of a project: card saved where time goes to what saves most, against each paper in turn.
// `npx tsx bench/effort.ts [seconds]`; one thread, six papers at a time of the wide instances.
import { loadGeometry } from '@feuillet/core/base/geometry'
import { Effort, Nester, type NestInstance } from '@feuillet/core/stages/sheets'
import { wide } from './wide'

const PAPERS = 6
const PROJECTS = 5

/** mm² of sheets that a search of some seconds saves over the first layouts. */
function saved(instances: readonly NestInstance[], seconds: number, way: 'in turn' | 'effort'): number {
  const nesters = instances.map((instance) => new Nester(instance, 1))
  const first = nesters.map(({ best }) => best.score)
  const effort = new Effort(instances.map((instance, k) => ({ instance, layout: nesters[k]!.best })))
  const start = performance.now()
  for (let step = 0; performance.now() - start < seconds * 1000; step++) {
    const k = way === 'effort' ? effort.next() : step % nesters.length
    const before = performance.now()
    nesters[k]!.step()
    effort.note(k, performance.now() - before, nesters[k]!.best.score)
  }
  return instances.reduce(
    (sum, { sheet }, k) => sum + (first[k]! - nesters[k]!.best.score) * sheet.w * sheet.h,
    0,
  )
}

await loadGeometry()
const seconds = Number(process.argv[2] ?? 10)
const all = wide().map(({ instance }) => instance)
console.log('project   in turn    effort   ratio (card saved, cm²)')
const ratios = Array.from({ length: PROJECTS }, (_, p) => {
  const papers = Array.from({ length: PAPERS }, (_, k) => all[(p * 7 + k * 11) % all.length]!)
  const [turn, effort] = [saved(papers, seconds, 'in turn') / 100, saved(papers, seconds, 'effort') / 100]
  console.log(
    `${String(p + 1).padStart(7)} ${turn.toFixed(0).padStart(9)} ${effort.toFixed(0).padStart(9)} ${(effort / turn).toFixed(3).padStart(7)}`,
  )
  return effort / turn
})
console.log(
  `on average ${(ratios.reduce((a, b) => a + b, 0) / ratios.length).toFixed(3)} of what each paper in turn saves`,
)
