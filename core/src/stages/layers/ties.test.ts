// Ties that are moved and taken out, measured against the pieces as they were before.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { card, plate, stack } from '../../../test/stack'
import { ellipse, regionArea, subtract, union, type Region } from '../../base/geometry'
import { layerRegion, readProject, transformLayers, writeProject, type Project } from '../../project'
import { drawStrip } from './shape-tools'
import { bridgeLayer } from './soundness'
import { moveTie, tiesThere } from './ties'

const layerOf = (project: Project) => project.layers[0]!
const regionOf = (project: Project) => layerRegion(layerOf(project))
/** How much card one region has that the other has not, mm². */
const differ = (a: Region, b: Region) => regionArea(subtract(a, b)) + regionArea(subtract(b, a))

/** Discs in a row, so far from each other, as loose bits of one layer. */
const discs = (radii: readonly number[], gapMm: number): Project => {
  let x = 0
  const faces = radii.map((r) => {
    x += r
    const face = ellipse([x, 0], r)
    x += r + gapMm
    return face
  })
  return stack('free', card('bits', 0, faces))
}

const rows = fc.record({
  radii: fc.array(fc.integer({ min: 4, max: 12 }), { minLength: 2, maxLength: 6 }),
  gapMm: fc.integer({ min: 2, max: 8 }),
})

describe('a tie', () => {
  it('that is taken out leaves the pieces as they were, to a hair', () => {
    fc.assert(
      fc.property(rows, ({ radii, gapMm }) => {
        const before = discs(radii, gapMm)
        let tied = bridgeLayer(before, 'bits', 2)
        expect(layerOf(tied).pieces).toHaveLength(1)
        expect(layerOf(tied).ties).toHaveLength(radii.length - 1)
        expect(tiesThere(layerOf(tied))).toEqual(radii.slice(1).map((_, i) => i))
        for (let k = radii.length - 1; k > 0; k--) {
          tied = moveTie(tied, 'bits', { at: 0, to: null })
          expect(layerOf(tied).pieces).toHaveLength(radii.length - k + 1)
        }
        expect(differ(regionOf(tied), regionOf(before))).toBeLessThan(0.02 * radii.length)
      }),
      { numRuns: 25 },
    )
  })

  it('is moved, made wider, and holds in its new place', () => {
    const before = stack('free', plate('bits', 0, [0, 0, 20, 60], [30, 0, 20, 60]))
    const tied = drawStrip(before, 'bits', { from: { x: 20, y: 10 }, to: { x: 30, y: 10 }, widthMm: 2, cut: false }) // prettier-ignore
    expect(layerOf(tied).pieces).toHaveLength(1)
    const moved = moveTie(tied, 'bits', {
      at: 0,
      to: { from: { x: 20, y: 45 }, to: { x: 30, y: 45 }, widthMm: 4 },
    })
    expect(layerOf(moved).pieces).toHaveLength(1)
    expect(layerOf(moved).ties).toMatchObject([{ line: [20, 45, 30, 45], widthMm: 4 }])
    // Ten millimetres of gap, four wide: by hand.
    expect(regionArea(regionOf(moved)) - regionArea(regionOf(before))).toBeCloseTo(40, 0)
    const bare = moveTie(moved, 'bits', { at: 0, to: null })
    expect(layerOf(bare).pieces).toHaveLength(2)
    expect(differ(regionOf(bare), regionOf(before))).toBeLessThan(0.1)
  })

  it('stays where another needs the same card', () => {
    const before = stack('free', plate('bits', 0, [0, 0, 20, 60], [30, 0, 20, 60]))
    const strip = (y1: number, y2: number) => ({ from: { x: 20, y: y1 }, to: { x: 30, y: y2 }, widthMm: 2, cut: false }) // prettier-ignore
    const crossed = drawStrip(drawStrip(before, 'bits', strip(20, 40)), 'bits', strip(40, 20))
    const one = moveTie(crossed, 'bits', { at: 0, to: null })
    expect(layerOf(one).pieces).toHaveLength(1)
    expect(tiesThere(layerOf(one))).toEqual([0])
    const alone = drawStrip(before, 'bits', strip(40, 20))
    expect(differ(regionOf(one), regionOf(alone))).toBeLessThan(0.3)
  })

  it('goes along when its layer is moved, turned, mirrored and grown, and into the file and out', () => {
    const before = discs([8, 10], 5)
    const map = [0, -1.5, -1.5, 0, 40, 90] as const
    const there = transformLayers(bridgeLayer(before, 'bits', 2), [...map])
    expect(layerOf(there).ties[0]!.widthMm).toBeCloseTo(3, 6)
    expect(tiesThere(layerOf(there))).toEqual([0])
    const kept = readProject(writeProject(there))
    const bare = moveTie(kept, 'bits', { at: 0, to: null })
    expect(layerOf(bare).pieces).toHaveLength(2)
    expect(differ(regionOf(bare), regionOf(transformLayers(before, [...map])))).toBeLessThan(0.05)
  })

  it('that adds no card is none, and a document with ties of any text opens with the rest', () => {
    const before = stack('free', plate('bits', 0, [0, 0, 60, 60]))
    const within = drawStrip(before, 'bits', { from: { x: 20, y: 20 }, to: { x: 40, y: 20 }, widthMm: 2, cut: false }) // prettier-ignore
    expect(layerOf(within).ties).toEqual([])
    const tied = bridgeLayer(discs([8, 10], 5), 'bits', 2)
    const [tie] = layerOf(tied).ties
    const texts = ['', 'garbage', 'MNaN 0L1 0L0 1Z', 'M0 0', 'M0 0C1 1 2 2 3 3Z', 7, null]
    const ties = [...texts.map((added) => ({ ...tie, added })), tie, 'no tie', { ...tie, line: [1, 2] }]
    const doc = JSON.parse(writeProject(tied)) as { layers: object[] }
    const read = readProject(JSON.stringify({ ...doc, layers: [{ ...doc.layers[0], ties }] }))
    expect(layerOf(read).ties).toEqual([tie])
    expect(layerOf(read).pieces).toEqual(layerOf(tied).pieces)
    expect(layerOf(moveTie(transformLayers(read, [1, 0, 0, 1, 5, 5]), 'bits', { at: 0, to: null })).pieces).toHaveLength(2) // prettier-ignore
  })

  it('that was cut through is no tie any more, and what does not exist changes nothing', () => {
    const before = stack('free', plate('bits', 0, [0, 0, 20, 60], [30, 0, 20, 60]))
    const tied = drawStrip(before, 'bits', { from: { x: 20, y: 10 }, to: { x: 30, y: 10 }, widthMm: 2, cut: false }) // prettier-ignore
    const parted = drawStrip(tied, 'bits', { from: { x: 25, y: 0 }, to: { x: 25, y: 20 }, widthMm: 1, cut: true }) // prettier-ignore
    expect(tiesThere(layerOf(parted))).toEqual([])
    expect(moveTie(before, 'bits', { at: 0, to: null })).toBe(before)
    expect(moveTie(before, 'nobody', { at: 0, to: null })).toBe(before)
    expect(union(regionOf(before))).toHaveLength(2)
  })
})
