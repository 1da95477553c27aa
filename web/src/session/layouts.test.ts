import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { NestLayout } from '@feuillet/core/stages/sheets'
import { memoryStore } from '../../test/desk'

const store = memoryStore()
vi.mock('./small-things', () => ({ smallThings: store }))
const layout = (score: number): NestLayout => ({ placements: [], sheets: 1, score, utilisation: 0.5 })

beforeEach(() => {
  vi.resetModules()
  store.kept.clear()
})

describe('layouts found by longer searches', () => {
  it('come back on the next visit, the newest of a name', async () => {
    const { keepLayouts } = await import('./layouts')
    await keepLayouts([['a', layout(0.9)]])
    await keepLayouts([['a', layout(0.5)]])
    vi.resetModules()
    const again = await import('./layouts')
    expect([...(await again.foundLayouts())]).toEqual([['a', layout(0.5)]])
  })

  it('are kept up to a number, the longest unused first to go', async () => {
    const { foundLayouts, keepLayouts } = await import('./layouts')
    for (let k = 0; k < 61; k++) await keepLayouts([[`k${k}`, layout(k)]])
    await keepLayouts([['k1', layout(7)]])
    await keepLayouts([['last', layout(8)]])
    const names = [...(await foundLayouts()).keys()]
    expect(names).toHaveLength(60)
    expect(names.slice(-2)).toEqual(['k1', 'last'])
    expect(names).not.toContain('k0')
    expect(names).not.toContain('k2')
  })

  it('outlast those that edits carried over, of which the last few are kept', async () => {
    const { foundLayouts, keepLayouts } = await import('./layouts')
    await keepLayouts([['searched', layout(1)]])
    for (let k = 0; k < 100; k++) await keepLayouts([[`c${k}`, { ...layout(k), carried: true }]])
    const names = [...(await foundLayouts()).keys()]
    expect(names).toEqual(['searched', ...Array.from({ length: 12 }, (_, k) => `c${88 + k}`)])
  })

  it('are none where the browser keeps nothing, and that is no error', async () => {
    const { foundLayouts, keepLayouts } = await import('./layouts')
    const get = vi.spyOn(store, 'getItem').mockRejectedValue(new Error('blocked'))
    const set = vi.spyOn(store, 'setItem').mockRejectedValue(new Error('blocked'))
    expect((await foundLayouts()).size).toBe(0)
    await keepLayouts([['a', layout(1)]])
    expect((await foundLayouts()).size).toBe(1)
    get.mockRestore()
    set.mockRestore()
  })
})
