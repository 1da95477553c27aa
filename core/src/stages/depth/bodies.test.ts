// Parts that are built on the bench, against heights worked out by hand.
import { describe, expect, it } from 'vitest'
import { results } from '../../../test/results'
import { card, plate, stack } from '../../../test/stack'
import { rectangle } from '../../base/geometry'
import { assemble, layersInOrder, setAssembly, setLayer, unitsOfStack, type Project } from '../../project'
import { mendProject } from '../mend'
import { depthPlan } from './depth'

const CARD = 0.29
const sheet = plate('sheet', 0, [0, 0, 100, 100])
/** A card of 20 × 20 mm, and a wider one over it. */
const base = plate('base', 2, [10, 10, 20, 20])
const over = plate('over', 1, [10, 10, 70, 20])

const asPart = (project: Project, ...ids: string[]) => assemble(project, ids, { id: 'part', name: 'Part' })
const bottoms = (project: Project, id: string): number[] =>
  depthPlan(project)
    .pieces.filter(({ layer }) => layer.id === id)
    .map(({ bottomMm }) => bottomMm)
const codes = (project: Project) => results(project).snags.map(({ code }) => code)

describe('a part that is built apart', () => {
  const alone = asPart(stack('free', sheet, base, over), 'base', 'over')
  // On the sheet to the right, 4 mm up, where the wide card reaches.
  const beside = asPart(stack('free', sheet, plate('side', 4, [60, 10, 20, 20]), base, over), 'base', 'over')

  it('lies on what is beneath by the joint of its hindmost layer', () => {
    expect(bottoms(alone, 'base')).toEqual([expect.closeTo(CARD + 2, 6)])
    expect(bottoms(alone, 'over')).toEqual([expect.closeTo(2 * CARD + 3, 6)])
    expect(depthPlan(alone).apart).toEqual(['part'])
  })

  it('is stiff: where an upper layer meets what is there all of it is lifted', () => {
    // Layer on layer the wide card would lie 1 mm over the side one, whose upper side is at two cards and 4 mm.
    const inPlace = setAssembly(beside, 'part', { apart: false })
    expect(bottoms(inPlace, 'over')).toEqual([expect.closeTo(2 * CARD + 5, 6)])
    expect(bottoms(inPlace, 'base')).toEqual([expect.closeTo(CARD + 2, 6)])
    // As one it comes to lie on it, and its own layers stay a card and 1 mm apart.
    expect(bottoms(beside, 'over')).toEqual([expect.closeTo(2 * CARD + 4, 6)])
    expect(bottoms(beside, 'base')).toEqual([expect.closeTo(CARD + 3, 6)])
  })

  it('has its own pads on its own card alone', () => {
    const { pads } = depthPlan(beside)
    const own = pads.filter(({ layerId }) => layerId === 'over')
    expect(own.length).toBeGreaterThan(0)
    for (const { x, thicknessMm } of own) {
      expect(x).toBeLessThan(30)
      expect(thicknessMm).toBe(1)
    }
    // Under its hindmost layer 3 mm are left open.
    expect(pads.filter(({ layerId }) => layerId === 'base').map((pad) => pad.thicknessMm)).toContain(3)
  })

  it('lies level over ground that is not, on pads of matching heights', () => {
    const two = card('two', 2, [rectangle([0, 0], 20, 20), rectangle([40, 0], 20, 20)])
    const on = stack('free', sheet, plate('low', 2, [0, 0, 20, 20]), two, plate('tie', 1, [0, 0, 60, 20]))
    const part = asPart(on, 'two', 'tie')
    // Over the low card 2 mm, beside it a card and 2 mm more.
    expect(bottoms(part, 'two')).toEqual([expect.closeTo(2 * CARD + 4, 6), expect.closeTo(2 * CARD + 4, 6)])
    expect(bottoms(setAssembly(part, 'part', { apart: false }), 'two')).toEqual([
      expect.closeTo(2 * CARD + 4, 6),
      expect.closeTo(CARD + 2, 6),
    ])
  })

  it('comes down as a whole where its hindmost layer goes on with glue', () => {
    const narrow = asPart(stack('free', sheet, plate('base', 2, [10, 10, 60, 3]), over), 'base', 'over')
    const { layers } = depthPlan(narrow)
    expect(layers.find(({ layerId }) => layerId === 'base')!.glued).toHaveLength(1)
    expect(bottoms(narrow, 'base')).toEqual([expect.closeTo(CARD, 6)])
    // The wide card finds no pad on a strip of 3 mm either.
    expect(bottoms(narrow, 'over')).toEqual([expect.closeTo(2 * CARD, 6)])
  })

  it('may hold parts of its own', () => {
    const top = plate('top', 1, [10, 10, 10, 10])
    const inner = assemble(stack('free', sheet, base, over, top), ['over', 'top'], { id: 'in', name: 'In' })
    const outer = assemble(inner, ['base', 'over'], { id: 'out', name: 'Out' })
    expect(depthPlan(outer).apart).toEqual(['out', 'in'])
    expect(bottoms(outer, 'top')).toEqual([expect.closeTo(3 * CARD + 4, 6)])
  })

  it('gives the same by node as in one go', () => {
    for (const project of [alone, beside]) {
      const whole = depthPlan(project)
      const { depth, levels } = results(project)
      expect(depth.apart).toEqual(whole.apart)
      expect(depth.stackMm).toBe(whole.stackMm)
      expect(depth.pads.length).toBe(whole.pads.length)
      expect(levels.map(({ bottomMm }) => bottomMm)).toEqual(whole.layers.map(({ bottomMm }) => bottomMm))
    }
  })
})

