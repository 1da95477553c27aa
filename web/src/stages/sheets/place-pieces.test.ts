import { wordsIn } from '@feuillet/core/base/units'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { demo } from '@feuillet/core/demo'
import { nodes } from '@feuillet/core/stages'
import type { LoadView } from '@feuillet/core/stages/sheets'
import { deskWith, memoryStore, planHere, workersHere } from '../../../test/desk'

vi.mock('../../workers', () => workersHere)
vi.mock('../../plan', () => planHere)
vi.mock('../../session/small-things', () => ({ smallThings: memoryStore() }))

const { fillTheRest, middleOf, placePieces, sendPieces, settlePieces, unpinPieces } =
  await import('./place-pieces')

let desk: ReturnType<typeof deskWith>
beforeEach(() => {
  desk = deskWith(demo('bon-voyage'))
})

/** The load with the most pieces, and its smallest piece. */
const loadsNow = () => desk.viewOf<unknown, LoadView[]>(nodes.loads())
const busiest = () => loadsNow().toSorted((a, b) => b.pieces.length - a.pieces.length)[0]!
const only = () => {
  const load = busiest()
  return { load, piece: load.pieces[0]! }
}
const anew = () => desk.again()

describe('the maker’s hand', () => {
  it('moves a piece to free card and pins it there; nothing else moves', async () => {
    const { load, piece } = only()
    const before = busiest().pieces.map(({ placement }) => placement)
    expect(await desk.store.dispatch(placePieces(load, [piece], { dx: 40, dy: 60, turnDeg: 0 }))).toBeNull()
    expect(desk.project().plan.pins).toHaveLength(1)
    anew()
    const after = loadsNow().find((l) => l.id === load.id)!.pieces
    for (const p of before) {
      const q = after.find(({ placement }) => placement.id === p.id && placement.copy === p.copy)!.placement
      const moved = p.id === piece.placement.id && p.copy === piece.placement.copy
      expect([q.x - p.x, q.y - p.y].map((v) => Math.round(v * 1e6) / 1e6)).toEqual(moved ? [40, 60] : [0, 0])
    }
  })

  it('turns pieces about their common middle, which stays', async () => {
    const { load, piece } = only()
    const from = middleOf([piece])
    expect(
      await desk.store.dispatch(
        placePieces(load, [piece], { dx: 152 - from.x, dy: 170 - from.y, turnDeg: 0 }),
      ),
    ).toBeNull()
    anew()
    const moved = busiest().pieces.find((p) => p.placement.id === piece.placement.id)!
    const middle = middleOf([moved])
    expect(
      await desk.store.dispatch(placePieces(busiest(), [moved], { dx: 0, dy: 0, turnDeg: 90 })),
    ).toBeNull()
    anew()
    const turned = busiest().pieces.find((p) => p.placement.id === piece.placement.id)!
    expect(middleOf([turned]).x).toBeCloseTo(middle.x, 6)
    expect(middleOf([turned]).y).toBeCloseTo(middle.y, 6)
    expect(turned.placement.rotation).toBeCloseTo((moved.placement.rotation + 90) % 360, 6)
  })

  it('says why a place is not possible, and changes nothing', async () => {
    const { load, piece } = only()
    const before = desk.project()
    const why = await desk.store.dispatch(placePieces(load, [piece], { dx: -900, dy: 0, turnDeg: 0 }))
    expect(wordsIn(why!, 'mm')).toMatch(/rim|sheet/)
    expect(
      await desk.store.dispatch(
        placePieces({ ...load, paper: { ...load.paper, oneWay: true } }, [piece], {
          dx: 0,
          dy: 0,
          turnDeg: 90,
        }),
      ),
    ).toMatch(/one-way/)
    expect(desk.project()).toBe(before)
  })

  it('sends a piece to a fresh sheet, settles it into the corner there, and lets it go again', async () => {
    const { load, piece } = only()
    expect(await desk.store.dispatch(sendPieces(load, [piece], 1))).toBeNull()
    expect(desk.project().plan.pins[0]).toMatchObject({ sheet: 1 })
    anew()
    const there = () =>
      loadsNow().flatMap((l) =>
        l.pieces.filter((p) => p.placement.id === piece.placement.id).map((p) => ({ l, p })),
      )[0]!
    await desk.store.dispatch(placePieces(there().l, [there().p], { dx: 30, dy: 30, turnDeg: 0 }))
    anew()
    const apart = middleOf([there().p])
    expect(await desk.store.dispatch(settlePieces(there().l, [there().p]))).toBeNull()
    anew()
    const settled = middleOf([there().p])
    expect(settled.x).toBeLessThan(apart.x - 20)
    expect(settled.y).toBeLessThan(apart.y - 20)
    expect(unpinPieces(desk.project(), [there().p]).plan.pins).toEqual([])
  })

  it('lays the rest anew from another seed, which undo takes back', () => {
    const { load } = only()
    const next = fillTheRest(desk.project(), load)
    expect(next.plan.layoutSeeds[load.runId]).toBe(2)
    expect(fillTheRest(next, load).plan.layoutSeeds[load.runId]).toBe(3)
  })
})
