import { beforeEach, describe, expect, it, vi } from 'vitest'
import { demo } from '@feuillet/core/demo'
import { starterSupplies } from '@feuillet/core/project'
import { nodes } from '@feuillet/core/stages'
import type { AssemblyPlan, Step } from '@feuillet/core/stages/assembly'
import { deskWith, memoryStore, planHere, workersHere } from '../../../test/desk'

const layouts = memoryStore()
vi.mock('../../workers', () => workersHere)
vi.mock('../../plan', () => planHere)
vi.mock('../../session/layouts', () => ({ keepLayouts: layouts.setItem }))
vi.mock('sonner', () => ({ toast: { error: vi.fn(), dismiss: vi.fn() } }))

const { tick } = await import('./tick')
const { opened, undone } = await import('../../state/document')

const knife = starterSupplies().cutters.find(({ tool }) => tool === 'knife')!
let desk: ReturnType<typeof deskWith>
const withTool = (tool: 'knife' | 'machine') => {
  const project = demo('bon-voyage')
  desk = deskWith(tool === 'machine' ? project : { ...project, drawer: { ...project.drawer, cutter: knife } })
}
const stepOf = (kind: Step['kind']) =>
  desk.viewOf<AssemblyPlan, AssemblyPlan>(nodes.assembly()).steps.find((step) => step.kind === kind)!
const state = () => desk.store.getState().document

describe('a step that is ticked', () => {
  beforeEach(() => withTool('knife'))

  it('of a sheet cut by hand notes the sheet and what the hands took, in one step that undo takes back', async () => {
    const cut = stepOf('cut')
    await desk.store.dispatch(tick(cut, true, 12.5))
    expect(desk.project().cut.map(({ id }) => id)).toEqual([cut.loadId])
    expect(desk.project().progress.done).toContain(cut.id)
    expect(desk.project().journal.steps).toMatchObject([{ stepId: cut.id, kind: 'cut', minutes: 12.5 }])
    expect(state().supplies.observed).toMatchObject([
      { what: 'cut', minutes: 12.5, of: expect.stringContaining(knife.name) },
    ])
    desk.store.dispatch(undone())
    expect(desk.project().cut).toEqual([])
    expect(desk.project().journal.steps).toEqual([])
    expect(state().supplies.observed).toEqual([])
  })

  it('of a sheet that a machine cuts is not timed by the clock of the bench', async () => {
    withTool('machine')
    const cut = stepOf('cut')
    await desk.store.dispatch(tick(cut, true, 12.5))
    expect(desk.project().cut.map(({ id }) => id)).toEqual([cut.loadId])
    expect(desk.project().journal.steps).toEqual([])
  })

  it('and unticked while its sheet is still being noted is not ticked in the end', async () => {
    const cut = stepOf('cut')
    const noting = desk.store.dispatch(tick(cut, true, 12.5))
    await desk.store.dispatch(tick(cut, false))
    await noting
    expect(desk.project().cut).toEqual([])
    expect(desk.project().progress.done).toEqual([])
  })

  it('goes back with its tick', async () => {
    const weed = stepOf('weed')
    await desk.store.dispatch(tick(weed, true, 3))
    expect(desk.project().progress.done).toEqual([weed.id])
    await desk.store.dispatch(tick(weed, false))
    expect(desk.project().progress.done).toEqual([])
  })

  it('is never noted in another project', async () => {
    const ticking = desk.store.dispatch(tick(stepOf('cut'), true, 5))
    const other = { ...demo('tide-rose'), id: 'other' }
    const { stock, supplies } = state()
    desk.store.dispatch(opened({ project: other, stock, supplies }))
    await ticking
    expect(desk.project().id).toBe('other')
    expect(desk.project().progress.done).toEqual([])
    expect(desk.project().cut).toEqual([])
  })
})
