import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Sent } from '@feuillet/core/stages/sheets'
import { memoryStore } from '../../../../test/desk'

const store = { ...memoryStore(), removeItem: (key: string) => Promise.resolve(store.kept.delete(key)) }
vi.mock('../../../session/small-things', () => ({ smallThings: store }))
const { forgetSent, isAwaited, recallSent, rememberSent, runIdOf } = await import('./sent-loads')

const sent = (number: number) => ({ sheet: { number } }) as unknown as Sent
const numberOf = async (id: string) => (await recallSent(id))?.sheet.number ?? null

beforeEach(() => store.kept.clear())

describe('what was sent to the cutter', () => {
  it('is kept until it is noted, the latest under each name', async () => {
    const id = runIdOf('work', 'card-1')
    await rememberSent(id, sent(1))
    await rememberSent(id, sent(2))
    expect(await numberOf(id)).toBe(2)
    expect(await isAwaited('work')).toBe(true)
    expect(await isAwaited('wor')).toBe(false)
    await forgetSent(id)
    expect([await numberOf(id), await isAwaited('work'), store.kept.size]).toEqual([null, false, 1])
  })

  it('is no more than sixty loads, the oldest first to go', async () => {
    for (let k = 0; k < 62; k++) await rememberSent(runIdOf('work', `card-${k}`), sent(k))
    const kept = await Promise.all([0, 1, 2, 61].map((k) => numberOf(runIdOf('work', `card-${k}`))))
    expect(kept).toEqual([null, null, 2, 61])
  })

  it('is known to the page that sent it where the browser keeps nothing', async () => {
    const id = runIdOf('work', 'card-9')
    const refusing = ['setItem', 'getItem', 'removeItem'].map((name) =>
      vi.spyOn(store, name as 'getItem').mockRejectedValue(new Error('blocked')),
    )
    await rememberSent(id, sent(9))
    expect([await numberOf(id), await isAwaited('work')]).toEqual([9, false])
    await forgetSent(id)
    expect(await numberOf(id)).toBeNull()
    for (const one of refusing) one.mockRestore()
  })
})
