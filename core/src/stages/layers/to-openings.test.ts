import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plate, stack } from '../../../test/stack'
import { regionArea, regionContains, union } from '../../base/geometry'
import { builtLayers, layerRegion, type Project } from '../../project'
import { toOpenings, type Through } from './to-openings'

const SIZE = 60
/** Rectangles by their corner and size, on a whole grid within a square. */
const rect = fc
  .tuple(fc.nat(40), fc.nat(40), fc.integer({ min: 4, max: 20 }), fc.integer({ min: 4, max: 20 }))
  .map((values): [number, number, number, number] => values)
const layers = fc.array(fc.array(rect, { minLength: 1, maxLength: 3 }), { minLength: 2, maxLength: 5 })

/** Names of the layers that have card at a place, back to front. */
const at = (project: Project, x: number, y: number): string[] =>
  builtLayers(project).flatMap((layer) => (regionContains(layerRegion(layer), x, y) ? [layer.id] : []))

/** What should be there: asked place by place, of the stack as it was. */
const expected = (there: readonly string[], by: string, through: Through): string[] => {
  const k = there.indexOf(by)
  if (k < 0) return [...there]
  const others = there.filter((id) => id !== by)
  return through === 'all' ? others.slice(k) : others.filter((_, i) => i !== k - 1)
}

describe('layers that stand for openings', () => {
  it('are cut out of what they lie on, or of all behind them, and are gone', () => {
    fc.assert(
      fc.property(layers, fc.constantFrom<Through>('next', 'all'), fc.nat(4), (drawn, through, pick) => {
        // A sheet under all, so that no layer is cut away whole; each of the others has a corner of its own.
        const own = drawn.map((rects, k) => plate(`l${k}`, 1, ...rects, [SIZE + 5 * k, 0, 4, 4]))
        const project = stack('card', plate('back', 1, [0, 0, 100, SIZE]), ...own)
        const by = `l${pick % drawn.length}`
        const next = toOpenings(project, { byId: by, through })
        expect(next.layers.map(({ id }) => id)).not.toContain(by)
        for (let x = 0.5; x < 100; x += 3)
          for (let y = 0.5; y < SIZE; y += 3)
            expect(at(next, x, y)).toEqual(expected(at(project, x, y), by, through))
      }),
      { numRuns: 40 },
    )
  })

  it('stay where they lie on nothing, or on what would be gone', () => {
    const apart = stack('card', plate('a', 1, [0, 0, 10, 10]), plate('b', 1, [20, 0, 10, 10]))
    expect(toOpenings(apart, { byId: 'b', through: 'all' })).toBe(apart)
    const over = stack('card', plate('a', 1, [0, 0, 10, 10]), plate('b', 1, [0, 0, 12, 12]))
    expect(toOpenings(over, { byId: 'b', through: 'next' })).toBe(over)
    expect(regionArea(union(layerRegion(over.layers[0]!)))).toBeCloseTo(100, 3)
  })
})
