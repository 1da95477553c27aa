// How few pads hold a layer: against a regular grid of the same pads kept where it is legal, and against a greedy cover, both at the same
// farthest point along the card. Prints ratios (under 1: fewer pads than the baseline) and the time a plan takes.
// npx tsx bench/pads.ts
import {
  ellipse,
  loadGeometry,
  rectangle,
  regionBox,
  regionContains,
  subtract,
  union,
  type Region,
} from '@feuillet/core/base/geometry'
import { seededRandom } from '@feuillet/core/base'
import { demo, demoNames } from '@feuillet/core/demo'
import { builtLayers, setPlan, type Project } from '@feuillet/core/project'
import { SPANS_MM } from '@feuillet/core/stages/depth'
import { card, stack } from '../core/test/stack'
import { pieceHeights } from '../core/src/stages/depth/depth'
import { CardField } from '../core/src/stages/depth/pads/card-field'
import { hidingRegion } from '../core/src/stages/depth/pads/hiding'
import { farthestOf, padsForPiece } from '../core/src/stages/depth/pads/pads'
import type { Pad } from '../core/src/stages/depth/pads/poses'
import { placesFor, type Place } from '../core/src/stages/depth/pads/places'
import { fresh } from '@feuillet/core/base'
import type { PieceHeight } from '../core/src/stages/depth/heights'

await loadGeometry()

/** A step of the grids that poses of the baselines are taken from, mm. */
const FINE_MM = 3

const legal = (places: readonly Place[], x: number, y: number): boolean =>
  places.some(({ edges, footprint }) => edges.holds({ x, y, ...footprint, rotation: 0 }))

function* gridOf(region: Region, step: number, { dx = 0.5, dy = 0.5 }: { dx?: number; dy?: number } = {}) {
  const b = regionBox(region)
  for (let y = b.minY + step * dy; y < b.maxY; y += step)
    for (let x = b.minX + step * dx; x < b.maxX; x += step)
      if (regionContains(region, x, y)) yield [x, y] as const
}

/** Pads of the densest of several regular grids that reach no farther than a farthest point; Infinity where none does. */
function regularGrid(
  piece: PieceHeight,
  places: readonly Place[],
  { farthestMm, pitch }: { farthestMm: number; pitch: number },
): number {
  for (let step = farthestMm * 1.5; step > 4; step *= 0.93) {
    const at = [...gridOf(piece.region, step)].filter(([x, y]) => legal(places, x, y))
    if (at.length === 0) continue
    const far = farthestOf(
      piece.region,
      at.map(([x, y]) => ({ x, y })),
      pitch,
    )
    if (far.farthestMm <= farthestMm) return at.length
  }
  return Infinity
}

/** Pads of a greedy cover of a span: always the place that newly reaches the most. */
function greedyCover(
  piece: PieceHeight,
  places: readonly Place[],
  { spanMm, pitch }: { spanMm: number; pitch: number },
): number {
  const field = new CardField(piece.region, pitch)
  const sets = [...gridOf(piece.region, FINE_MM)]
    .filter(([x, y]) => legal(places, x, y))
    .map(([x, y]) => field.around([[x, y]], spanMm).samples)
  const covered = new Uint8Array(field.count)
  for (let count = 0; ; count++) {
    let [best, most] = [-1, 0]
    sets.forEach((set, k) => {
      let gains = 0
      for (const r of set) gains += 1 - covered[r]!
      if (gains > most) [best, most] = [k, gains]
    })
    if (best < 0) return count
    for (const r of sets[best]!) covered[r] = 1
  }
}

const random = seededRandom(7)
const blob = (x: number, y: number, r: number): Region =>
  union(
    ...Array.from({ length: 5 }, () => [
      ellipse([x + (random() - 0.5) * r, y + (random() - 0.5) * r], r * (0.5 + random() * 0.5)),
    ]),
  )
