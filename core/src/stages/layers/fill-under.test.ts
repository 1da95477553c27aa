import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { card, plate, stack } from '../../../test/stack'
import { intersect, rectangle, regionArea, subtract, union, type Region } from '../../base/geometry'
import { demo, demoNames } from '../../demo'
import { builtLayers, layerRegion, type Project } from '../../project'
import { shows } from './visibility/shows'
import { fillUnder, mosaicOf } from './fill-under'

const CELL = 12
/** Squares of a grid, each of one of some layers; `gapMm` is left between them. */
const tiles = (colours: readonly number[], columns: number, gapMm = 0): Project => {
  const own = (k: number): Region =>
    colours.flatMap((colour, i) =>
      colour === k
        ? [
            rectangle(
              [40 + (i % columns) * CELL + gapMm / 2, 40 + Math.floor(i / columns) * CELL + gapMm / 2],
              CELL - gapMm,
              CELL - gapMm,
            ),
          ]
        : [],
    )
  const kinds = [...new Set(colours)].toSorted()
  return stack('frame', ...kinds.map((k) => card(`l${k}`, 2, union(own(k)))))
}
const regionsOf = (project: Project) => builtLayers(project).map((layer) => union(layerRegion(layer)))
const idsOf = (project: Project) => project.layers.map(({ id }) => id)
const told = (project: Project) => mosaicOf(project, shows(project))
const grid = fc.record({
  columns: fc.integer({ min: 2, max: 6 }),
  colours: fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 6, maxLength: 30 }),
})

describe('layers that lie beside each other like a mosaic', () => {
  it('go on under those in front of them, and look as before', () => {
    fc.assert(
      fc.property(grid, fc.constantFrom(0, 0.1, 0.2), ({ columns, colours }, gapMm) => {
        const project = tiles(colours, columns, gapMm)
        const filled = fillUnder(project, idsOf(project))
        const [before, after] = [regionsOf(project), regionsOf(filled)]
        before.forEach((own, k) => {
          const now = after[k]!
          const front = union(...after.slice(k + 1))
          // Nothing is lost, and but for seams nothing more is seen of it.
          expect(regionArea(subtract(own, now))).toBeLessThan(0.01)
          expect(regionArea(intersect(own, front))).toBeLessThan(0.01)
          expect(regionArea(subtract(subtract(now, front), own))).toBeLessThan(
            gapMm === 0 ? 0.01 : 2 * CELL * colours.length * gapMm,
          )
          // It is under all in front that is in one piece with it.
          const apart = subtract(front, now)
          for (const face of apart) expect(regionArea(intersect([face], now))).toBeLessThan(0.01)
          for (const face of now) expect(regionArea(intersect([face], own))).toBeGreaterThan(0)
        })
      }),
      { numRuns: 60 },
    )
  })

  it('are told, and no more once they lie on each other', () => {
    const project = tiles([0, 1, 0, 2, 1, 2, 0, 0, 1], 3, 0.1)
    expect(told(project)).toEqual(['l0', 'l1', 'l2'])
    expect(told(fillUnder(project, idsOf(project)))).toEqual([])
    // A window with what is let in, and a real opening that stays.
    const inlay = stack(
      'frame',
      card(
        'ground',
        2,
        subtract([rectangle([0, 0], 100, 100)], [rectangle([20, 20], 40, 40), rectangle([70, 70], 10, 10)]),
      ),
      plate('left', 2, [20, 20, 20, 40]),
      plate('right', 2, [40, 20, 20, 40]),
    )
    expect(told(inlay)).toEqual(['ground', 'left', 'right'])
    const areas = regionsOf(fillUnder(inlay, idsOf(inlay))).map(regionArea)
    expect(areas.map(Math.round)).toEqual([9900, 1600, 800])
    // One alone.
    expect(
      regionsOf(fillUnder(inlay, ['left']))
        .map(regionArea)
        .map(Math.round),
    ).toEqual([8300, 1600, 800])
  })

  it('are none where they lie on each other, or apart', () => {
    for (const name of demoNames) expect(told(demo(name))).toEqual([])
    expect(told(stack('frame', plate('a', 2, [0, 0, 50, 50]), plate('b', 2, [60, 0, 50, 50])))).toEqual([])
    expect(told(stack('frame', plate('a', 2, [0, 0, 100, 100]), plate('b', 2, [20, 20, 50, 50])))).toEqual([])
    // A small mark on a large sheet.
    expect(told(stack('frame', plate('a', 2, [0, 0, 190, 190]), plate('b', 2, [60, 60, 10, 10])))).toEqual([])
    expect(told(stack('garland', plate('a', 2, [0, 0, 50, 50]), plate('b', 2, [50, 0, 50, 50])))).toEqual([])
    expect(told(stack('frame', plate('a', 2, [0, 0, 50, 50])))).toEqual([])
  })
})
