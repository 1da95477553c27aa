import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { regionArea, regionBox } from '../base/geometry'
import { demo } from '../demo'
import { plate, stack } from '../../test/stack'
import { cutLayers } from './guests'
import { layerBox, layerRegion } from './faces'
import { builtLayers } from './lookup'
import { transformLayers } from './edit'
import type { Layer, Project } from './schema'
import { partVariants, variantsOf } from './variants'

/** Layers with the same stack of squares at several places. */
const row = (xs: readonly number[], layers: number): Layer[] =>
  Array.from({ length: layers }, (_, k) =>
    plate(
      `l${k}`,
      k === 0 ? 0 : 2,
      ...xs.map((x): [number, number, number, number] => [x + 3 * k, 10 + 3 * k, 60 - 6 * k, 60 - 6 * k]),
    ),
  )
const areaOf = (project: Project) =>
  builtLayers(project).reduce((sum, layer) => sum + regionArea(layerRegion(layer)), 0)

describe('designs side by side', () => {
  it('are told apart, each with all its layers', () => {
    const found = variantsOf(stack('free', ...row([0, 80, 160], 3)))
    expect(found.map(({ box }) => [box.minX, box.maxX])).toEqual([
      [0, 60],
      [80, 140],
      [160, 220],
    ])
    for (const { pieces } of found) expect([...pieces.keys()].toSorted()).toEqual(['l0', 'l1', 'l2'])
  })

  it('are one where they share a sheet, where they touch, or where there is but one sheet', () => {
    expect(variantsOf(stack('free', plate('back', 0, [-5, 0, 240, 80]), ...row([0, 80], 2)))).toEqual([])
    expect(variantsOf(stack('free', ...row([0, 60.5], 3)))).toEqual([])
    expect(variantsOf(stack('free', plate('letters', 0, [0, 0, 10, 10], [20, 0, 10, 10])))).toEqual([])
    for (const name of ['harbour', 'tide-rose', 'bon-voyage'] as const)
      expect(variantsOf(demo(name))).toEqual([])
  })

  it('take what belongs to none to the nearest', () => {
    const found = variantsOf(stack('free', ...row([0, 100], 2), plate('dot', 2, [88, 20, 4, 4])))
    expect(found).toHaveLength(2)
    expect(found[1]!.pieces.has('dot')).toBe(true)
  })

  it('become projects of their own on shared sheets, with no piece lost and none twice', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 4 }),
        fc.integer({ min: 2, max: 5 }),
        fc.integer({ min: 5, max: 40 }),
        (n, layers, gap) => {
          const xs = Array.from({ length: n }, (_, k) => k * (60 + gap))
          const project = stack('frame', ...row(xs, layers))
          const variants = variantsOf(project)
          expect(variants).toHaveLength(n)
          const ids = variants.slice(1).map((_, k) => `other-${k}`)
          const { host, others } = partVariants(project, variants, ids)
          expect(host.id).toBe(project.id)
          expect(others.map(({ id }) => id)).toEqual(ids)
          const all = [host, ...others]
          expect(all.reduce((sum, one) => sum + areaOf(one), 0)).toBeCloseTo(areaOf(project), 3)
          for (const one of all) {
            expect(builtLayers(one)).toHaveLength(layers)
            // In the middle of the frame's backing sheet.
            const box = layerBox(builtLayers(one)[0]!)
            const { spacer } = one.mount as { spacer: { widthMm: number; heightMm: number } }
            expect((box.minX + box.maxX) / 2).toBeCloseTo(spacer.widthMm / 2, 3)
            expect((box.minY + box.maxY) / 2).toBeCloseTo(spacer.heightMm / 2, 3)
          }
          // All of it is on the host's sheets.
          const cut = cutLayers(host).flatMap(({ layer }) => layer.pieces)
          expect(cut).toHaveLength(n * layers)
        },
      ),
      { numRuns: 15 },
    )
  })

  it('stay one while something is cut', () => {
    const project = transformLayers(stack('free', ...row([0, 80], 2)), [1, 0, 0, 1, 5, 5])
    expect(variantsOf(project)).toHaveLength(2)
    expect(variantsOf({ ...project, cut: [{} as Project['cut'][number]] })).toEqual([])
    expect(regionBox(layerRegion(project.layers[0]!)).minX).toBeCloseTo(5, 6)
  })
})
