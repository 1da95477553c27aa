import { beforeEach, describe, expect, it, vi } from 'vitest'
import { rectangle } from '@feuillet/core/base/geometry'
import { makeLayer } from '@feuillet/core/stages/layers'
import { newProject, setLayer, starterMount, type Project } from '@feuillet/core/project'
import { computeHere, deskWith } from '../../test/desk'

vi.mock('../workers/compute', () => ({ compute: computeHere }))

const { change, changeStock, mend } = await import('./edits')
const { undone } = await import('./document')
const { selectLayer, selectStages } = await import('./selectors')
const { looked, pickedLayer, resetView } = await import('./view')

/** Three layers with dust beside them. */
const dusty = (): Project => ({
  ...newProject('p', 'Dust', starterMount('frame')),
  layers: ['a', 'b', 'c'].map((id, i) =>
    makeLayer(id, id, [rectangle(40, 40, 80 - 10 * i, 80), rectangle(150, 20 * i + 10, 1, 1)]),
  ),
})
let desk: ReturnType<typeof deskWith>
beforeEach(() => {
  desk = deskWith(dusty())
  computeHere.mend.mockClear()
})
const specks = () => desk.derived().snags.filter((snag) => snag.code === 'specks')

describe('mends', () => {
  it('of several snags are one step of the history', async () => {
    expect(specks()).toHaveLength(3)
    await desk.store.dispatch(mend(...specks()))
    desk.again()
    expect(specks()).toEqual([])
    expect(desk.store.getState().document.past.map((v) => v.label)).toEqual(['mend 3 snags'])
    desk.store.dispatch(undone())
    desk.again()
    expect(specks()).toHaveLength(3)
  })

  it('of one bear its label; snags without a mend change nothing', async () => {
    await desk.store.dispatch(mend(specks()[0]!))
    expect(desk.store.getState().document.past.map((v) => v.label)).toEqual(['Drop them'])
    await desk.store.dispatch(mend({ ...specks()[0]!, mend: undefined }))
    expect(computeHere.mend).toHaveBeenCalledTimes(1)
  })

  it('do not undo what was done while they were computed', async () => {
    const waiting = desk.store.dispatch(mend(...specks()))
    desk.store.dispatch(change('copies', (p) => setLayer(p, 'a', { copies: 7 })))
    await waiting
    expect(desk.project().layers[0]).toMatchObject({ copies: 7 })
    expect(desk.project().layers[0]!.pieces).toHaveLength(2)
  })
})

describe('changes', () => {
  it('that change nothing are no step', () => {
    desk.store.dispatch(change('nothing', (p) => p))
    expect(desk.store.getState().document.past).toEqual([])
  })

  it('of the drawer reach the project’s copies in the same step', () => {
    const [paper] = desk.store.getState().document.stock
    desk.store.dispatch(
      changeStock(
        'price',
        (stock) => stock.map((p) => (p.id === paper!.id ? { ...p, price: 9 } : p)),
        (project, stock) => ({ ...project, drawer: { ...project.drawer, papers: stock.slice(0, 1) } }),
      ),
    )
    const { work } = desk.store.getState()
    expect([work.stock[0]!.price, work.project!.drawer.papers[0]!.price, work.past.length]).toEqual([9, 9, 1])
  })
})

describe('what screens read', () => {
  it('is the picked layer, else the frontmost', () => {
    expect(selectLayer(desk.store.getState())!.id).toBe('c')
    desk.store.dispatch(looked({ at: [1, 2], only: true }))
    desk.store.dispatch(pickedLayer('b'))
    expect(selectLayer(desk.store.getState())!.id).toBe('b')
    expect(desk.store.getState().view).toMatchObject({ at: null, only: true })
    desk.store.dispatch(resetView())
    expect(desk.store.getState().view.only).toBe(false)
  })

  it('is how each stage stands, with its snags counted', () => {
    const states = () =>
      Object.fromEntries(selectStages(desk.store.getState()).map(({ stage, ...rest }) => [stage, rest]))
    expect(states()['paper']).toMatchObject({ state: 'untouched', stops: 0 })
    expect(states()['layers']).toMatchObject({ state: 'under way', stops: 0 })
    const [paper] = desk.store.getState().document.stock
    desk.store.dispatch(
      change('paper', (p) => ({
        ...setLayer(p, 'a', { paperId: paper!.id }),
        drawer: { ...p.drawer, papers: [paper!] },
      })),
    )
    desk.again()
    expect(states()['paper']).toMatchObject({ state: 'under way' })
    desk.store.dispatch(change('all', (p) => ({ ...p, layers: [] })))
    desk.again()
    expect(Object.values(states()).map((s) => s.state)).toEqual([
      'in order',
      'untouched',
      'untouched',
      'untouched',
      'untouched',
      'untouched',
      'untouched',
    ])
  })
})
