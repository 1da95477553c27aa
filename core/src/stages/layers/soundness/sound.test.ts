import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { card, plate, stack } from '../../../../test/stack'
import {
  ellipse,
  fillRings,
  mapRegion,
  offset,
  rectangle,
  regionArea,
  rotation,
  subtract,
  translation,
  union,
  type Region,
} from '../../../base/geometry'
import { builtLayers, layerRegion, setLayer } from '../../../project'
import {
  fewestLayers,
  keepLayers,
  numberPlace,
  outlineOverlay,
  shows,
  soundness,
  thickenLayer,
  turnRisks,
  weakNecks,
} from '../index'
import { bridgeLayer } from './soundness'

/** Two plates joined by a strip of a width. */
const dumbbell = (width: number): Region =>
  union([rectangle(0, 0, 30, 30)], [rectangle(50, 0, 20, 20)], [rectangle(29, 8, 22, width)])

describe('weak necks', () => {
  it('are found with their width and what hangs on them', () => {
    const [neck, ...more] = weakNecks(dumbbell(0.8), 1.2)
    expect(more).toEqual([])
    expect(neck!.kind).toBe('neck')
    expect(neck!.widthMm).toBeCloseTo(0.8, 1)
    expect(neck!.at.x).toBeGreaterThan(30)
    expect(neck!.at.x).toBeLessThan(50)
    expect(neck!.hangingMm2).toBeCloseTo(400, -0.5)
    expect(weakNecks(dumbbell(1.3), 1.2)).toEqual([])
  })

  it('tell a strip between parts from a tip that only ends', () => {
    const tip = union([rectangle(0, 0, 30, 30)], [rectangle(29, 10, 12, 0.7)])
    expect(weakNecks(tip, 1.2).map((n) => n.kind)).toEqual(['tip'])
    expect(weakNecks([rectangle(0, 0, 30, 30)], 1.2)).toEqual([])
  })

  it('are gone once thickened, and nothing else changes much', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.3, max: 1.1, noNaN: true }),
        fc.double({ min: 0, max: 180, noNaN: true }),
        (width, deg) => {
          const turned = mapRegion(rotation(deg), dumbbell(width))
          const project = stack('card', card('a', 0, turned))
          const after = thickenLayer(project, 'a', 1.2)
          const region = layerRegion(after.layers[0]!)
          expect(weakNecks(region, 1.17)).toEqual([])
          expect(regionArea(region) - regionArea(turned)).toBeLessThan(22 * 1.3)
          expect(regionArea(subtract(turned, region))).toBeLessThan(0.1)
        },
      ),
      { numRuns: 25 },
    )
  })

  it('pass at the scale that is said', () => {
    const project = stack('card', card('a', 0, dumbbell(0.6)))
    const sound = soundness(project, project.layers[0]!, 1.2)
    expect(sound.passesAt).toBeCloseTo(2, 0)
    const grown = mapRegion([sound.passesAt! * 1.03, 0, 0, sound.passesAt! * 1.03, 0, 0], dumbbell(0.6))
    expect(weakNecks(grown, 1.2)).toEqual([])
  })
})

describe('turns that look right', () => {
  it('of a square are three turns and four flips, all as right', () => {
    const turns = turnRisks([rectangle(0, 0, 50, 50)])
    expect(turns.filter((t) => !t.flipped).map((t) => t.turnDeg)).toEqual([90, 180, 270])
    expect(turns.filter((t) => t.flipped)).toHaveLength(4)
    expect(turns.every((t) => t.exact)).toBe(true)
  })

  it('of a sheet with an odd corner are near, and said to be wrong', () => {
    const sheet = subtract([rectangle(0, 0, 60, 60)], [rectangle(50, 50, 6, 6)])
    const turns = turnRisks(sheet)
    expect(turns.length).toBeGreaterThan(3)
    expect(turns.find((t) => !t.flipped && t.turnDeg === 180)).toMatchObject({ exact: false })
  })

  it('of a shape with no symmetry are none', () => {
    const l = union([rectangle(0, 0, 10, 40)], [rectangle(0, 30, 30, 10)])
    expect(turnRisks(l)).toEqual([])
  })

  it('of a twelve-fold ring are eleven, and the flips with them', () => {
    const ring = union(
      [ellipse(0, 0, 30)],
      ...Array.from({ length: 12 }, (_, i) =>
        mapRegion(rotation(i * 30), mapRegion(translation(30, 0), [ellipse(0, 0, 6)])),
      ),
    )
    const turns = turnRisks(ring)
    expect(turns.filter((t) => !t.flipped && t.exact)).toHaveLength(11)
    expect(turns.filter((t) => t.flipped && t.exact)).toHaveLength(12)
  })
})

