import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { asPieces, courses, inTwo } from '../../../../../test/cut-up'
import { expectLegal } from '../../../../../test/legal-layout'
import { seededRandom } from '../../../../base'
import {
  compose,
  mapPolygon,
  polygonArea,
  rectangle,
  regionArea,
  rotation,
  translation,
  union,
  type Polygon,
} from '../../../../base/geometry'
import type { NestInstance, NestLayout, Turns } from '../instance'
import { Nester } from '../nester'
import { atOnce } from '../parts'
import { Joining, laidStraight, type Joined, type Likeness } from './joining'
import { PuzzleSearch } from './puzzle-search'
import { sidesOf } from './sides'

const SHEET = { w: 304.8, h: 304.8, margin: 6.35 }
const GAP = 2
/** What is cut up: 0.97 of the cuttable sheet's sides. */
const CUT_UP = { w: 283, h: 283 }
const LIKENESS: Likeness = {
  lengthMm: 0.5,
  bulgeMm: 0.5,
  straightDeg: 3,
  squares: false,
  corners: { deg: 30, reachMm: 2 },
  room: { w: 300, h: 300 },
}

const polygon = (...points: number[]): Polygon => ({ outer: Float64Array.from(points), holes: [] })

/** Shapes as parts that are not joined yet. */
const parts = (shapes: readonly Polygon[], turns: readonly Turns[]): Joined[] =>
  shapes.map((shape, part) => ({
    ...sidesOf(shape.outer, LIKENESS.corners)!,
    turns: turns[part]!,
    members: [{ part, deg: 0, cos: 1, sin: 0, x: 0, y: 0 }],
  }))

/** What is left once everything is joined that goes together. */
function joined(singles: readonly Joined[], likeness = LIKENESS): Joined[] {
  const joining = new Joining(singles, () => 0)
  atOnce(joining.by(likeness))
  return joining.left()
}

/** 100 by 60, cut from (40, 0) to (55, 60), and its right half again from (50, 40) to (100, 20). */
const THREE = [
  polygon(0, 0, 40, 0, 55, 60, 0, 60),
  polygon(40, 0, 100, 0, 100, 20, 50, 40),
  polygon(50, 40, 100, 20, 100, 60, 55, 60),
]

/** As they lie in a block, about the origin of its frame. */
const lying = ({ members }: Pick<Joined, 'members'>, shapes: readonly Polygon[]): Polygon[] =>
  members.map(({ part, deg, x, y }) => mapPolygon(compose(translation(x, y), rotation(deg)), shapes[part]!))

describe('parts of one cut', () => {
  it('are joined until one is left, whichever way they were turned', () => {
    const turned = THREE.map((shape, k) =>
      mapPolygon(compose(translation(70 * k, -30), rotation(77 * k)), shape),
    )
    const [whole, ...others] = joined(parts(turned, ['free', 'free', 'free']))
    expect(others).toEqual([])
    expect(whole!.members.map(({ part }) => part).toSorted()).toEqual([0, 1, 2])
    // They cover all of it, and nothing twice.
    expect(regionArea(union(...lying(whole!, turned).map((shape) => [shape])))).toBeCloseTo(6000, 0)
    expect(polygonArea({ outer: whole!.outline, holes: [] })).toBeCloseTo(6000, 3)
    expect(whole!.sides.map(({ length }) => Math.round(length)).toSorted((a, b) => a - b)).toEqual([
      60, 60, 100, 100,
    ])
    const { poses, filled } = laidStraight(whole!, LIKENESS.room)!
    expect(filled).toBeCloseTo(1, 6)
    const laid = union(...lying({ members: poses }, turned).map((shape) => [shape]))
    expect(regionArea(laid)).toBeCloseTo(6000, 0)
  })

  it('are turned no further than they may be', () => {
    const two = [THREE[0]!, mapPolygon(rotation(90), polygon(40, 0, 120, 0, 120, 60, 55, 60))]
    expect(joined(parts(two, ['quarter', 'quarter']))).toHaveLength(1)
    expect(joined(parts(two, ['fixed', 'fixed']))).toHaveLength(2)
    // The one that must not turn lies as it was given.
    const [whole] = joined(parts(two, ['free', 'fixed']))
    expect(whole!.turns).toBe('fixed')
    expect(whole!.members.map(({ part, deg }) => [part, Math.round(deg)])).toEqual([
      [1, 0],
      [0, 90],
    ])
  })

  it('are not joined along what may be the sheet’s own edge, nor to more than the sheet takes', () => {
    const tiles = parts([rectangle([0, 0], 40, 30), rectangle([0, 0], 50, 30)], ['free', 'free'])
    expect(joined(tiles)).toHaveLength(2)
    expect(joined(tiles, { ...LIKENESS, squares: true })).toHaveLength(1)
    expect(joined(tiles, { ...LIKENESS, squares: true, room: { w: 80, h: 80 } })).toHaveLength(2)
  })
})

