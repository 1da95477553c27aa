import { beforeEach, describe, expect, it, vi } from 'vitest'
import {
  assignPaper,
  outdatedCuts,
  setLayer,
  setPlan,
  starterSupplies,
  tickStep,
  transformLayers,
  untickAll,
} from '@feuillet/core/project'
import { demo } from '@feuillet/core/demo'
import { nodes } from '@feuillet/core/stages'
import { starterStock } from '@feuillet/core/stages/paper'
import { laidKey, loadTag, type LoadView } from '@feuillet/core/stages/sheets'
import { deskWith, memoryStore, planHere, workersHere } from '../../test/desk'

const layouts = memoryStore()
vi.mock('../workers', () => workersHere)
vi.mock('../plan', () => planHere)
vi.mock('../session/layouts', () => ({ keepLayouts: layouts.setItem }))
const told = vi.hoisted(() => vi.fn())
vi.mock('sonner', () => ({ toast: Object.assign(told, { error: vi.fn(), dismiss: vi.fn() }) }))

const { noteCut, takeBack } = await import('./note-cut')
const { change } = await import('./edits')
const { opened, undone } = await import('./document')
const { runIdOf, savedLoads } = await import('../session/loads-out')

let desk: ReturnType<typeof deskWith>
beforeEach(() => {
  desk = deskWith(demo('harbour'))
})
const loadsNow = () => desk.viewOf<unknown, LoadView[]>(nodes.loads())
const stock = () => desk.store.getState().document.stock
const countOf = (id: string) => stock().find((paper) => paper.id === id)!.count
const keysOf = (loads: readonly LoadView[]) =>
  loads.flatMap(({ pieces }) => pieces.map(({ layerId, pieceId }) => `${layerId}/${pieceId}`)).sort()
const note = async (what: Parameters<typeof noteCut>[0]) => {
  const done = await desk.store.dispatch(noteCut(what, 'cut'))
  desk.again()
  return done
}