const lace = (n: number): Region =>
  subtract([rectangle([20, 20], 160, 160)], Array.from({ length: n * n }, (_, i) => ellipse([20 + ((i % n) + 0.5) * (160 / n), 20 + (Math.floor(i / n) + 0.5) * (160 / n)], (160 / n) * 0.28))) // prettier-ignore
const shapes: Record<string, Region> = {
  'plain sheet': [rectangle([20, 20], 160, 160)],
  'wide frame': subtract([rectangle([10, 10], 180, 180)], [rectangle([40, 40], 120, 120)]),
  'narrow frame': subtract([rectangle([10, 10], 180, 180)], [rectangle([24, 24], 152, 152)]),
  arch: subtract(
    [rectangle([10, 10], 180, 180)],
    union([ellipse([100, 90], 60)], [rectangle([40, 90], 120, 70)]),
  ),
  comb: union(
    [rectangle([20, 20], 160, 20)],
    ...Array.from({ length: 7 }, (_, i) => [rectangle([20 + i * 24, 20], 12, 120)]),
  ),
  ring: subtract([ellipse([100, 100], 85)], [ellipse([100, 100], 62)]),
  'lace 4': lace(4),
  'lace 6': lace(6),
  ...Object.fromEntries(Array.from({ length: 8 }, (_, i) => [`blob ${i + 1}`, blob(100, 100, 30 + i * 7)])),
}

/** Every piece on foam of a project, with where pads may lie under it. */
const onFoam = (project: Project) =>
  pieceHeights(project)
    .filter(
      ({ layer, supports }) => layer.joint.kind === 'foam' && layer.joint.gapMm > 0 && supports.length > 0,
    )
    .map((piece) => {
      const hidden = hidingRegion(project, piece.layer.id)
      return { piece, hidden, places: placesFor(project, { piece, hidden }, fresh).places }
    })
    .filter(({ places }) => places.length > 0)

const cases: [string, Project][] = [
  ...Object.entries(shapes).map(([name, region]): [string, Project] => [name, stack('frame', card('a', 0, [rectangle([0, 0], 200, 200)]), card('b', 2, region))]), // prettier-ignore
  ...demoNames.filter((name) => builtLayers(demo(name)).some(({ joint }) => joint.kind === 'foam')).map((name): [string, Project] => [name, demo(name)]), // prettier-ignore
]
const only = process.argv[2]
const rows: Record<string, string | number>[] = []
const sums = { own: 0, cover: 0, grid: 0, gridOwn: 0 }
for (const [name, base] of cases.filter(([name]) => !only || name.startsWith(only)))
  for (const thrift of ['sparing', 'steady', 'sale'] as const) {
    const project = setPlan(base, { thrift })
    const list = onFoam(project)
    const begun = performance.now()
    const plans = list.map(({ piece, hidden }) => padsForPiece(project, { piece, hidden }))
    const ms = performance.now() - begun
    let [own, cover, grid, gridOwn] = [0, 0, 0, 0]
    list.forEach(({ piece, places }, k) => {
      const { pads, farthestMm } = plans[k]! as { pads: Pad[]; farthestMm: number }
      const pitch = SPANS_MM[thrift] / 12
      own += pads.length
      cover += greedyCover(piece, places, { spanMm: Math.max(SPANS_MM[thrift], farthestMm), pitch })
      const regular = regularGrid(piece, places, {
        farthestMm: Math.max(SPANS_MM[thrift], farthestMm),
        pitch,
      })
      if (Number.isFinite(regular)) {
        grid += regular
        gridOwn += pads.length
      }
    })
    sums.own += own
    sums.cover += cover
    sums.grid += grid
    sums.gridOwn += gridOwn
    rows.push({ case: name, thrift, pads: own, 'greedy cover': cover, 'to cover': (own / cover).toFixed(2), 'to grid': grid ? (gridOwn / grid).toFixed(2) : '–', ms: Math.round(ms) }) // prettier-ignore
  }
console.table(rows)
console.log(
  `all: ${(sums.own / sums.cover).toFixed(3)} of the greedy cover, ${(sums.gridOwn / sums.grid).toFixed(3)} of the regular grid`,
)
