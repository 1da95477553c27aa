import { beforeEach, describe, expect, it, vi } from 'vitest'
import { rectangle } from '@feuillet/core/base/geometry'
import { mendAll, reshapedBy, spoilsSome } from '@feuillet/core/stages'
import { makeLayer } from '@feuillet/core/stages/layers'
import { starterStock } from '@feuillet/core/stages/paper'
import {
  assignPaper,
  cutElsewhereSchema,
  newProject,
  setLayer,
  spoilElsewhere,
  starterMount,
  transformLayers,
  type Project,
} from '@feuillet/core/project'
import { deskWith, mendHere, workersHere } from '../../test/desk'

const { told, said, gone } = vi.hoisted(() => ({
  told: vi.fn<(words: string) => void>(),
  said: vi.fn<(words: string, options?: { action: { onClick: () => void } }) => void>(),
  gone: vi.fn<() => void>(),
}))
vi.mock('../workers', () => workersHere)
vi.mock('sonner', () => ({ toast: Object.assign(said, { error: told, dismiss: gone }) }))

const { change, changeStock, mend } = await import('./edits')
const { becameRole, edited, undone } = await import('./document')
const { selectGoodCuts, selectLayer, selectSnags, selectStages } = await import('./selectors')
const { looked, pickedLayer, resetView } = await import('./view')

/** Three layers with dust beside them. */
const dusty = (): Project => ({
  ...newProject('p', 'Dust', starterMount('frame')),
  layers: ['a', 'b', 'c'].map((id, i) =>
    makeLayer({ id, name: id }, [
      rectangle([40, 40], 80 - 10 * i, 80),
      rectangle([150, 20 * i + 10], 1, 1 + i / 10),
    ]),
  ),
})
let desk: ReturnType<typeof deskWith>
beforeEach(() => {
  desk = deskWith(dusty())
  mendHere.mockClear()
  told.mockClear()
})
const specks = () => selectSnags(desk.store.getState()).filter((snag) => snag.code === 'specks')

