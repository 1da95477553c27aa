import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyDelta, Cache, deltaOf, fingerprint, groupBy, seededRandom, share } from './index'

const json = fc.jsonValue({ maxDepth: 4 })

describe('a delta', () => {
  it('turns any version into any other', () => {
    fc.assert(
      fc.property(json, json, (before, after) => {
        expect(applyDelta(before, deltaOf(before, after))).toEqual(after)
      }),
    )
  })

  it('survives being sent, and shares on the other side all that is shared here', () => {
    const item = (id: string, n: number) => ({ id, path: `M${n}`.repeat(500) })
    const before = { name: 'a', layers: [item('x', 1), item('y', 2), item('z', 3)] }
    const after = {
      ...before,
      name: 'b',
      layers: [before.layers[2]!, { ...before.layers[0]!, more: true }, before.layers[1]!],
    }
    const theirs = structuredClone(before)
    const sent = structuredClone(deltaOf(before, after))
    expect(JSON.stringify(sent).length).toBeLessThan(JSON.stringify(after).length / 2)
    const got = applyDelta(theirs, sent) as typeof after
    expect(got).toEqual(after)
    expect(got.layers[0]).toBe(theirs.layers[2])
    expect(got.layers[2]).toBe(theirs.layers[1])
  })
})

describe('sharing', () => {
  it('changes no value, and keeps what is equal', () => {
    fc.assert(
      fc.property(json, json, (mine, theirs) => {
        expect(share(mine, structuredClone(theirs))).toEqual(theirs)
        expect(share(mine, structuredClone(mine))).toEqual(mine)
        if (typeof mine === 'object') expect(share(mine, structuredClone(mine))).toBe(mine)
      }),
    )
  })
})

describe('a cache', () => {
  it('names values by their content, whatever object they are', () => {
    const cache = new Cache()
    fc.assert(
      fc.property(json, json, (a, b) => {
        expect(cache.nameOf(a)).toBe(cache.nameOf(structuredClone(a)))
        // Nought has a sign in JSON’s values but not in its text.
        if (JSON.stringify(a) !== JSON.stringify(b) && !/-0\b/.test(JSON.stringify([a, b])))
          expect(cache.nameOf([a])).not.toBe(cache.nameOf([b]))
      }),
    )
  })

  it('computes each thing once, until it holds too much', () => {
    const cache = new Cache(20_000)
    let made = 0
    const make = (n: number) => cache.memo('line', [n], () => (made++, new Float64Array(500)))
    make(1)
    make(1)
    expect(made).toBe(1)
    for (let n = 2; n < 9; n++) make(n)
    make(1)
    expect(made).toBe(9)
  })

  it('knows what is not there as well as what is', () => {
    const cache = new Cache()
    let made = 0
    const none = () => cache.memo('none', [], () => (made++, undefined))
    none()
    none()
    expect(made).toBe(1)
  })
})

describe('small things', () => {
  it('a seed gives the same numbers again, within bounds', () => {
    const [a, b] = [seededRandom(7), seededRandom(7)]
    const list = Array.from({ length: 100 }, a)
    expect(Array.from({ length: 100 }, b)).toEqual(list)
    expect(list.every((v) => v >= 0 && v < 1)).toBe(true)
    const many = Array.from({ length: 4000 }, a)
    expect(many.reduce((sum, v) => sum + v, 0) / many.length).toBeCloseTo(0.5, 1)
  })

  it('groups keep the order of first appearance; names of values tell them apart', () => {
    expect([...groupBy([3, 1, 4, 1, 5], (n) => n % 2)]).toEqual([
      [1, [3, 1, 1, 5]],
      [0, [4]],
    ])
    expect(new Set(Array.from({ length: 2000 }, (_, i) => fingerprint({ gap: i / 10 }))).size).toBe(2000)
  })
})