describe('numbers, bits and outlines', () => {
  it('hide a number under the layer above or the lip, and nowhere on a bare front', () => {
    const project = stack(
      'frame',
      plate('back', 0, [0, 0, 200, 200]),
      plate('mid', 2, [20, 20, 100, 100]),
      plate('top', 2, [60, 60, 30, 30]),
    )
    const mid = numberPlace(project, 'mid')!
    expect(mid.x).toBeGreaterThan(62)
    expect(mid.x).toBeLessThan(88)
    const back = numberPlace(project, 'back')!
    expect(back.x > 193 || back.y > 193).toBe(true)
    expect(numberPlace(project, 'top')).toBeNull()
    expect(numberPlace(setLayer(project, 'mid', { numbered: false }), 'mid')).toBeNull()
  })

  it('tie loose bits with strips that survive', () => {
    const project = stack(
      'card',
      plate('a', 0, [0, 0, 40, 40], [46, 10, 10, 10]),
      plate('b', 2, [30, 0, 30, 40]),
    )
    const tied = bridgeLayer(project, 'a', 1.5)
    expect(tied.layers[0]!.pieces).toHaveLength(1)
    expect(offset(layerRegion(tied.layers[0]!), -0.7)).toHaveLength(1)
    expect(tied.layers[1]).toEqual(project.layers[1])
  })

  it('draw an outline inwards as a layer in front', () => {
    const project = stack('card', plate('a', 0, [10, 10, 50, 50]), plate('b', 2, [0, 0, 5, 5]))
    const next = outlineOverlay(project, 'a', 3)
    expect(next.layers.map((l) => l.id)).toEqual(['a', 'a-outline', 'b'])
    expect(regionArea(layerRegion(next.layers[1]!))).toBeCloseTo(2500 - 44 * 44, 0)
    expect(outlineOverlay(project, 'gone', 3)).toBe(project)
  })

  it('count what is small', () => {
    const lace = subtract([rectangle(0, 0, 40, 40)], union([ellipse(10, 10, 0.8)], [ellipse(30, 10, 3)]))
    const project = stack('card', card('a', 0, [...lace, rectangle(50, 0, 3, 3)]))
    expect(soundness(project, project.layers[0]!, 1.2)).toMatchObject({
      smallOpenings: 1,
      tweezerPieces: 1,
      weedingMin: 3 / 60,
    })
  })
})

describe('fewer sheets, and other eyes', () => {
  it('keep the backmost and what is seen most', () => {
    const project = stack(
      'frame',
      plate('a', 0, [0, 0, 200, 200]),
      plate('b', 2, [20, 20, 20, 20]),
      plate('c', 2, [60, 60, 90, 90]),
      plate('d', 2, [70, 70, 30, 30]),
    )
    expect(fewestLayers(project, shows(project), 3)).toEqual(['a', 'c', 'd'])
    const kept = keepLayers(project, ['a', 'c'])
    expect(builtLayers(kept).map((l) => l.id)).toEqual(['a', 'c'])
    expect(kept.layers[1]).toMatchObject({ optional: true, leftOut: true })
  })

  it('see more of a side from aside: what lies high moves by its height times the tangent', () => {
    const project = stack('topper', plate('low', 0, [0, 0, 60, 60]), plate('high', 2, [20, 20, 20, 20]))
    const slant = (angleDeg: number, towardsDeg: number) =>
      shows(project, { angleDeg, towardsDeg, heights: new Map([['low', 0], ['high', 10]]), openingMm: 0 }) // prettier-ignore
    expect(slant(0, 0).map((v) => v.visibleMm2)).toEqual(shows(project).map((v) => v.visibleMm2))
    // At 45° the upper plate seems 10 mm to the left; at 80° it leaves the lower one.
    expect(
      fillRings(
        [
          Float64Array.from(
            slant(45, 0)[1]!
              .visiblePath.match(/-?[\d.]+/g)!
              .map(Number),
          ),
        ],
        'nonzero',
      )[0]!.outer,
    ).toContain(10)
    expect(slant(80, 0)[0]!.visibleMm2).toBeCloseTo(3600, 0)
  })
})
