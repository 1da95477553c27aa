import { describe, expect, it } from 'vitest'
import { card, plate, stack } from '../../../test/stack'
import { results } from '../../../test/results'
import { intersect, rectangle, regionArea, regionContains, subtract } from '../../base/geometry'
import {
  colourOf,
  layerRegion,
  refreshSupplies,
  starterSupplies,
  tintSchema,
  type Layer,
} from '../../project'
import { colouringOf } from './index'

const tinted = (layer: Layer, tint: object): Layer => ({ ...layer, tint: tintSchema.parse({ inkId: 'ink-sepia', colour: '#7a5537', ...tint }) }) // prettier-ignore

describe('colouring by hand', () => {
  const sheet = plate('sheet', 0, [0, 0, 100, 100])
  const shown = [rectangle([20, 20], 40, 30)]

  it('goes over what shows and a bleed round it, as far as there is card', () => {
    const { wash, edge, dots } = colouringOf(tinted(sheet, { bleedMm: 5 }), shown)!
    // Round corners: 40 × 30, four sides of 5, four quarters of a disc.
    expect(regionArea(wash)).toBeCloseTo(40 * 30 + 2 * 5 * (40 + 30) + Math.PI * 25, 0)
    expect(edge).toEqual([])
    expect(dots.length).toBeGreaterThan(15)
    for (const [x, y] of dots) {
      expect(regionContains([rectangle([20, 20], 40, 30)], x, y)).toBe(false)
      expect(regionContains(layerRegion(sheet), x, y)).toBe(true)
    }
    // At the edge of the sheet there is no card beyond it, and no dot.
    const atEdge = colouringOf(tinted(sheet, { bleedMm: 5 }), [rectangle([0, 0], 100, 30)])!
    expect(regionArea(atEdge.wash)).toBeCloseTo(100 * 35, 0)
    for (const [, y] of atEdge.dots) expect(y).toBeCloseTo(35, 6)
  })

  it('darkens edges of the card, within what is coloured', () => {
    const border = card('border', 0, [
      { outer: rectangle([0, 0], 100, 100).outer, holes: [rectangle([30, 30], 40, 40).outer] },
    ])
    const { edge, wash } = colouringOf(tinted(border, { edgeInkId: 'ink-slate', edgeMm: 3, bleedMm: 2 }), [rectangle([0, 0], 30, 100)])! // prettier-ignore
    expect(regionArea(subtract(edge, wash))).toBeLessThan(0.01)
    expect(regionArea(intersect(edge, [rectangle([4, 4], 20, 90)]))).toBeLessThan(0.01)
    // Left, above and below: 3 mm along the outer edge; 2 mm of bleed along the opening.
    expect(regionArea(intersect(edge, [rectangle([0, 40], 3, 20)]))).toBeCloseTo(60, 1)
    expect(colouringOf(border, shown)).toBeNull()
  })

  it('makes a colour of its own, and a step that dries before anything is stuck', () => {
    const own = tinted(plate('own', 0, [10, 10, 60, 60]), { edgeInkId: 'ink-slate' })
    const project = refreshSupplies(stack('card', sheet, own), starterSupplies())
    expect(colourOf(project, own)).toBe('#7a5537')
    const { steps } = results(project).assembly
    const at = (id: string) => steps.find((step) => step.id === id)!
    const dries = at(`coloured-${own.id}`)
    expect(at(`colour-${own.id}`).title).toBe('Colour “own” with sepia')
    expect(dries).toMatchObject({ needs: [], minutes: 10, after: [`colour-${own.id}`] })
    expect(at('dry-fit').startMin).toBeGreaterThanOrEqual(dries.endMin)
  })
})
