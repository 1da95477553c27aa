import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Sent } from '@feuillet/core/stages/sheets'
import { memoryStore } from '../../test/desk'

const store = { ...memoryStore(), removeItem: (key: string) => Promise.resolve(store.kept.delete(key)) }
vi.mock('./small-things', () => ({ smallThings: store }))
const { runIdOf, sentLoads } = await import('./loads-out')

const sent = (number: number) => ({ sheet: { number } }) as unknown as Sent
const numberOf = async (id: string) => (await sentLoads.recall(id))?.sheet.number ?? null

beforeEach(() => store.kept.clear())

describe('what was sent to the cutter', () => {
  it('is kept until it is noted, the latest under each name', async () => {
    const id = runIdOf('work', 'card-1')
    await sentLoads.remember([[id, sent(1)]])
    await sentLoads.remember([[id, sent(2)]])
    expect(await numberOf(id)).toBe(2)
    expect(await sentLoads.isAwaited('work')).toBe(true)
    expect(await sentLoads.isAwaited('wor')).toBe(false)
    await sentLoads.forget(id)
    expect([await numberOf(id), await sentLoads.isAwaited('work'), store.kept.size]).toEqual([null, false, 1])
  })

  it('is no more than sixty loads, the oldest first to go', async () => {
    for (let k = 0; k < 62; k++) await sentLoads.remember([[runIdOf('work', `card-${k}`), sent(k)]])
    const kept = await Promise.all([0, 1, 2, 61].map((k) => numberOf(runIdOf('work', `card-${k}`))))
    expect(kept).toEqual([null, null, 2, 61])
  })

  it('is known to the page that sent it where the browser keeps nothing', async () => {
    const id = runIdOf('work', 'card-9')
    const refusing = ['setItem', 'getItem', 'removeItem'].map((name) =>
      vi.spyOn(store, name as 'getItem').mockRejectedValue(new Error('blocked')),
    )
    await sentLoads.remember([[id, sent(9)]])
    expect([await numberOf(id), await sentLoads.isAwaited('work')]).toEqual([9, false])
    await sentLoads.forget(id)
    expect(await numberOf(id)).toBeNull()
    for (const one of refusing) one.mockRestore()
  })
})