describe('a load that is cut', () => {
  it('leaves every later layout; the others stay where they lie, under the names they had', async () => {
    // One from the middle of the order.
    const all = loadsNow()
    const first = all[3]
    const rest = all.filter((load) => load !== first)
    const before = countOf(first!.paper.id)
    expect(await note({ loadIds: [first!.id] })).toBe(true)
    expect(keysOf(loadsNow())).toEqual(keysOf(rest))
    expect(loadsNow().map(({ id, number }) => [id, number])).toEqual(
      rest.map(({ id, number }) => [id, number]),
    )
    expect(loadsNow().map(({ pieces }) => pieces.map((p) => p.placement.x))).toEqual(
      rest.map(({ pieces }) => pieces.map((p) => p.placement.x)),
    )
    expect(countOf(first!.paper.id)).toBe(before - 1)
    expect(stock().find(({ id }) => id === first!.paper.id)!.offCuts).toHaveLength(first!.offCut ? 1 : 0)
    expect(desk.project().progress.done).toContain(`cut-${first!.id}`)
    expect(desk.project().journal.sheetsUsed).toMatchObject([{ paperId: first!.paper.id, count: 1 }])
    desk.store.dispatch(undone())
    desk.again()
    expect(keysOf(loadsNow())).toEqual(keysOf([first!, ...rest]))
    expect(countOf(first!.paper.id)).toBe(before)
  })

  it('out of the middle of its paper leaves the others their names, numbers and tags, and keeps its own', async () => {
    desk = deskWith(setPlan(demo('harbour'), { batch: 3 }))
    const all = loadsNow()
    const names = (loads: readonly LoadView[]) => loads.map((load) => [load.id, load.number, loadTag(load)])
    const middle = all.find(({ nthOfRun }) => nthOfRun === 2)!
    await note({ loadIds: [middle.id] })
    expect(names(loadsNow())).toEqual(names(all.filter((load) => load !== middle)))
    expect(names(desk.viewOf(nodes.cutLoads()))).toEqual(names([middle]))
    // The first and the last of them too: no two of the three have one name.
    const own = all.filter(({ paper }) => paper.id === middle.paper.id)
    for (const load of own.filter((one) => one !== middle)) await note({ loadIds: [load.id] })
    const records = desk.viewOf<unknown, LoadView[]>(nodes.cutLoads())
    expect(names(records).sort()).toEqual(names(own).sort())
    expect(desk.project().progress.done.toSorted()).toEqual(own.map(({ id }) => `cut-${id}`).sort())
  })

  it('is spoilt by another shape or paper, not by another place; what is spoilt is laid again', async () => {
    const [first] = loadsNow()
    const { layerId } = first!.pieces[0]!
    await note({ loadIds: [first!.id] })
    const after = keysOf(loadsNow())
    desk.store.dispatch(change('move', (p) => transformLayers(p, [0, 1, -1, 0, 200, 3], [layerId])))
    desk.again()
    expect(keysOf(loadsNow())).toEqual(after)
    expect(outdatedCuts(desk.project())).toEqual([])
    desk.store.dispatch(change('scale', (p) => transformLayers(p, [0.9, 0, 0, 0.9, 0, 0], [layerId])))
    desk.again()
    expect(outdatedCuts(desk.project())).toMatchObject([{ layerId, why: 'shape' }])
    expect(keysOf(loadsNow()).length).toBeGreaterThan(after.length)
    // Its new sheet bears a new name: nothing counts as cut that is not.
    const again = loadsNow().find(({ pieces }) => pieces.some((piece) => piece.layerId === layerId))!
    expect(desk.project().progress.done).not.toContain(`cut-${again.id}`)
    desk.store.dispatch(undone())
    const other = stock().find(({ id, finish }) => finish === 'smooth' && id !== first!.paper.id)!
    desk.store.dispatch(change('paper', (p) => assignPaper(p, [layerId], { paper: other })))
    desk.again()
    expect(outdatedCuts(desk.project())).toMatchObject([{ layerId, why: 'paper' }])
  })

  it('of which only some came out whole gives the others back to the sheets', async () => {
    const load = loadsNow().find(({ pieces }) => pieces.length > 1) ?? loadsNow()[0]!
    const whole = [laidKey(load.pieces[0]!)]
    await note({ loadIds: [load.id], whole })
    const [sheet] = desk.project().cut
    expect(sheet!.pieces.filter(({ spoilt }) => spoilt === null)).toHaveLength(1)
    const lying = keysOf(loadsNow()).filter((key) => keysOf([load]).includes(key))
    expect(lying).toHaveLength(load.pieces.length - 1)
  })

  it('that is not cut after all goes back, sheet, off-cut and tick', async () => {
    const [first] = loadsNow()
    const before = { keys: keysOf(loadsNow()), count: countOf(first!.paper.id) }
    await note({ loadIds: [first!.id] })
    desk.store.dispatch(takeBack(first!.id))
    desk.again()
    expect({ keys: keysOf(loadsNow()), count: countOf(first!.paper.id) }).toEqual(before)
    expect(stock().every(({ offCuts }) => offCuts.length === 0)).toBe(true)
    expect(desk.project().progress.done).toEqual([])
    expect(desk.project().journal.sheetsUsed).toEqual([])
  })

  it('with all its copies cut leaves nothing; a copy more is laid alone', async () => {
    const all = loadsNow()
    await note({ loadIds: all.map(({ id }) => id) })
    expect(loadsNow()).toEqual([])
    const [layer] = desk.project().layers
    desk.store.dispatch(change('copies', (p) => setLayer(p, layer!.id, { copies: 2 })))
    desk.again()
    expect(keysOf(loadsNow())).toEqual(layer!.pieces.map(({ id }) => `${layer!.id}/${id}`).sort())
    expect(loadsNow()[0]!.number).toBe(all.length + 1)
  })

  it('of one project is never noted in another that was opened meanwhile', async () => {
    const [first] = loadsNow()
    const noting = desk.store.dispatch(noteCut({ loadIds: [first!.id] }, 'cut'))
    const { stock: papers } = desk.store.getState().document
    desk.store.dispatch(opened({ project: { ...demo('harbour'), id: 'another' }, stock: papers }))
    expect(await noting).toBe(false)
    expect(desk.project()).toMatchObject({ id: 'another', cut: [], progress: { done: [] } })
  })

  it('keeps its tick when all others are taken back', async () => {
    const [first] = loadsNow()
    await note({ loadIds: [first!.id] })
    const held = { project: tickStep(desk.project(), 'dry-fit', true), supplies: starterSupplies() }
    expect(untickAll(held).project.progress.done).toEqual([`cut-${first!.id}`])
  })
})

