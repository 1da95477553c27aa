// How long layers of lace take to be put in order, against intersecting each with each, as it was done before a place that two of them
// cover was looked for first. `tsx bench/sequence.ts [layers] [holes a side]` prints both in ms and their ratio.
import {
  ellipse,
  intersect,
  loadGeometry,
  rectangle,
  regionArea,
  regionBox,
} from '@feuillet/core/base/geometry'
import { sequenceLayers } from '@feuillet/core/stages/layers'

const SIDE = 300
const [layers = 20, holes = 20] = process.argv.slice(2).map(Number)
await loadGeometry()

/** A sheet with round holes in rows, each layer's a little further on. */
const lace = (k: number) => {
  const pitch = (SIDE - 20) / holes
  const [sheet] = [rectangle([0, 0], SIDE, SIDE)]
  const rings = Array.from({ length: holes * holes }, (_, i) =>
    ellipse(
      [15 + (i % holes) * pitch + (k % 5), 15 + Math.floor(i / holes) * pitch + (k % 7)],
      0.36 * pitch,
    ).outer.toReversed(),
  )
  // Points the other way round: pairs of coordinates change places when an array is turned over.
  const turned = rings.map((ring) => ring.map((_, i) => ring[i ^ 1]!))
  return [{ ...sheet!, holes: turned }]
}
const items = Array.from({ length: layers }, (_, k) => {
  const region = lace(k)
  return { region, box: regionBox(region), label: `layer ${k}` }
})

const time = (work: () => unknown): number => {
  const start = performance.now()
  work()
  return performance.now() - start
}
const before = time(() => {
  for (const [i, a] of items.entries())
    for (const b of items.slice(i + 1)) regionArea(intersect(a.region, b.region))
})
let batches = 0
const now = time(() => (batches = sequenceLayers(items).length))
console.log(
  `${layers} layers of ${holes * holes} holes: each with each ${before.toFixed(0)} ms, put in order ${now.toFixed(0)} ms (${batches} batches), ${(now / before).toFixed(2)} of it`,
)
