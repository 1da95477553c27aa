// What is thin is glued to the solid card that carries it before that goes onto the stack.
import { describe, expect, it } from 'vitest'
import { results } from '../../../test/results'
import { card, plate, stack } from '../../../test/stack'
import { rectangle, type Region } from '../../base/geometry'
import { setLayer, type Project } from '../../project'
import { wordsIn } from '../../base/units'
import { waitsFor } from './order'

/** A lattice of strips 2 mm wide within x, y, w, h. */
const lace = ([x, y]: readonly [number, number], w: number, h: number): Region => [
  {
    outer: rectangle([x, y], w, h).outer,
    holes: Array.from({ length: 4 }, (_, k) => {
      const { outer } = rectangle([x + 2 + (k * (w - 2)) / 4, y + 2], (w - 2) / 4 - 2, h - 4)
      return Float64Array.from(
        Array.from({ length: 4 }, (_, i) => [outer[6 - 2 * i]!, outer[7 - 2 * i]!]).flat(),
      )
    }),
  },
]

const work = (...more: Parameters<typeof stack>[1][]): Project =>
  stack(
    'frame',
    plate('sheet', 0, [0, 0, 200, 200]),
    plate('solid', 2, [40, 40, 100, 100]),
    card('lace', 0, lace([50, 50], 60, 60)),
    ...more,
  )
const planOf = (project: Project) => results(project).assembly.steps

describe('thin parts', () => {
  const steps = planOf(work())
  const at = (id: string) => steps.find((step) => step.id === id)!

  it('are glued to what carries them on the bench, which is then laid with them as one', () => {
    expect(at('glue-lace').title).toBe('Lay layer 3 on “solid”')
    expect(at('glue-lace').onBench).toEqual(['solid'])
    expect(at('lay-solid').asOne!.layerIds).toEqual(['solid', 'lace'])
    expect(wordsIn(at('lay-solid').detail, 'mm')).toContain('“solid” as one, its 2 layers')
    for (const before of ['glue-lace', 'hold-lace'])
      expect(waitsFor(steps, 'lay-solid').has(before)).toBe(true)
    expect(waitsFor(steps, 'glue-lace').has('lay-sheet')).toBe(false)
    // It is begun with them: there is no step of its own for that.
    expect(steps.some(({ id }) => id.startsWith('begin-'))).toBe(false)
  })

  it('may be several on one card, and what is laid over them comes after', () => {
    const two = planOf(work(card('veil', 0, lace([60, 60], 40, 40)), plate('top', 2, [60, 60, 20, 20])))
    const lay = two.find(({ id }) => id === 'lay-solid')!
    expect(lay.asOne!.layerIds).toEqual(['solid', 'lace', 'veil'])
    expect(waitsFor(two, 'lay-top').has('lay-solid')).toBe(true)
  })

  it('stay on the stack where they are padded, reach beyond, lie on the backing sheet, or are as solid', () => {
    const onStack = (project: Project) =>
      planOf(project).find(({ id }) => /^(glue|lay)-lace$/.test(id))!.onBench === undefined
    expect(onStack(setLayer(work(), 'lace', { joint: { kind: 'foam', gapMm: 2, pinned: false } }))).toBe(true)
    expect(onStack(setLayer(work(), 'lace', { pieces: card('x', 0, lace([110, 50], 60, 60)).pieces }))).toBe(
      true,
    )
    expect(onStack(setLayer(work(), 'lace', { pieces: plate('x', 0, [50, 50, 60, 60]).pieces }))).toBe(true)
    const alone = stack('frame', plate('sheet', 0, [0, 0, 200, 200]), card('lace', 0, lace([50, 50], 60, 60)))
    expect(onStack(alone)).toBe(true)
  })

  it('change no height', () => {
    const { levels } = results(work())
    expect(levels[2]!.bottomMm).toBeCloseTo(levels[1]!.topMm, 6)
  })
})