describe('an edit that spoils what is cut', () => {
  const wider = (p: Project, layerId: string) => transformLayers(p, [1.1, 0, 0, 1.1, 0, 0], [layerId])
  beforeEach(() => {
    said.mockClear()
    gone.mockClear()
    const [paper] = starterStock()
    const bare = assignPaper(dusty(), ['a', 'b', 'c'], { paper: paper!, stock: starterStock() })
    const pieces = bare.layers
      .slice(0, 2)
      .flatMap(({ id: layerId, pieces }) =>
        pieces.map(({ id: pieceId, path }) => ({ layerId, pieceId, layerName: layerId, path })),
      )
    const cut = cutElsewhereSchema.parse({ projectId: 'h', name: 'Host', sheets: [{ paper, pieces }] })
    desk = deskWith({ ...bare, cutElsewhere: [cut] })
  })

  it('says so, and one press takes it back', () => {
    expect([...selectGoodCuts(desk.store.getState())]).toEqual([
      ['a', 2],
      ['b', 2],
    ])
    desk.store.dispatch(change('move', (p) => transformLayers(p, [0, 1, -1, 0, 30, 0], ['a'])))
    desk.store.dispatch(change('wider', (p) => wider(p, 'c')))
    // What is noted in the books is meant.
    desk.store.dispatch(
      change('lost', (p) => spoilElsewhere(p, { layerId: 'b', pieceId: 'p1', why: 'lost' })!),
    )
    expect(selectGoodCuts(desk.store.getState()).get('b')).toBe(1)
    expect(said).not.toHaveBeenCalled()
    desk.store.dispatch(change('wider', (p) => wider(p, 'a')))
    expect(said.mock.calls.map(([words]) => words)).toEqual(['That spoils 2 pieces that are cut.'])
    said.mock.calls[0]![1]!.action.onClick()
    expect(selectGoodCuts(desk.store.getState()).get('a')).toBe(2)
    expect(desk.store.getState().document.past.map((v) => v.label)).toEqual(['move', 'wider', 'lost'])
  })

  it('is told from one that leaves a layer out, whose cut pieces stay as good as they are', () => {
    const out = (leftOut: boolean) => (p: Project) => setLayer(p, 'a', { leftOut, optional: true })
    desk.store.dispatch(change('without', out(true)))
    desk.store.dispatch(change('with', out(false)))
    expect(said.mock.calls.map(([words]) => words)).toEqual(['That leaves 2 pieces that are cut of no use.'])
    expect(selectGoodCuts(desk.store.getState()).get('a')).toBe(2)
  })

  it('is said once of a gesture, goes with the next edit, and then takes nothing else back', () => {
    for (let k = 0; k < 3; k++) desk.store.dispatch(change('wider', (p) => wider(p, 'a'), 'drag'))
    expect(said).toHaveBeenCalledTimes(1)
    expect(gone).not.toHaveBeenCalled()
    desk.store.dispatch(change('copies', (p) => setLayer(p, 'c', { copies: 7 })))
    expect(gone).toHaveBeenCalledTimes(1)
    said.mock.calls[0]![1]!.action.onClick()
    expect(desk.project().layers[2]!.copies).toBe(7)
    expect(said.mock.calls.at(-1)![0]).toMatch(/step by step/)
  })

  it('is another paper too, and is told before by the mend of a snag', () => {
    const [, other] = starterStock()
    desk.store.dispatch(
      change('paper', (p) => assignPaper(p, ['b'], { paper: other!, stock: starterStock() })),
    )
    expect(said.mock.calls[0]![0]).toBe('That spoils 2 pieces that are cut.')
    const [snag] = specks()
    expect(reshapedBy(desk.project(), snag!.mend!.action)).toEqual(['a'])
    expect(reshapedBy(desk.project(), { kind: 'fit-design' })).toEqual(['a', 'b', 'c'])
    expect(reshapedBy(desk.project(), { kind: 'fit-gaps' })).toEqual([])
    // Specks are some of the pieces; another size is of all.
    expect([snag!.mend!.action, { kind: 'fit-design' } as const].map(spoilsSome)).toEqual([true, false])
  })
})

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
    expect(mendHere).toHaveBeenCalledTimes(1)
  })

  it('are computed again where something was done meanwhile, and both are there', async () => {
    const waiting = desk.store.dispatch(mend(...specks()))
    desk.store.dispatch(change('copies', (p) => setLayer(p, 'a', { copies: 7 })))
    await waiting
    expect(mendHere).toHaveBeenCalledTimes(2)
    expect(desk.project().layers[0]).toMatchObject({ copies: 7 })
    expect(desk.project().layers[0]!.pieces).toHaveLength(1)
    expect(desk.store.getState().document.past.map((v) => v.label)).toEqual(['copies', 'mend 3 snags'])
  })

  it('are given up with a word where the project never stands still', async () => {
    let copies = 10
    const really = mendHere.getMockImplementation()!
    mendHere.mockImplementation((...args) => {
      desk.store.dispatch(change('copies', (p) => setLayer(p, 'a', { copies: ++copies })))
      return really(...args)
    })
    await desk.store.dispatch(mend(...specks()))
    mendHere.mockImplementation(really)
    expect(desk.project().layers[0]!.pieces).toHaveLength(2)
    expect(told).toHaveBeenCalledWith(expect.stringContaining('changed again and again'))
  })

  it('keep what they do not touch as it is, so that history stays light', async () => {
    mendHere.mockImplementationOnce((...args) => Promise.resolve(structuredClone(mendAll(...args))))
    const before = desk.project()
    await desk.store.dispatch(mend(specks()[0]!))
    const after = desk.project()
    expect(after.layers[0]!.pieces).toHaveLength(1)
    expect(after.layers[1]).toBe(before.layers[1])
    expect(after.drawer).toBe(before.drawer)
  })
})

describe('changes', () => {
  it('that change nothing are no step', () => {
    desk.store.dispatch(change('nothing', (p) => p))
    expect(desk.store.getState().document.past).toEqual([])
  })

  it('of one gesture are one step, which goes back to before its first', () => {
    const start = desk.project()
    for (const copies of [2, 3, 4])
      desk.store.dispatch(change('copies', (p) => setLayer(p, 'a', { copies }), 'slide of a'))
    desk.store.dispatch(change('copies', (p) => setLayer(p, 'a', { copies: 9 }), 'another slide'))
    expect(desk.store.getState().document.past).toHaveLength(2)
    desk.store.dispatch(undone())
    expect(desk.project().layers[0]!.copies).toBe(4)
    desk.store.dispatch(undone())
    expect(desk.project()).toBe(start)
  })

  it('are not made in a page that only follows, and it says so', () => {
    const before = desk.project()
    desk.store.dispatch(becameRole('following'))
    desk.store.dispatch(change('copies', (p) => setLayer(p, 'a', { copies: 3 })))
    desk.store.dispatch(edited({ label: 'any', project: setLayer(before, 'a', { copies: 4 }) }))
    expect(desk.project()).toBe(before)
    expect(told).toHaveBeenCalledWith(expect.stringContaining('Another tab'), expect.anything())
  })

  it('of the drawer reach the project’s copies in the same step', () => {
    const [paper] = desk.store.getState().document.stock
    desk.store.dispatch(
      changeStock('price', (stock) => stock.map((p) => (p.id === paper!.id ? { ...p, price: 9 } : p)), {
        refresh: (project, stock) => ({
          ...project,
          drawer: { ...project.drawer, papers: stock.slice(0, 1) },
        }),
      }),
    )
    const work = desk.store.getState().document
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
