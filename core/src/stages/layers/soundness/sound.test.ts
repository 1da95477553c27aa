import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { FAMILIES, somewhere, SOUND } from '../../../../test/narrow'
import { card, plate, stack } from '../../../../test/stack'
import {
  ellipse,
  fillRings,
  mapRegion,
  offset,
  rectangle,
  regionArea,
  regionBox,
  rotation,
  subtract,
  translation,
  union,
  type Region,
} from '../../../base/geometry'
import { assignPaper, builtLayers, layerRegion, setLayer, type Project } from '../../../project'
import { starterStock } from '../../paper'
import { hiddenPart, NUMBER_MM, numberPlace } from '../marks/number-place'
import {
  fewestLayers,
  keepLayers,
  outlineOverlay,
  shows,
  soundness,
  thickenLayer,
  turnRisks,
  thickened,
  weakNecks,
} from '../index'
import { bridgeLayer } from './soundness'

/** Two plates joined by a strip of a width. */
const dumbbell = (width: number): Region =>
  union([rectangle([0, 0], 30, 30)], [rectangle([50, 0], 20, 20)], [rectangle([29, 8], 22, width)])

describe('weak necks', () => {
  it('are found with their width and what hangs on them', () => {
    const [neck, ...more] = weakNecks(dumbbell(0.8), 1.2)
    expect(more).toEqual([])
    expect(neck!.kind).toBe('neck')
    expect(neck!.widthMm).toBeCloseTo(0.8, 1)
    expect(neck!.at.x).toBeGreaterThanOrEqual(30)
    expect(neck!.at.x).toBeLessThanOrEqual(50)
    // The smaller plate, and the strip where it gives way at the larger one.
    expect(neck!.hangingMm2).toBeCloseTo(416, 0)
    expect(weakNecks(dumbbell(1.3), 1.2)).toEqual([])
  })

  it('are no short bumps and no points, but tails, and pieces narrow all over', () => {
    const plateWith = (more: Region) => union([rectangle([0, 0], 30, 30)], more)
    const strips = (region: Region) => weakNecks(region, 1.2).filter((neck) => neck.kind === 'neck')
    expect(strips(plateWith([rectangle([29, 10], 3, 0.7)]))).toEqual([])
    expect(strips(plateWith([rectangle([29, 10], 12, 0.7)]))).toHaveLength(1)
    const point = fillRings([Float64Array.of(29, 8, 45, 10, 29, 12)], 'nonzero')
    expect(strips(plateWith(point))).toEqual([])
    expect(strips([rectangle([0, 0], 40, 0.6)])).toMatchObject([{ widthMm: expect.closeTo(0.6, 1) }])
    expect(strips([rectangle([0, 0], 30, 30)])).toEqual([])
    // As wide as it is to be, whatever its ends make of area by edge.
    expect(strips([rectangle([0, 0], 40, 1.2)])).toEqual([])
    expect(strips([rectangle([0, 0], 40, 1.19)])).toEqual([])
    expect(strips([rectangle([0, 0], 40, 1.15)])).toHaveLength(1)
  })

  it('are counted strip by strip in a mesh, where strips meet not at all', () => {
    for (const [k, strips] of [
      [0, 12],
      [1, 24],
      [2, 40],
    ] as const)
      // prettier-ignore
      expect(weakNecks(FAMILIES['lattice']!(0.6, k), 1.2)).toHaveLength(strips)
    expect(weakNecks(FAMILIES['wheel of spokes']!(0.6, 10), 1.2)).toHaveLength(12)
  })

  it('hang nothing where all still holds by other ways', () => {
    const wheel = weakNecks(FAMILIES['wheel of spokes']!(0.6, 3), 1.2)
    expect(wheel.every((neck) => neck.hangingMm2 === 0)).toBe(true)
    expect(weakNecks(FAMILIES['tail']!(0.6, 0), 1.2)[0]!.hangingMm2).toBeCloseTo(18, 0)
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

  it('grow away from the edge of what they go into, which they do not pass', () => {
    // A frame round a window, 0.4 mm wide where it lies along the spacer.
    const rim = subtract([rectangle([0, 0], 200, 200)], [rectangle([0.4, 20], 150, 150)])
    const after = thickenLayer(stack('frame', card('a', 0, rim)), 'a', 1.2)
    const region = layerRegion(after.layers[0]!)
    expect(regionBox(region)).toMatchObject({ minX: 0, minY: 0, maxX: 200, maxY: 200 })
    expect(weakNecks(region, 1.17)).toEqual([])
    // What is past it already may grow where it likes.
    const wider = thickenLayer(stack('free', card('a', 0, rim)), 'a', 1.2)
    expect(regionBox(layerRegion(wider.layers[0]!)).minX).toBeLessThan(0)
  })

  it('pass at the scale that is said', () => {
    const project = stack('card', card('a', 0, dumbbell(0.6)))
    const sound = soundness(project, project.layers[0]!, { safeMm: 1.2 })
    expect(sound.passesAt).toBeCloseTo(2, 0)
    const grown = mapRegion([sound.passesAt! * 1.03, 0, 0, sound.passesAt! * 1.03, 0, 0], dumbbell(0.6))
    expect(weakNecks(grown, 1.2)).toEqual([])
  })
})

/** Widths against a safe strip of 1.2 mm, and turns, of each family's variants. */
const WIDTHS = [0.1, 0.2, 0.3, 0.45, 0.6, 0.75, 0.9, 1, 1.1]

describe('shapes made with a strip of a known width', () => {
  const strips = (region: Region) => weakNecks(region, 1.2).filter((neck) => neck.kind === 'neck')

  it.each(Object.entries(FAMILIES))(
    '%s: found with its width, mended, and sound where it is wide',
    (_, make) => {
      WIDTHS.forEach((width, k) => {
        const weak = somewhere(make(width, k * 4), k * 37)
        expect(strips(weak)[0]?.widthMm, `${width} mm`).toSatisfy(
          (mm) => Math.abs((mm as number) - width) < 0.05,
        )
        expect(weakNecks(thickened(weak, 1.2), 1.17).filter((neck) => neck.kind === 'neck')).toEqual([])
        expect(strips(somewhere(make(1.25 + k * 0.1, k * 4), k * 37))).toEqual([])
      })
    },
  )

  it.each(Object.entries(SOUND))('%s: no false alarm', (_, make) => {
    for (let k = 0; k < 18; k++) expect(strips(somewhere(make(k), k * 53))).toEqual([])
  })
})

describe('turns that look right', () => {
  /** A disc with so many skewed teeth or petals, turned and put somewhere. */
  const wheel = (count: number, tooth: Region) =>
    somewhere(
      union(
        [ellipse([0, 0], 30)],
        ...Array.from({ length: count }, (_, i) => mapRegion(rotation((i * 360) / count), tooth)),
      ),
      11,
    )

  it.each([2, 3, 5, 7, 11, 13, 16, 22, 23, 36, 47, 60])(
    'of a wheel of %i are found by turns and in slanted axes',
    (n) => {
      const skewed = fillRings([Float64Array.of(28, -60 / n, 40, 48 / n, 28, 60 / n)], 'nonzero')
      const even = [ellipse([30, 0], 12, 60 / n)]
      const [one, other] = [turnRisks(wheel(n, skewed)), turnRisks(wheel(n, even))]
      expect(one.filter((turn) => turn.exact && !turn.flipped)).toHaveLength(n - 1)
      expect(one.filter((turn) => turn.exact && turn.flipped)).toHaveLength(0)
      expect(other.filter((turn) => turn.exact && !turn.flipped)).toHaveLength(n - 1)
      expect(other.filter((turn) => turn.exact && turn.flipped)).toHaveLength(n)
    },
  )

  it('tell where the only sign is', () => {
    const ring = subtract(wheel(12, [ellipse([30, 0], 6)]), somewhere([ellipse([30, 0], 2)], 11))
    const near = turnRisks(ring).filter((turn) => !turn.flipped)
    expect(near).toHaveLength(11)
    expect(near.every((turn) => !turn.exact && turn.difference < 0.02)).toBe(true)
    const seen = near.find((turn) => turn.at !== null)!
    const far = Math.hypot(seen.at!.x - 60, seen.at!.y - 45)
    // At the eyelet, or where it would come to lie.
    expect(far).toBeCloseTo(30, -0.5)
  })

  it('hold for wings of which one is a little larger', () => {
    const wings = union(
      [ellipse([-20, 0], 18, 30)],
      [ellipse([20, 0], 18, 29)],
      [rectangle([-4, -30], 8, 60)],
    )
    const turns = turnRisks(somewhere(wings, 33))
    expect(turns.filter((turn) => turn.exact)).toHaveLength(1)
    expect(turns.filter((turn) => !turn.exact && turn.flipped)).toHaveLength(1)
    expect(turns.filter((turn) => !turn.exact && !turn.flipped)).toMatchObject([{ turnDeg: 180 }])
  })

  it('of a square are three turns and four flips, all as right', () => {
    const turns = turnRisks([rectangle([0, 0], 50, 50)])
    expect(turns.filter((t) => !t.flipped).map((t) => t.turnDeg)).toEqual([90, 180, 270])
    expect(turns.filter((t) => t.flipped)).toHaveLength(4)
    expect(turns.every((t) => t.exact)).toBe(true)
  })

  it('of a sheet with an odd corner are near, and said to be wrong', () => {
    const sheet = subtract([rectangle([0, 0], 60, 60)], [rectangle([50, 50], 6, 6)])
    const turns = turnRisks(sheet)
    expect(turns.length).toBeGreaterThan(3)
    expect(turns.find((t) => !t.flipped && t.turnDeg === 180)).toMatchObject({ exact: false })
  })

  it('of a shape with no symmetry are none', () => {
    const l = union([rectangle([0, 0], 10, 40)], [rectangle([0, 30], 30, 10)])
    expect(turnRisks(l)).toEqual([])
  })

  it('of a twelve-fold ring are eleven, and the flips with them', () => {
    const ring = union(
      [ellipse([0, 0], 30)],
      ...Array.from({ length: 12 }, (_, i) =>
        mapRegion(rotation(i * 30), mapRegion(translation(30, 0), [ellipse([0, 0], 6)])),
      ),
    )
    const turns = turnRisks(ring)
    expect(turns.filter((t) => !t.flipped && t.exact)).toHaveLength(11)
    expect(turns.filter((t) => t.flipped && t.exact)).toHaveLength(12)
  })
})

const placeOf = (project: Project, id: string) =>
  numberPlace(layerRegion(project.layers.find((layer) => layer.id === id)!), hiddenPart(project, id) ?? [])

describe('numbers, bits and outlines', () => {
  it('hide a number under the layer above or the lip, and nowhere on a bare front', () => {
    const project = stack(
      'frame',
      plate('back', 0, [0, 0, 200, 200]),
      plate('mid', 2, [20, 20, 100, 100]),
      plate('top', 2, [60, 60, 30, 30]),
    )
    const mid = placeOf(project, 'mid')!
    expect(mid.x).toBeGreaterThan(62)
    expect(mid.x).toBeLessThan(88)
    // From aside one sees under the lip as far as the stack lies below it: the number goes under the middle plate.
    const back = placeOf(project, 'back')!
    expect(back.x < 120 && back.y < 120).toBe(true)
    // Where all lies flat behind the pane, the lip hides it.
    const flat = stack('frame', plate('back', 0, [0, 0, 200, 200]), plate('mid', 0, [20, 20, 100, 100]))
    const lip = placeOf(flat, 'back')!
    expect(lip.x > 193 || lip.y > 193).toBe(true)
    expect(placeOf(project, 'top')).toBeNull()
    expect(placeOf(setLayer(project, 'mid', { numbered: false }), 'mid')).toBeNull()
  })

  it('hide a number from aside as well, and never under what is clear', () => {
    // 12 mm of card over a number of 4: from 30° aside a gap of 2 mm takes 1.2 mm on each side, one of 8 mm takes all.
    const over = (gapMm: number) =>
      stack('topper', plate('low', 0, [0, 0, 60, 60]), plate('top', gapMm, [20, 20, 12, 12]))
    const at = placeOf(over(2), 'low')!
    const reach = NUMBER_MM / 2 + 2 * Math.tan(Math.PI / 6)
    expect(Math.min(at.x - 20, 32 - at.x, at.y - 20, 32 - at.y)).toBeGreaterThan(reach)
    expect(placeOf(over(8), 'low')).toBeNull()
    const clear = { ...starterStock()[0]!, id: 'clear', finish: 'acetate' as const }
    expect(placeOf(assignPaper(over(2), ['top'], { paper: clear }), 'low')).toBeNull()
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
    const lace = subtract(
      [rectangle([0, 0], 40, 40)],
      union([ellipse([10, 10], 0.8)], [ellipse([30, 10], 3)]),
    )
    const project = stack('card', card('a', 0, [...lace, rectangle([50, 0], 3, 3)]))
    expect(soundness(project, project.layers[0]!, { safeMm: 1.2 })).toMatchObject({
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
      shows(project, {
        angleDeg,
        towardsDeg,
        cards: project.layers.map((layer) => ({
          layerId: layer.id,
          region: layerRegion(layer),
          topMm: layer.id === 'high' ? 10 : 0,
        })),
        openingMm: 0,
      })
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