describe('outlines of many corners', () => {
  it('are joined as any others', () => {
    // Two halves of 100 by 60, each with a corner every thousandth of a millimetre along its upper side.
    const fine = (from: number) => Array.from({ length: 50_000 }, (_, k) => [from + k / 1000, 0]).flat()
    const halves = [
      polygon(...fine(0).slice(0, 80_000), 40, 0, 55, 60, 0, 60),
      polygon(40, 0, ...fine(50), 100, 0, 100, 60, 55, 60),
    ]
    const [whole, ...others] = joined(parts(halves, ['free', 'free']))
    expect(others).toEqual([])
    expect(whole!.outline.length).toBeGreaterThan(170_000)
    expect(polygonArea({ outer: whole!.outline, holes: [] })).toBeCloseTo(6000, 3)
  })
})

/** The first layout that putting together alone gives. */
function solved(instance: NestInstance): NestLayout | null {
  const search = new PuzzleSearch(instance, seededRandom(1))
  let layout: NestLayout | null = null
  while (!layout && !search.done) layout = search.step()
  return layout
}

const pieces = (random: () => number, shapes: readonly Polygon[], turns: Turns): NestInstance => ({
  sheet: SHEET,
  gap: GAP,
  pieces: asPieces(random, shapes, { gap: GAP, turns }),
})

const seed = fc.integer({ min: 1, max: 1e6 })
const turns = fc.constantFrom<Turns>('free', 'quarter', 'fixed')

describe('a sheet is put together again', () => {
  const expectSolved = (instance: NestInstance) => {
    const layout = solved(instance)!
    expect(layout.sheets).toBe(1)
    expectLegal(instance, layout)
  }

  it('that was cut in two again and again, by slanted or bent lines', () => {
    const cut = fc.record({
      seed,
      turns,
      count: fc.integer({ min: 4, max: 16 }),
      bend: fc.constantFrom(0, 0.06),
    })
    fc.assert(
      fc.property(cut, ({ seed, turns, count, bend }) => {
        const random = seededRandom(seed)
        expectSolved(pieces(random, inTwo(random, CUT_UP, { count, bend }), turns))
      }),
      { numRuns: 12, seed: 3 },
    )
  }, 120_000)

  it('that was cut into bricks, between straight and waved lines', () => {
    const cut = fc.record({
      seed,
      turns,
      rows: fc.integer({ min: 2, max: 4 }),
      bricks: fc.integer({ min: 2, max: 5 }),
      wave: fc.constantFrom(0, 0.1),
    })
    fc.assert(
      fc.property(cut, ({ seed, turns, ...cut }) => {
        const random = seededRandom(seed)
        expectSolved(pieces(random, courses(random, CUT_UP, cut), turns))
      }),
      { numRuns: 12, seed: 3 },
    )
  }, 120_000)

  it('to no more than what was cut up, which no other way comes near', () => {
    const random = seededRandom(11)
    const instance = pieces(random, inTwo(random, CUT_UP, { count: 25, bend: 0 }), 'free')
    const nester = new Nester(instance, 1)
    const others = nester.best.score
    for (let k = 0; k < 400 && nester.best.score > 0.975; k++) nester.step()
    expect(nester.best.score).toBeLessThan(0.975)
    expect(others).toBeGreaterThan(1.1)
    expectLegal(instance, nester.best)
  }, 60_000)
})
