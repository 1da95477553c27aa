// Orders of laying, and the turns that pieces are laid at.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectLegal } from '../../../../../test/legal-layout'
import { star } from '../../../../../test/arbitrary'
import { seededRandom } from '../../../../base'
import {
  boxHeight,
  boxWidth,
  mapPolygon,
  polygonBox,
  rectangle,
  rotation,
  type Polygon,
} from '../../../../base/geometry'
import type { NestInstance } from '../instance'
import { Nester } from '../nester'
import { turnsOf } from '../orientations'
import { atOnce } from '../parts'
import { layInOrder } from './laying'
import { OrderSearch } from './order-search'
import { Poses } from './poses'

/** A flower of so many corners. */
const flower = (corners: number, radius: number) => ({
  outer: Float64Array.from({ length: 2 * corners }, (_, i) => {
    const angle = (Math.floor(i / 2) / corners) * 2 * Math.PI
    const reach = radius * (1 + 0.2 * Math.sin(5 * angle) + 0.02 * Math.sin(61 * angle))
    return reach * (i % 2 === 0 ? Math.cos(angle) : Math.sin(angle))
  }),
  holes: [],
})

const COUNT = 32

describe('an order of laying', () => {
  const instance: NestInstance = {
    sheet: { w: 200, h: 200, margin: 5 },
    gap: 8,
    pieces: Array.from({ length: COUNT }, (_, k) => ({
      id: `flower-${k}`,
      shape: flower(300, 6 + k / 10),
      qty: 1,
      turns: 'free' as const,
    })),
  }

  it('laid finely in several steps is what it is in one go, every piece turned as it was, and legal', () => {
    const search = new OrderSearch(instance, seededRandom(1))
    let steps = 0
    let layout = null
    for (; search.finished === 0; steps++) layout = search.step(search.first, steps)
    expect(steps).toBeGreaterThan(1)
    const turnOf = new Map(search.first.placements.map(({ id, rotation: turn }) => [id, turn]))
    expect(layout!.placements.map(({ id, rotation: turn }) => [id, turn])).toEqual([...turnOf])
    const poses = new Poses(instance)
    const largestFirst = instance.pieces.map((_, k) => {
      const piece = COUNT - 1 - k
      const turns = poses.turnsThatFit(piece, 'rows').map((one) => one.rotation)
      return { piece, copy: 0, pose: turns.indexOf(turnOf.get(`flower-${piece}`)!) }
    })
    expect(layout).toEqual(
      atOnce(layInOrder(instance, poses, { items: largestFirst, axis: 'rows', level: 'fine' })),
    )
    expectLegal(instance, layout!)
  })
})

describe('an off-cut', () => {
  it('is kept to at the corners of a hole and of a bay, whose rim is less than half the gap', () => {
    const hole = [80, 60, 80, 100, 120, 100, 120, 60]
    const outline: Polygon = {
      outer: Float64Array.from([0, 0, 200, 0, 200, 90, 150, 90, 150, 160, 0, 160]),
      holes: [Float64Array.from(hole)],
    }
    let onOffCut = 0
    for (const [k, margin] of [0, 0, 1, 3].entries()) {
      const random = seededRandom(k)
      const instance: NestInstance = {
        sheet: { w: 200, h: 200, margin: 5 },
        gap: 8,
        offCuts: [{ id: 'rest', outline, margin }],
        pieces: Array.from({ length: 30 }, (_, i) => ({
          id: `p${i}`,
          shape: {
            outer: Float64Array.from([0, -1, 1, 0, 0, 1, -1, 0], (v) => v * (5 + 9 * random())),
            holes: [],
          },
          qty: 1,
          turns: 'free' as const,
        })),
      }
      const search = new OrderSearch(instance, random)
      for (let steps = 0; search.finished < 3; steps++) {
        const layout = search.step(search.first, steps) ?? search.first
        expectLegal(instance, layout)
        onOffCut += layout.placements.filter(({ sheet }) => sheet < 0).length
      }
    }
    expect(onOffCut).toBeGreaterThan(100)
  })
})

describe('the turns of a free piece', () => {
  it('hold one with a box as small as at any whole degree', () => {
    fc.assert(
      fc.property(star(20), (shape) => {
        const areaAt = (deg: number) => {
          const b = polygonBox(mapPolygon(rotation(deg), shape))
          return boxWidth(b) * boxHeight(b)
        }
        const least = Math.min(...Array.from({ length: 90 }, (_, deg) => areaAt(deg)))
        const turns = turnsOf({ shape, turns: 'free' })
        expect(Math.min(...turns.map(areaAt))).toBeLessThanOrEqual(least + 1e-5)
      }),
      { numRuns: 100 },
    )
  })
})

it('lays what fits across the corners of a sheet only, and as boxes what fits straight', () => {
  const sheet = { w: 297, h: 210, margin: 6 }
  const strip = (id: string, length: number, qty: number) => ({
    id,
    shape: rectangle([0, 0], length, 5),
    qty,
    turns: 'free' as const,
  })
  const instance: NestInstance = { sheet, gap: 2, pieces: [strip('long', 330, 2), strip('short', 60, 9)] }
  // Straight it fits to 285 mm, by quarters of a right angle to 275 mm.
  expect(new Poses(instance).turnsThatFit(0, 'rows').map(({ rotation: turn }) => turn % 180)).toEqual([
    expect.closeTo(33.7, 0),
    expect.closeTo(33.7, 0),
  ])
  const nester = new Nester(instance)
  for (let k = 0; k < 40; k++) nester.step()
  expectLegal(instance, nester.best)
  expect(nester.best.placements).toHaveLength(11)
})
