import { beforeEach, describe, expect, it, vi } from 'vitest'
import { demo } from '@feuillet/core/demo'
import { nodes } from '@feuillet/core/stages'
import type { LeftView, LoadView, SheetsNeeded } from '@feuillet/core/stages/sheets'
import { deskWith } from '../../../test/desk'

const told = vi.hoisted(() => vi.fn<(words: string) => void>())
vi.mock('sonner', () => ({ toast: told }))
vi.mock('../../workers', () => ({}))

const { undone } = await import('../../state/document')
const { openLoads, takeSheets } = await import('./take-sheets')

let desk: ReturnType<typeof deskWith>
beforeEach(() => {
  desk = deskWith(demo('harbour'))
  told.mockReset()
})
const countOf = (paperId: string) =>
  desk.store.getState().document.stock.find((paper) => paper.id === paperId)!.count
const loadsNow = () => desk.viewOf<unknown, LoadView[]>(nodes.loads())
const leftNow = () => desk.viewOf<unknown, LeftView[]>(nodes.left())
const needs = () =>
  desk.viewOf<unknown, SheetsNeeded[]>(nodes.needed()).map((need) => ({ ...need, open: need.sheets }))

describe('noting sheets as used', () => {
  it('takes them out of the drawer, puts back what is kept, and is one step', () => {
    const [load, ...others] = loadsNow()
    const left = leftNow().filter((l) => l.loadId === load!.id && l.kind === 'clean')
    expect(left).toHaveLength(1)
    const before = countOf(load!.paper.id)
    desk.store.dispatch(takeSheets([load!], left))
    expect(countOf(load!.paper.id)).toBe(before - 1)
    for (const other of others)
      expect(desk.store.getState().document.past[0]!.stock.find((p) => p.id === other.paper.id)!.count).toBe(
        countOf(other.paper.id),
      )
    expect(desk.store.getState().document.stock.find((p) => p.id === load!.paper.id)!.offCuts).toHaveLength(1)
    expect(desk.project().journal.sheetsUsed).toMatchObject([{ paperId: load!.paper.id, count: 1 }])
    expect(told).toHaveBeenCalledWith('Noted, and taken out of the drawer. 1 off-cut put back.')
    desk.store.dispatch(undone())
    expect(countOf(load!.paper.id)).toBe(before)
    expect(desk.project().journal.sheetsUsed).toEqual([])
  })

  it('keeps nothing of loads that were not cut', () => {
    const [load] = loadsNow()
    desk.store.dispatch(
      takeSheets(
        [load!],
        leftNow().filter((l) => l.loadId !== load!.id),
      ),
    )
    expect(desk.store.getState().document.stock.every((paper) => paper.offCuts.length === 0)).toBe(true)
    expect(told).toHaveBeenCalledWith('Noted, and taken out of the drawer.')
  })

  it('leaves open the last sheets of each paper that are not noted yet', () => {
    const loads = loadsNow()
    const { stock } = desk.store.getState().document
    expect(openLoads(needs(), loads, stock)).toHaveLength(loads.length)
    const [first] = needs()
    const some = needs().map((need) => (need.paper.id === first!.paper.id ? { ...need, open: 0 } : need))
    expect(openLoads(some, loads, stock).map((l) => l.paper.id)).not.toContain(first!.paper.id)
    // A load on an off-cut is open as long as that lies in the drawer.
    const onOffCut = { ...loads[0]!, onOffCut: { id: 'gone', label: 'gone' } }
    expect(openLoads(needs(), [onOffCut], stock)).toEqual([])
  })
})
