import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { regionArea } from '@feuillet/core/base/geometry'
import { demo } from '@feuillet/core/demo'
import { builtLayers, thicknessOf } from '@feuillet/core/project'
import { results } from '../../../../core/test/results'
import { levelsOf, sideBySide, spread } from './levels'
import { ROW } from './sizes'

describe('the section', () => {
  const project = demo('harbour')

  it('has the planner’s heights, and before they come the layers one on the other', () => {
    const { depth, levels } = results(project)
    const known = levelsOf(project, levels)
    for (const { layerId, bottomMm, topMm } of depth.layers)
      expect(known.get(layerId)).toMatchObject({ bottomMm, topMm })
    // Each height of a layer, with the share of the pieces that lie at it.
    for (const [layerId, { parts }] of known) {
      const own = depth.pieces.filter((piece) => piece.layer.id === layerId)
      const whole = own.reduce((sum, { region }) => sum + regionArea(region), 0)
      for (const { bottomMm, share } of parts) {
        const at = own.filter((piece) => Math.abs(piece.bottomMm - bottomMm) < 0.05)
        const area = at.reduce((sum, { region }) => sum + regionArea(region), 0)
        expect(share).toBeCloseTo(area / whole, 6)
      }
      expect(parts.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 6)
    }
    expect([...known.values()].some(({ parts }) => parts.length > 1)).toBe(true)
    const guessed = levelsOf(project, [])
    const sum = builtLayers(project).reduce(
      (top, layer) =>
        top + thicknessOf(project, layer) + (layer.joint.kind === 'foam' ? layer.joint.gapMm : 0),
      0,
    )
    expect(guessed.get(builtLayers(project).at(-1)!.id)!.topMm).toBeCloseTo(sum, 9)
  })

  it('gives layers that lie at one height a strip each, and others the whole width', () => {
    const lanes = sideBySide([
      { id: 'a', bottomMm: 0, topMm: 1 },
      { id: 'b', bottomMm: 1, topMm: 2 },
      { id: 'c', bottomMm: 1.2, topMm: 1.8 },
      { id: 'd', bottomMm: 3, topMm: 4 },
    ])
    expect([...lanes.values()]).toEqual([
      { at: 0, of: 1 },
      { at: 0, of: 2 },
      { at: 1, of: 2 },
      { at: 0, of: 1 },
    ])
  })

  it('keeps rows apart and within their place, and moves none that has room', () => {
    const place = fc.record({
      rows: fc.array(fc.double({ min: 0, max: 900, noNaN: true }), { minLength: 1, maxLength: 20 }),
      spare: fc.double({ min: 0, max: 400, noNaN: true }),
    })
    fc.assert(
      fc.property(place, ({ rows, spare }) => {
        const wanted = rows.toSorted((a, b) => a - b)
        const most = 10 + (rows.length - 1) * ROW + spare
        const out = spread(wanted, 10, most)
        out.forEach((row, i) => {
          expect(row).toBeLessThanOrEqual(most + 1e-9)
          if (i > 0) expect(row - out[i - 1]!).toBeGreaterThanOrEqual(ROW - 1e-9)
        })
      }),
    )
    expect(spread([50, 120, 300], 10, 600)).toEqual([50, 120, 300])
  })
})