describe('a part that cannot be built apart', () => {
  it('has pieces that nothing of it holds', () => {
    const two = card('two', 2, [rectangle([0, 0], 20, 20), rectangle([60, 0], 20, 20)])
    const loose = asPart(stack('free', sheet, two, plate('tie', 1, [0, 0, 20, 20])), 'two', 'tie')
    expect(depthPlan(loose).apart).toEqual([])
    expect(bottoms(loose, 'two')).toEqual([expect.closeTo(CARD + 2, 6), expect.closeTo(CARD + 2, 6)])
    const astray = asPart(stack('free', sheet, base, plate('far', 1, [60, 60, 20, 20])), 'base', 'far')
    expect(depthPlan(astray).apart).toEqual([])
  })

  it('has something between its layers', () => {
    const between = stack('free', sheet, base, plate('mid', 1, [15, 10, 50, 20]), over)
    const part = asPart(between, 'base', 'over')
    expect(unitsOfStack(part).map(({ layers }) => layers.map(({ id }) => id))).toEqual([
      ['sheet'],
      ['base'],
      ['mid'],
      ['over'],
    ])
  })

  it('is the sheet that carries all the others, or hangs in the frame', () => {
    expect(depthPlan(asPart(stack('free', sheet, base, over), 'sheet', 'base')).apart).toEqual([])
    const hung = setLayer(asPart(stack('frame', sheet, base, over), 'base', 'over'), 'over', {
      joint: { kind: 'tab', gapMm: 5, pinned: false },
    })
    expect(depthPlan(hung).apart).toEqual([])
  })
})

describe('what lies between the layers of a part in the list', () => {
  const far = plate('far', 1, [60, 60, 20, 20])
  it('comes before it where it lies under it, behind it where it lies on it', () => {
    const on = asPart(stack('free', sheet, base, plate('on', 1, [12, 12, 4, 4]), plate('over', 1, [18, 10, 8, 8])), 'base', 'over') // prettier-ignore
    expect(layersInOrder(on).map(({ id }) => id)).toEqual(['sheet', 'base', 'over', 'on'])
    const under = asPart(stack('free', sheet, base, plate('side', 1, [60, 10, 20, 20]), over), 'base', 'over')
    expect(layersInOrder(under).map(({ id }) => id)).toEqual(['sheet', 'side', 'base', 'over'])
    const neither = asPart(stack('free', sheet, base, far, over), 'base', 'over')
    expect(depthPlan(neither).apart).toEqual(['part'])
    expect(bottoms(neither, 'over')).toEqual(
      bottoms(asPart(stack('free', sheet, base, over), 'base', 'over'), 'over'),
    )
  })

  it('where it reaches past its own card flaps, and is offered to be built in its place', () => {
    const part = asPart(stack('free', sheet, base, over), 'base', 'over')
    const flaps = results(part).snags.find(({ code }) => code === 'flaps')!
    expect(flaps.mend!.label).toBe('Build “Part” in its place')
    expect(codes(mendProject(part, flaps.mend!.action, []))).not.toContain('flaps')
  })
})
