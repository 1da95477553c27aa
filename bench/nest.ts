// Nesting against a rectangle packer from the registry on best-turned boxes, against a plain bottom-left placer that anneals
// orders and turns, and against the engine's own search of orders alone; these for as long or for a time of their own. One
// thread. `npm run bench -- [seconds] [family] [seconds for the placers]`; the family `wide` is 52 instances of thirteen kinds.
// Score: (sheets − 1) + the share of the last sheet that one straight cut must take away to keep the rest whole.
import { createRequire } from 'node:module'
import {
  boxHeight,
  boxWidth,
  loadGeometry,
  mapPolygon,
  polygonBox,
  rotation,
  type Polygon,
} from '@feuillet/core/base/geometry'
import { Nester, type NestInstance } from '@feuillet/core/stages/sheets'

// The package's ES build is not marked as one.
const { MaxRectsPacker } = createRequire(import.meta.url)(
  'maxrects-packer',
) as typeof import('maxrects-packer')
import { annealedBottomLeft } from './bottom-left'
import { families } from './instances'
import { wide } from './wide'

/** The turn, in whole degrees, whose box is least. */
function bestBox(shape: Polygon, turns: string): { w: number; h: number } {
  const degrees = turns === 'free' ? Array.from({ length: 90 }, (_, k) => k) : [0]
  return degrees
    .map((deg) => polygonBox(mapPolygon(rotation(deg), shape)))
    .map((b) => ({ w: boxWidth(b), h: boxHeight(b) }))
    .toSorted((a, b) => a.w * a.h - b.w * b.h)[0]!
}

function packBoxes({ sheet, gap, pieces }: NestInstance): number {
  const [w, h] = [sheet.w - 2 * sheet.margin, sheet.h - 2 * sheet.margin]
  const packer = new MaxRectsPacker(w + gap, h + gap, 0, {
    smart: false,
    pot: false,
    square: false,
    allowRotation: true,
  })
  for (const piece of pieces) {
    const box = bestBox(piece.shape, piece.turns)
    for (let copy = 0; copy < piece.qty; copy++)
      packer.add(Math.ceil((box.w + gap) * 100) / 100, Math.ceil((box.h + gap) * 100) / 100, piece.id)
  }
  const last = packer.bins.at(-1)!
  const x = Math.max(...last.rects.map((r) => r.x + r.width - gap))
  const y = Math.max(...last.rects.map((r) => r.y + r.height - gap))
  return packer.bins.length - 1 + Math.min(x / w, y / h)
}

await loadGeometry()
const seconds = Number(process.argv[2] ?? 10)
const only = process.argv[3] ?? ''
const placerSeconds = Number(process.argv[4] ?? seconds)
console.log(
  `family                          pieces  first     ${seconds} s   orders    ratio  b.-left    ratio    boxes    ratio   first in  steps`,
)
const ratios: [orders: number, bottomLeft: number][] = []
const instances = only === 'wide' ? wide() : families().filter((family) => family.name.includes(only))
for (const { name, instance } of instances) {
  const start = performance.now()
  const nester = new Nester(instance, 1)
  const firstMs = performance.now() - start
  const first = nester.best.score
  while (performance.now() - start < seconds * 1000 && !nester.done) nester.step()
  const placer = new Nester(instance, 1, { ways: 'orders' })
  const again = performance.now()
  while (performance.now() - again < placerSeconds * 1000 && !placer.done) placer.step()
  const bottomLeft = annealedBottomLeft(instance, placerSeconds).score
  const [score, orders, boxes] = [nester.best.score, placer.best.score, packBoxes(instance)]
  ratios.push([score / orders, score / bottomLeft])
  const count = instance.pieces.reduce((sum, piece) => sum + piece.qty, 0)
  const cells = [
    String(count).padStart(6),
    ...[first, score, orders].map((v) => v.toFixed(3).padStart(8)),
    (score / orders).toFixed(2).padStart(8),
    bottomLeft.toFixed(3).padStart(8),
    (score / bottomLeft).toFixed(2).padStart(8),
    boxes.toFixed(3).padStart(8),
    (score / boxes).toFixed(2).padStart(8),
  ]
  console.log(
    `${name.padEnd(30)}${cells.join(' ')} ${firstMs.toFixed(0).padStart(7)} ms ${String(nester.steps).padStart(6)}`,
  )
}
const mean = (values: number[]) => (values.reduce((a, b) => a + b, 0) / values.length).toFixed(3)
console.log(
  `on average against orders alone ${mean(ratios.map(([orders]) => orders))}, against bottom-left ${mean(ratios.map(([, bottomLeft]) => bottomLeft))}`,
)
