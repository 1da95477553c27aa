// Rosettes and mandalas: sizes, turns, strips, folds, repeats.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { stack } from '../../../../test/stack'
import {
  boxHeight,
  boxWidth,
  ellipse,
  intersect,
  mapRegion,
  offset,
  pathToRegion,
  rectangle,
  regionArea,
  regionBox,
  regionContains,
  regionToPath,
  rotation,
  subtract,
  translation,
  union,
} from '../../../base/geometry'
import {
  layerBox,
  layerRegion,
  mandalaRecipeSchema,
  rosetteRecipeSchema,
  transformLayers,
} from '../../../project'
import { depthPlan } from '../../depth'
import { makeLayers, rolledDiameter, stripLength } from './index'

describe('rosette and mandala', () => {
  it('a rolled centre comes out as wide as the strip was cut for', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 4, max: 40, noNaN: true }),
        fc.double({ min: 0.1, max: 0.6, noNaN: true }),
        (d, t) => void expect(rolledDiameter(stripLength(d, t), t)).toBeCloseTo(d, 6),
      ),
    )
    expect(stripLength(1, 0.3)).toBe(0)
  })

  it('wants a centre that goes once round its tool, or none', () => {
    const centre = (centreMm: number) =>
      makeLayers(rosetteRecipeSchema.parse({ kind: 'rosette', centreMm, leaves: 0 })).layers.filter(
        ({ name }) => name === 'Centre',
      )
    expect(() => centre(1)).toThrow('a roll of 1 mm is less than one turn round the 2 mm tool')
    expect(centre(0)).toEqual([])
    expect(centre(5)).toHaveLength(1)
  })

  it('the strip of a centre is a spiral from the tool outwards; folded it is half as long', () => {
    for (const [centreMm, paperMm, strip] of [
      [14, 0.24, 'folded'],
      [14, 0.24, 'single'],
      [24, 0.29, 'folded'],
    ] as const) {
      const made = makeLayers(
        rosetteRecipeSchema.parse({ kind: 'rosette', centreMm, paperMm, strip, leaves: 0 }),
      )
      const centre = made.layers.at(-1)!
      // Turn by turn: each adds the card, twice where it is folded, and its air.
      const pitch = paperMm * (strip === 'folded' ? 2 : 1) * 1.15
      const steps = 20_000
      const turns = (centreMm / 2 - 1) / pitch
      let along = 0
      for (let k = 0; k < steps; k++) {
        const r = 1 + (pitch * turns * (k + 0.5)) / steps
        along += Math.hypot(r * 2 * Math.PI, pitch) * (turns / steps)
      }
      const cut = centre.blanks.reduce((sum, blank) => sum + boxWidth(regionBox(pathToRegion(blank.path))), 0)
      expect(Math.abs(cut / along - 1)).toBeLessThan(0.01)
      expect(boxHeight(regionBox(pathToRegion(centre.blanks[0]!.path)))).toBeCloseTo(
        strip === 'folded' ? 24 : 12,
        6,
      )
      // No part is longer than a sheet holds, and every slit lies on the strip.
      for (const blank of centre.blanks)
        expect(boxWidth(regionBox(pathToRegion(blank.path)))).toBeLessThanOrEqual(280)
      const strips = centre.blanks.flatMap((blank) => pathToRegion(blank.path))
      for (const [x1, y1, x2, y2] of centre.slits)
        for (const t of [0.05, 0.5, 0.95])
          expect(regionContains(strips, x1! + (x2! - x1!) * t, y1! + (y2! - y1!) * t)).toBe(true)
    }
  })

  it('refuses slits that are closer than a strip can bear', () =>
    expect(() => makeLayers(rosetteRecipeSchema.parse({ kind: 'rosette', slitMm: 0.05 }))).toThrow(
      /set them wider/,
    ))

  it('sizes may fall by equal steps, and petals are curled in proportion', () => {
    const made = makeLayers(
      rosetteRecipeSchema.parse({ kind: 'rosette', diameterMm: 100, sizes: 3, fall: 'step', stepMm: 12, curlMm: 10, leaves: 0, centreMm: 0 }), // prettier-ignore
    )
    const across = made.layers.map((layer) => Math.max(boxWidth(layerBox(layer)), boxHeight(layerBox(layer))))
    ;[100, 100, 88, 88, 76, 76].forEach((mm, k) => expect(Math.abs(across[k]! / mm - 1)).toBeLessThan(0.06))
    expect(made.layers.map(({ shaping }) => Math.round(shaping.riseMm * 10) / 10)).toEqual([
      10, 10, 8.8, 8.8, 7.6, 7.6,
    ])
    expect(made.layers.every(({ joint }) => joint.kind === 'glue')).toBe(true)
  })

  it('rings fall in size, two of each, turned half a petal against the last', () => {
    const { layers } = makeLayers(
      rosetteRecipeSchema.parse({ kind: 'rosette', petals: 6, sizes: 3, leaves: 0, centreMm: 0 }),
    )
    expect(layers).toHaveLength(6)
    const rings = layers.map(layerRegion)
    expect(regionArea(rings[0]!)).toBeCloseTo(regionArea(rings[1]!), 0)
    expect(regionArea(rings[2]!) / regionArea(rings[0]!)).toBeCloseTo(0.64, 2)
    const about = (deg: number) =>
      mapRegion(translation(40, 40), mapRegion(rotation(deg), mapRegion(translation(-40, -40), rings[0]!)))
    expect(regionArea(subtract(about(30), rings[1]!)) / regionArea(rings[1]!)).toBeLessThan(0.001)
    expect(() =>
      makeLayers(rosetteRecipeSchema.parse({ kind: 'rosette', diameterMm: 20, sizes: 8, ratio: 0.6 })),
    ).toThrow(/too small to handle/)
  })

  it('rests on the ends of its leaves, which lie flat under it, whatever they do beyond', () => {
    for (const petal of ['round', 'heart'] as const)
      for (const curlMm of [0, 6])
        for (const leaf of ['folded', 'cupped'] as const)
          for (const leaves of [1, 4]) {
            const recipe = rosetteRecipeSchema.parse({ kind: 'rosette', petal, curlMm, leaf, leaves })
            const plan = depthPlan(stack('free', ...makeLayers(recipe).layers))
            expect(plan.layers.flatMap(({ floating }) => floating)).toEqual([])
            expect(plan.pieces.find(({ layer }) => layer.id === 'ring-1')!.bottomMm).toBeCloseTo(0.29, 6)
            expect(plan.layers[0]!.topMm).toBeGreaterThan(1)
          }
  })

  it('leaves bear a fold along their middle, which moves with them', () => {
    const made = makeLayers(rosetteRecipeSchema.parse({ kind: 'rosette', leaves: 3 }))
    const leaves = made.layers[0]!
    expect(leaves.folds).toHaveLength(3)
    const card = layerRegion(leaves)
    for (const {
      line: [x1, y1, x2, y2],
    } of leaves.folds)
      for (const t of [0.1, 0.5, 0.9])
        expect(regionContains(card, x1 + (x2 - x1) * t, y1 + (y2 - y1) * t)).toBe(true)
    const moved = transformLayers(stack('frame', leaves), [2, 0, 0, 2, 5, 7]).layers[0]!
    const [x1, y1] = leaves.folds[0]!.line
    expect(moved.folds[0]!.line.slice(0, 2)).toEqual([x1 * 2 + 5, y1 * 2 + 7])
  })

  it('a petal may come from a file', () => {
    const shape = regionToPath(union([ellipse([0, 0], 10)], [rectangle([-20, -3], 40, 6)]))
    const { layers } = makeLayers(
      rosetteRecipeSchema.parse({ kind: 'rosette', shape, diameterMm: 60, leaves: 0 }),
    )
    expect(
      Math.max(boxWidth(regionBox(layerRegion(layers[0]!))), boxHeight(regionBox(layerRegion(layers[0]!)))),
    ).toBeCloseTo(60, 1)
  })

  it('mandalas repeat by their seed, hang together and keep their narrowest strip', () => {
    for (const [seed, fold] of [
      [1, 12],
      [7, 8],
      [42, 16],
      [99, 5],
    ] as const) {
      const recipe = mandalaRecipeSchema.parse({ kind: 'mandala', seed, fold })
      const made = makeLayers(recipe)
      expect(makeLayers(recipe)).toEqual(made)
      for (const layer of made.layers) {
        const card = layerRegion(layer)
        expect(card).toHaveLength(1)
        expect(offset(card, -0.7)).toHaveLength(1)
        const turned = mapRegion(
          translation(60, 60),
          mapRegion(rotation(360 / fold), mapRegion(translation(-60, -60), card)),
        )
        expect(regionArea(intersect(turned, card)) / regionArea(card)).toBeGreaterThan(0.995)
      }
      const openings = made.layers.map((l) => layerRegion(l)[0]!.holes.length)
      expect(openings[0]).toBe(0)
      expect(openings.at(-1)).toBeGreaterThan(openings[1]!)
    }
    expect(() =>
      makeLayers(mandalaRecipeSchema.parse({ kind: 'mandala', fold: 24, diameterMm: 20 })),
    ).toThrow(/fewer repeats/)
  })
})
