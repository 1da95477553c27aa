import { describe, expect, it } from 'vitest'
import { plate, stack } from '../../../test/stack'
import { ellipse, loadGeometry, rectangle, regionArea, regionBox, type Region } from '../../base/geometry'
import { readProject, setLayer, writeProject, type Fold } from '../../project'
import { pieceHeights } from '../depth'
import { folded as foldedLayer } from './folds'

await loadGeometry()

const fold = (line: Fold['line'], deg: number, way: Fold['way'] = 'up'): Fold => ({ line, deg, way })
const flat = { how: 'flat' as const, riseMm: 0, flatMm: 0 }
const folded = (region: Region, folds: Fold[]) =>
  foldedLayer(region, { folds, blanks: [], slits: [], shaping: flat })
const rounded = (mm: number) => Math.round(mm * 10) / 10

describe('a folded piece', () => {
  const sheet = [rectangle([0, 0], 60, 20)]

  it('has a body that lies flat and flaps that rise by their length and angle', () => {
    const { body, flaps } = folded(sheet, [fold([20, 0, 20, 20], 90), fold([55, 0, 55, 20], 30, 'down')])
    expect(regionBox(body)).toMatchObject({ minX: expect.closeTo(20, 1), maxX: expect.closeTo(55, 1) })
    expect(flaps.map(({ riseMm }) => rounded(riseMm)).toSorted((a, b) => a - b)).toEqual([-2.5, 20])
  })

  it('lies flat between wings that are larger than it', () => {
    const bird = [rectangle([0, 0], 60, 20)]
    const { body, flaps } = folded(bird, [fold([27, 0, 27, 20], 30), fold([33, 0, 33, 20], 30)])
    expect(regionArea(body)).toBeCloseTo(6 * 20, 0)
    expect(flaps.map(({ riseMm }) => rounded(riseMm))).toEqual([13.5, 13.5])
  })

  it('turns a flap on a flap farther', () => {
    // 10 mm upright, then 10 mm turned on by 90 degrees: level again, 10 mm up.
    const box = folded(sheet, [fold([40, 0, 40, 20], 90), fold([50, 0, 50, 20], 90)])
    expect(box.flaps.map(({ riseMm }) => rounded(riseMm))).toEqual([10, 10])
    const tall = folded(sheet, [fold([40, 0, 40, 20], 45), fold([50, 0, 50, 20], 45)])
    expect(tall.flaps.map(({ riseMm }) => rounded(riseMm))).toEqual([7.1, rounded(10 * Math.SQRT1_2 + 10)])
  })

  it('folded along its middle rises at both sides, each by half of the angle', () => {
    const { body, flaps } = folded(sheet, [fold([0, 10, 60, 10], 60)])
    expect(regionArea(body)).toBe(1200)
    expect(flaps.map(({ riseMm }) => rounded(riseMm))).toEqual([5, 5])
  })

  it('lies flat beyond a fold along its middle that ends within it', () => {
    const { body, flaps } = folded(sheet, [fold([60, 10, 20, 10], 60)])
    expect(regionArea(body)).toBeCloseTo(20 * 20, 1)
    expect(regionBox(body).maxX).toBeCloseTo(20, 1)
    expect(flaps.map(({ riseMm }) => rounded(riseMm))).toEqual([5, 5])
    expect(regionArea(flaps.flatMap(({ region }) => region))).toBeCloseTo(40 * 20, -0.5)
    // Drawn from the other end it is the same.
    expect(regionArea(folded(sheet, [fold([20, 10, 60, 10], 60)]).body)).toBeCloseTo(400, 1)
    // A fold beside it is none of its own.
    expect(folded(sheet, [fold([60, 10, 20, 10], 60), fold([0, 30, 60, 30], 60)]).flaps).toHaveLength(2)
  })

  it('is flat where a fold does not part it', () => {
    for (const line of [
      [10, 5, 50, 5],
      [70, 0, 70, 20],
      [20, 0, 20, 9],
    ] as const)
      expect(folded(sheet, [fold([...line], 90)])).toEqual({ body: sheet, flaps: [] })
  })
})

describe('a piece that hands form', () => {
  const disc = [ellipse([50, 50], 40)]

  it('stays flat round its middle and rises beyond', () => {
    const { body, flaps } = foldedLayer(disc, {
      folds: [],
      blanks: [],
      slits: [],
      shaping: { how: 'curl', riseMm: 9, flatMm: 30 },
    })
    expect(regionArea(body) / (Math.PI * 225)).toBeCloseTo(1, 1)
    expect(flaps.map(({ riseMm }) => riseMm)).toEqual([9])
  })

  it('is glued flat round where its slit starts, and rises beyond', () => {
    const cup = { how: 'cup' as const, riseMm: 9, flatMm: 10 }
    const { body, flaps } = foldedLayer(disc, {
      folds: [],
      blanks: [],
      slits: [[10, 50, 40, 50]],
      shaping: cup,
    })
    // Half of a disc of 10 mm round the edge, but for what the edge bends.
    expect(regionArea(body)).toBeGreaterThan(130)
    expect(regionArea(body)).toBeLessThan(157)
    expect(regionBox(body).maxX).toBeCloseTo(20, 1)
    expect(flaps.map(({ riseMm }) => riseMm)).toEqual([9])
  })

  it('stands on all of itself where it is rolled', () => {
    const rolled = foldedLayer(disc, {
      folds: [],
      blanks: [],
      slits: [],
      shaping: { how: 'roll', riseMm: 12, flatMm: 0 },
    })
    expect(rolled.body).toBe(disc)
    expect(rolled.flaps).toEqual([{ region: disc, riseMm: 12 }])
  })
})

describe('heights of what is folded', () => {
  const base = stack('card', plate('back', 0, [0, 0, 100, 60]), plate('bird', 1, [20, 20, 60, 20]), plate('eye', 1, [45, 25, 8, 8])) // prettier-ignore
  const wings = setLayer(base, 'bird', { folds: [fold([30, 20, 30, 40], 60), fold([70, 20, 70, 40], 60)] })

  it('rise with the wings, and leave what lies on the body where it is', () => {
    const flat = pieceHeights(base)
    const risen = pieceHeights(wings)
    expect(risen[1]!.bottomMm).toBe(flat[1]!.bottomMm)
    expect(risen[1]!.topMm - flat[1]!.topMm).toBeCloseTo(10 * Math.sin(Math.PI / 3), 3)
    expect(risen[2]!.topMm).toBe(flat[2]!.topMm)
    // Only the body is padded.
    expect(regionArea(risen[1]!.region)).toBeCloseTo(40 * 20, 0)
  })

  it('are kept in the file; a fold of an older file is its line alone', () => {
    expect(readProject(writeProject(wings)).layers).toEqual(wings.layers)
    const old = {
      ...wings,
      layers: wings.layers.map((l) => ({ ...l, folds: l.folds.map(({ line }) => line) })),
    }
    expect(readProject(JSON.stringify(old)).layers[1]!.folds.map(({ line }) => line)).toEqual(
      wings.layers[1]!.folds.map(({ line }) => line),
    )
  })
})
