// Parts that are built on the bench, in the steps.
import { describe, expect, it } from 'vitest'
import { results } from '../../../test/results'
import { plate, stack } from '../../../test/stack'
import { wordsIn } from '../../base/units'
import { assemble, setAssembly, setLayer, setPlan, type Project } from '../../project'
import { demo } from '../../demo'
import { rescueFor } from './mishap'
import { waitsFor } from './order'

/** A sheet with a bloom of three layers on foam and a leaf of glue beside it. */
function wreath(): Project {
  const project = stack(
    'frame',
    plate('sheet', 0, [0, 0, 200, 200]),
    plate('petals', 2, [20, 20, 60, 60]),
    plate('ring', 0, [30, 30, 40, 40]),
    plate('eye', 2, [40, 40, 20, 20]),
    plate('leaf', 0, [120, 20, 40, 40]),
  )
  return assemble(project, ['petals', 'ring', 'eye'], { id: 'bloom', name: 'Bloom' })
}

/** A flag of a garland with a letter on it, and one more. */
const garland = () =>
  stack(
    'garland',
    plate('other', 0, [80, 0, 40, 40]),
    plate('flag', 0, [0, 0, 40, 40]),
    plate('letter', 0, [10, 10, 20, 20]),
  )

const planOf = (project: Project) => results(project).assembly
const idsOf = (project: Project) => planOf(project).steps.map(({ id }) => id)

describe('a part that is built on the bench', () => {
  const { steps } = planOf(wreath())
  const at = (id: string) => steps.find((step) => step.id === id)!
  const waits = (id: string, before: string) => waitsFor(steps, id).has(before)

  it('is begun, built, left to hold, and then laid as one by the joint of its hindmost layer', () => {
    expect(at('begin-bloom').title).toBe('Begin “Bloom” with layer 2')
    expect(at('glue-ring').title).toBe('Lay layer 3 on “Bloom”')
    expect(at('lay-petals').title).toBe('Lay “Bloom” on the stack')
    expect(wordsIn(at('lay-petals').detail, 'mm')).toContain('its 3 layers stuck to each other')
    expect(waits('glue-ring', 'begin-bloom')).toBe(true)
    expect(waits('lay-eye', 'glue-ring')).toBe(true)
    // Pads come under it once it is built, and it is not taken up before its glue holds.
    for (const before of ['lay-eye', 'hold-ring']) {
      expect(waits('pad-petals', before)).toBe(true)
      expect(waits('lay-petals', before)).toBe(true)
    }
  })

  it('dries while the stack goes on, and what lies beside it does not wait for its glue', () => {
    expect(waits('begin-bloom', 'lay-sheet')).toBe(false)
    expect(waits('lay-sheet', 'begin-bloom')).toBe(false)
    const first = idsOf(setPlan(wreath(), { glueWait: 'each' }))
    expect(first).toContain('hold-leaf')
    // Nor for the part itself: it lies on the sheet.
    expect(waits('glue-leaf', 'lay-petals')).toBe(false)
    expect(waits('glue-leaf', 'lay-sheet')).toBe(true)
  })

  it('shows what lies on the bench, and all of itself when it is laid', () => {
    expect(at('begin-bloom').onBench).toEqual([])
    expect(at('lay-eye').onBench).toEqual(['petals', 'ring'])
    expect(at('lay-petals')).toMatchObject({
      asOne: { partId: 'bloom', layerIds: ['petals', 'ring', 'eye'] },
    })
    expect(at('lay-petals').onBench).toBeUndefined()
  })

  it('is built layer by layer where the maker wants it so, or where it cannot be', () => {
    const inPlace = idsOf(setAssembly(wreath(), 'bloom', { apart: false }))
    expect(inPlace).not.toContain('begin-bloom')
    const apart = setLayer(wreath(), 'eye', {
      pieces: [{ id: 'p', path: 'M100 150L120 150L120 170L100 170Z' }],
    })
    expect(idsOf(apart)).not.toContain('begin-bloom')
    for (const id of ['lay-petals', 'lay-eye', 'glue-leaf']) expect(idsOf(apart)).toContain(id)
  })

  it('lays every layer once, whichever way it is built', () => {
    for (const direction of ['face-up', 'face-down'] as const)
      for (const project of [wreath(), setAssembly(wreath(), 'bloom', { apart: false })]) {
        const laid = planOf(setPlan(project, { direction })).steps.filter(
          ({ id, kind }) => (kind === 'lay' || kind === 'glue') && !id.startsWith('begin-'),
        )
        expect(laid.map(({ layerId }) => layerId).toSorted()).toEqual([
          'eye',
          'leaf',
          'petals',
          'ring',
          'sheet',
        ])
      }
  })

  it('holds parts that are built before it is', () => {
    const inner = assemble(wreath(), [], { id: 'none', name: 'None' })
    const deep: Project = {
      ...inner,
      assemblies: [...inner.assemblies, { id: 'heart', name: 'Heart', parentId: 'bloom', apart: true }],
      layers: inner.layers.map((layer) =>
        layer.id === 'ring' || layer.id === 'eye' ? { ...layer, assemblyId: 'heart' } : layer,
      ),
    }
    const plan = planOf(deep)
    const step = (id: string) => plan.steps.find((one) => one.id === id)!
    expect(step('begin-heart').title).toBe('Begin “Heart” with layer 3')
    expect(step('lay-eye').title).toBe('Lay layer 4 on “Heart”')
    expect(step('glue-ring').title).toBe('Lay “Heart” on “Bloom”')
    expect(waitsFor(plan.steps, 'glue-ring').has('lay-eye')).toBe(true)
  })
})

