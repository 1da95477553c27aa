import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { starterStock } from '../stages/paper'
import { applyStockChanges, stockChanges, type Paper } from './index'

const stock = starterStock()
  .slice(0, 4)
  .map((paper) => ({ ...paper, count: 9 }))
const set = (list: readonly Paper[], k: number, patch: Partial<Paper>) =>
  list.map((paper, i) => (i === k % list.length ? { ...paper, ...patch } : paper))
const offCut = (id: string) => ({ id, label: id, path: 'M0 0L90 0L90 90Z' })

const step = fc.oneof(
  fc.tuple(fc.constant('count' as const), fc.nat(9), fc.nat(30)),
  fc.tuple(fc.constant('price' as const), fc.nat(9), fc.nat(30)),
  fc.tuple(fc.constant('offCut' as const), fc.nat(9), fc.nat(30)),
  fc.tuple(fc.constant('add' as const), fc.nat(9), fc.nat(30)),
)
const after = (
  list: readonly Paper[],
  steps: readonly (readonly [string, number, number])[],
): readonly Paper[] =>
  steps.reduce<readonly Paper[]>((now, [kind, k, n]) => {
    if (kind === 'add')
      return now.some((p) => p.id === `new-${n}`) ? now : [...now, { ...stock[0]!, id: `new-${n}` }]
    if (kind === 'offCut')
      return set(now, k, {
        offCuts: [...now[k % now.length]!.offCuts.filter((o) => o.id !== `o${n}`), offCut(`o${n}`)],
      })
    return set(now, k, { [kind]: n })
  }, list)

describe('changes of the drawer', () => {
  it('lead from before to after, and are none where nothing changed', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 8 }), (steps) => {
        const next = after(stock, steps)
        const changes = stockChanges(stock, next)
        const byId = (list: readonly Paper[]) =>
          Object.fromEntries(
            list.map((p) => [
              p.id,
              { ...p, offCuts: p.offCuts.toSorted((a, b) => a.id.localeCompare(b.id)) },
            ]),
          )
        expect(byId(changes ? applyStockChanges(stock, changes) : stock)).toEqual(byId(next))
      }),
    )
    expect(stockChanges(stock, structuredClone(stock))).toBeNull()
  })

  it('of two projects are both there, sheets taken by each counted', () => {
    const here = set(stock, 0, { count: stock[0]!.count - 3 })
    const there = set(set(stock, 0, { count: stock[0]!.count - 2 }), 1, { price: 7 })
    const first = applyStockChanges(stock, stockChanges(stock, here)!)
    const both = applyStockChanges(first, stockChanges(stock, there)!)
    expect(both[0]!.count).toBe(stock[0]!.count - 5)
    expect(both[1]!.price).toBe(7)
  })

  it('take out papers and off-cuts, and never count below nought', () => {
    const gone = applyStockChanges(stock, stockChanges(stock, stock.slice(1))!)
    expect(gone.map((p) => p.id)).toEqual(stock.slice(1).map((p) => p.id))
    const taken = stockChanges(stock, set(stock, 0, { count: 0 }))!
    expect(applyStockChanges(set(stock, 0, { count: 1 }), taken)[0]!.count).toBe(0)
    const used = stockChanges(
      set(stock, 0, { offCuts: [offCut('a'), offCut('b')] }),
      set(stock, 0, { offCuts: [offCut('b')] }),
    )!
    expect(
      applyStockChanges(set(stock, 0, { offCuts: [offCut('a'), offCut('c')] }), used)[0]!.offCuts.map(
        (o) => o.id,
      ),
    ).toEqual(['c'])
  })
})
