import { describe, expect, it } from 'vitest'
import { results } from '../../../test/results'
import { card, plate, stack } from '../../../test/stack'
import { demo } from '../../demo'
import {
  intersect,
  offset,
  polygonRings,
  rectangle,
  regionArea,
  regionContains,
  subtract,
  type Region,
} from '../../base/geometry'
import { builtLayers, findLayer, layerRegion, setLayer, type Layer, type Project } from '../../project'

/** The one glued layer's glue. */
const glueOf = (project: Project) => results(project).glue.at(-1)!
/** Glued on a sheet of 120 mm, without anything round it. */
const onSheet = (layer: Layer) => stack('free', plate('under', 0, [0, 0, 120, 120]), layer)

/** How far a place is from the nearest edge of a region, by walking all its edges. */
function toEdge(region: Region, x: number, y: number): number {
  let least = Infinity
  for (const ring of region.flatMap(polygonRings))
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!]
      const [dx, dy] = [bx - ax, by - ay]
      const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)))
      least = Math.min(least, Math.hypot(x - ax - t * dx, y - ay - t * dy))
    }
  return least
}

describe('glue', () => {
  it('keeps off what has nothing beneath, off edges and off openings', () => {
    // Half of the strip hangs over the opening of the sheet below.
    const open = card('open', 0, [
      { outer: rectangle([0, 0], 120, 120).outer, holes: [rectangle([40, 40], 40, 40).outer] },
    ])
    const strip = plate('strip', 0, [20, 30, 60, 24])
    const { zone, ml } = glueOf(stack('free', open, strip))
    expect(ml).toBeGreaterThan(0)
    const lies = intersect(layerRegion(strip), layerRegion(open))
    expect(regionArea(subtract(zone, lies))).toBeLessThan(0.01)
    expect(regionArea(subtract(zone, offset(lies, -1.95)))).toBeLessThan(0.5)
    // A hand calculation: the L that lies on card is 20 × 24 and 40 × 10, less 2 mm all round.
    // At the inner corner the rim is round.
    expect(Math.abs(regionArea(zone) - (16 * 20 + 40 * 6 + 4 - Math.PI))).toBeLessThan(1)
  })

  it('goes in dots under small parts, in beads under middling ones, as a coat under large ones', () => {
    const of = (size: number) => glueOf(onSheet(plate('on', 0, [5, 5, size, size])))
    expect(of(12)).toMatchObject({ beads: [], coat: [] })
    expect(of(12).dots.length).toBeGreaterThan(0)
    const beads = of(50)
    expect(beads.dots).toEqual([])
    // Squares of 46 mm less half a bead, then 14 mm further in each time.
    expect(beads.beadLengthMm).toBeCloseTo(4 * (46 - 1.2) + 4 * (46 - 1.2 - 28), 0)
    expect(beads.ml).toBeCloseTo((beads.beadLengthMm * Math.PI * 0.6 * 0.6) / 2 / 1000, 6)
    const coat = of(100)
    expect(coat.coatMm2).toBeCloseTo(96 * 96, 0)
    expect(coat.ml).toBeCloseTo((96 * 96 * 0.06) / 1000, 3)
    const chosen = onSheet(plate('on', 0, [5, 5, 100, 100]))
    const on = chosen.layers[1]!
    const dotted = glueOf(setLayer(chosen, on.id, { joint: { ...on.joint, spread: 'dots' } }))
    expect(dotted.dots.length).toBeGreaterThan(60)
  })

  it('takes dots where a wet coat would buckle the card', () => {
    const project = onSheet(plate('on', 0, [5, 5, 100, 100]))
    const { drawer } = project
    const wet = {
      ...project,
      drawer: { ...drawer, adhesives: drawer.adhesives.map((one) => ({ ...one, bucklesBelowGsm: 400 })) },
    }
    expect(glueOf(wet)).toMatchObject({ coat: [], beads: [] })
  })

  it('goes under the body of what is folded, clear of its folds', () => {
    const gull = {
      ...plate('gull', 0, [10, 40, 100, 24]),
      folds: [30, 90].map((x): Layer['folds'][number] => ({ line: [x, 40, x, 64], way: 'up', deg: 40 })),
    }
    const { zone } = glueOf(onSheet(gull))
    // 60 mm between the folds, 2 mm off each; 2 mm off what is then the edge, and off the long edges.
    expect(regionArea(subtract(zone, [rectangle([34 - 0.1, 42 - 0.1], 52.2, 20.2)]))).toBeLessThan(0.1)
    expect(regionArea(zone)).toBeCloseTo(52 * 20, 0)
  })

  it('has a place under every glued piece of a demo that lies on card, and none in the air', () => {
    for (const name of ['bon-voyage', 'kittiwake'] as const) {
      const project = demo(name)
      const { glue, depth } = results(project)
      for (const own of glue) {
        const layer = findLayer(project, own.layerId)!
        const region = layerRegion(layer)
        const beneath = builtLayers(project)
          .slice(0, builtLayers(project).indexOf(layer))
          .flatMap(layerRegion)
        for (const [x, y] of own.dots) {
          expect(regionContains(own.zone, x, y), `${name} ${layer.name}`).toBe(true)
          expect(toEdge(region, x, y), `${name} ${layer.name}`).toBeGreaterThan(0.3)
          if (beneath.length > 0 && project.mount.kind !== 'frame' && project.mount.kind !== 'panel')
            expect(
              beneath.some((face) => regionContains([face], x, y)),
              `${name} ${layer.name}`,
            ).toBe(true)
        }
        const pieces = depth.pieces.filter((piece) => piece.layer.id === layer.id && !own.bare.includes(piece.pieceId)) // prettier-ignore
        if (layer.joint.kind === 'glue')
          for (const piece of pieces)
            expect(regionArea(intersect(own.zone, piece.region)), `${name} ${layer.name}`).toBeGreaterThan(0)
      }
    }
  })
})