describe('what hangs, or is pressed on, and not stuck to what is beneath', () => {
  it('is no part of its own to build: everything on it is still laid', () => {
    const flag = setLayer(garland(), 'flag', { joint: { kind: 'none', gapMm: 0, pinned: false } })
    const ids = idsOf(assemble(flag, ['flag', 'letter'], { id: 'p', name: 'P' }))
    expect(ids).toContain('glue-letter')
    expect(ids).not.toContain('begin-p')
    const film = setLayer(garland(), 'flag', { joint: { kind: 'heat', gapMm: 0, pinned: true } })
    expect(idsOf(assemble(film, ['flag', 'letter'], { id: 'p', name: 'P' }))).toContain('glue-letter')
  })

  it('is built the same whichever way up a stack would be', () => {
    const down = setPlan(garland(), { direction: 'face-down' })
    expect(idsOf(down)).toEqual(idsOf(garland()))
    expect(idsOf(down)).toContain('glue-letter')
  })
})

describe('a mishap with a part', () => {
  it('has its upper layer taken off where it lies, and its hindmost only with all of it', () => {
    const project = wreath()
    const { steps } = planOf(project)
    const done = { ...project, progress: { ...project.progress, done: steps.map(({ id }) => id) } }
    const undoes = (id: string) =>
      rescueFor(done, steps, { step: steps.find((step) => step.id === id)!, mishap: 'torn' }).undo.map(
        (step) => step.id,
      )
    expect(undoes('lay-eye')).toContain('lay-eye')
    expect(undoes('lay-eye')).not.toContain('lay-petals')
    expect(undoes('lay-petals')).toEqual(expect.arrayContaining(['lay-petals', 'glue-ring', 'lay-eye']))
  })
})

describe('the window of Kittiwake', () => {
  it('is built on the bench, in the order of its layers', () => {
    const steps = planOf(demo('kittiwake')).steps
    const own = steps.filter(({ onBench }) => onBench).map(({ id }) => id)
    expect(own[0]).toBe('begin-window')
    expect(own.indexOf('glue-window-pane')).toBeLessThan(own.indexOf('glue-window-ring'))
    expect(steps.find(({ asOne }) => asOne)!.asOne!.layerIds).toHaveLength(3)
  })
})