describe('a load that was sent to the machine', () => {
  /** Sends a load, and changes the work while the machine runs. */
  const sentThen = async (pick: (loads: LoadView[]) => LoadView, meanwhile: (load: LoadView) => void) => {
    const load = pick(loadsNow())
    const sent = desk.send(load.id)
    meanwhile(load)
    desk.again()
    await note({ loadIds: [load.id], sent })
    return { load, record: desk.project().cut.at(-1)! }
  }
  const first = (loads: LoadView[]) => loads[0]!

  it('is noted as it was sent, whatever was changed while it was cut', async () => {
    const { load, record } = await sentThen(first, ({ pieces }) => {
      const { layerId } = pieces[0]!
      desk.store.dispatch(change('scale', (p) => transformLayers(p, [0.9, 0, 0, 0.9, 0, 0], [layerId])))
    })
    expect(keysOf([load])).toEqual(
      record.pieces.map(({ layerId, pieceId }) => `${layerId}/${pieceId}`).sort(),
    )
    expect(record.pieces.map(({ x, y }) => [x, y])).toEqual(load.pieces.map(({ placement }) => [placement.x, placement.y])) // prettier-ignore
    expect(record.minutes).toBe(load.minutes)
    // What was scaled is cut as it was before, so it is laid again.
    expect(outdatedCuts(desk.project())).toMatchObject([{ why: 'shape' }])
    expect(keysOf(loadsNow())).toEqual(expect.arrayContaining(keysOf([load])))
    expect(loadsNow().map(({ id }) => id)).not.toContain(load.id)
  })

  it('takes its pieces out of sheets that were laid otherwise meanwhile, none twice and none missing', async () => {
    desk = deskWith(setPlan(demo('bon-voyage'), { batch: 6 }))
    const before = keysOf(loadsNow())
    const most = (loads: LoadView[]) => loads.toSorted((a, b) => b.pieces.length - a.pieces.length)[0]!
    const { load, record } = await sentThen(most, () =>
      desk.store.dispatch(change('gap', (p) => setPlan(p, { gapMm: p.plan.gapMm + 4 }))),
    )
    expect(load.pieces.length).toBeGreaterThan(1)
    expect(record.pieces).toHaveLength(load.pieces.length)
    expect([...keysOf(loadsNow()), ...keysOf([load])].sort()).toEqual(before)
  })

  it('is noted though nothing is left to cut of its paper', async () => {
    const { load } = await sentThen(first, ({ pieces }) => {
      const gone = new Set(pieces.map(({ layerId }) => layerId))
      desk.store.dispatch(
        change('remove', (p) => ({ ...p, layers: p.layers.filter(({ id }) => !gone.has(id)) })),
      )
    })
    expect(desk.project().cut.map(({ id }) => id)).toEqual([load.id])
    expect(countOf(load.paper.id)).toBe(starterStock().find(({ id }) => id === load.paper.id)!.count - 1)
    expect(outdatedCuts(desk.project())).toMatchObject([{ why: 'gone' }])
  })

  it('is drawn as the sheet is', () => {
    const [load] = loadsNow()
    expect(desk.send(load!.id).drawn).toEqual(desk.viewOf(nodes.sheet(load!.id)))
  })
})

describe('a load that was saved as a cut file', () => {
  beforeEach(async () => {
    told.mockClear()
    desk = deskWith({ ...setPlan(demo('bon-voyage'), { batch: 6 }), id: crypto.randomUUID() })
    const at = Date.UTC(2026, 10, 28, 12)
    await savedLoads.remember(
      desk.save().map((load) => [runIdOf(desk.project().id, load.sheet.id), { ...load, at }]),
    )
  })
  const widen = () => {
    desk.store.dispatch(change('gap', (p) => setPlan(p, { gapMm: p.plan.gapMm + 4 })))
    desk.again()
  }
  const largest = () => loadsNow().toSorted((a, b) => b.pieces.length - a.pieces.length)[0]!
  const placesOf = (record: { pieces: readonly { x: number; y: number }[] }) =>
    record.pieces.map(({ x, y }) => [x, y])

  it('is noted as in its file where the plan has changed; none twice, none missing, and it says so', async () => {
    const before = keysOf(loadsNow())
    const load = largest()
    const file = desk.save().find(({ sheet }) => sheet.id === load.id)!.sheet
    widen()
    await note({ loadIds: [load.id] })
    const record = desk.project().cut.at(-1)!
    expect(placesOf(record)).toEqual(placesOf(file))
    expect([...keysOf(loadsNow()), ...keysOf([load])].sort()).toEqual(before)
    expect(told).toHaveBeenCalledExactlyOnceWith(
      expect.stringContaining(`Load ${load.number}: noted as in the cut file of 28 Nov 2026`),
      expect.objectContaining({ action: expect.objectContaining({ label: 'Note as planned now' }) }),
    )
  })

  it('is noted as planned now by one press', async () => {
    const { id } = largest()
    widen()
    const planned = desk.save().find(({ sheet }) => sheet.id === id)!.sheet
    await note({ loadIds: [id] })
    const [, { action }] = told.mock.calls[0] as [string, { action: { onClick: () => void } }]
    action.onClick()
    expect(desk.project().cut).toEqual([])
    // The plan follows what was taken back before the load is noted anew.
    desk.again()
    await vi.waitFor(() => expect(desk.project().cut).toHaveLength(1))
    expect(placesOf(desk.project().cut[0]!).sort()).toEqual(placesOf(planned).sort())
    expect(told).toHaveBeenCalledOnce()
  })

  it('is noted without a word where it lies as it did, or was said not to be cut from it', async () => {
    const { id } = largest()
    desk.store.dispatch(change('name', (p) => ({ ...p, name: 'another' })))
    desk.again()
    await note({ loadIds: [id] })
    widen()
    const [next] = loadsNow()
    const planned = desk.save().find(({ sheet }) => sheet.id === next!.id)!.sheet
    await note({ loadIds: [next!.id], asItLies: true })
    expect(placesOf(desk.project().cut.at(-1)!)).toEqual(placesOf(planned))
    expect(told).not.toHaveBeenCalled()
  })
})
