import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { newProject, starterMount, type Project } from '@feuillet/core/project'
import { starterStock } from '@feuillet/core/stages/paper'
import reducer, { closed, edited, opened, keptTo, notKept, redone, undone } from './document'

const stock = starterStock()
const named = (name: string): Project => ({ ...newProject('p', 'Start', starterMount('frame')), name })
const start = reducer(reducer(undefined, closed()), opened({ project: named('Start'), stock }))
const edit = (name: string) => edited({ label: `to ${name}`, project: named(name) })

describe('the history of the open project', () => {
  it('undoes and redoes every edit in turn', () => {
    let state = [edit('one'), edit('two'), edit('three')].reduce(reducer, start)
    state = reducer(state, undone())
    state = reducer(state, undone())
    expect(state.project!.name).toBe('one')
    expect(state.past.map((v) => v.label)).toEqual(['to one'])
    expect(state.future.map((v) => v.label)).toEqual(['to three', 'to two'])
    expect(reducer(state, redone()).project!.name).toBe('two')
  })

  it('takes the drawer back with the project', () => {
    const fewer = stock.slice(1)
    const used = reducer(start, edited({ label: 'note sheets', project: named('used'), stock: fewer }))
    expect(used.stock).toBe(fewer)
    expect(reducer(used, undone()).stock).toBe(stock)
    expect(reducer(reducer(used, undone()), redone()).stock).toBe(fewer)
  })

  it('forgets what was undone once something else is done, and keeps to its length', () => {
    const state = [edit('one'), undone(), edit('other')].reduce(reducer, start)
    expect(state.future).toEqual([])
    expect(reducer(state, redone())).toBe(state)
    const long = Array.from({ length: 250 }, (_, i) => edit(String(i))).reduce(reducer, start)
    expect(long.past).toHaveLength(200)
    expect(long.past.at(-1)!.label).toBe('to 249')
  })

  it('ends where it began after as many undos as edits, whatever came between', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('edit', 'undo', 'redo'), { maxLength: 40 }), (moves) => {
        let n = 0
        let state = start
        const seen = [start.project!.name]
        let at = 0
        for (const move of moves) {
          if (move === 'edit') {
            state = reducer(state, edit(String(++n)))
            seen.length = at + 1
            seen.push(String(n))
            at++
          } else if (move === 'undo') {
            state = reducer(state, undone())
            at = Math.max(0, at - 1)
          } else {
            state = reducer(state, redone())
            at = Math.min(seen.length - 1, at + 1)
          }
          expect(state.project!.name).toBe(seen[at])
        }
      }),
    )
  })

  it('counts every change, and says “kept” only of the last that is', () => {
    const changed = reducer(start, edit('one'))
    expect(changed.revision).toBe(start.revision + 1)
    expect(changed.kept).toBeLessThan(changed.revision)
    const twice = reducer(changed, edit('two'))
    expect(reducer(twice, keptTo(changed.revision)).kept).toBeLessThan(twice.revision)
    const failed = reducer(twice, notKept('full'))
    expect(failed.trouble).toBe('full')
    expect(reducer(failed, keptTo(twice.revision))).toMatchObject({ trouble: null, kept: twice.revision })
    expect(reducer(twice, undone()).revision).toBe(twice.revision + 1)
  })

  it('lets the oldest steps go where their outlines take too much room, and remembers that it did', () => {
    const heavy = (n: number): Project => ({
      ...named(String(n)),
      layers: [{ id: 'a', pieces: [{ id: 'p', path: `M${n} 0L9 9L0 9Z`.padEnd(9_000_000) }] }] as never,
    })
    const state = Array.from({ length: 12 }, (_, n) =>
      edited({ label: String(n), project: heavy(n) }),
    ).reduce(reducer, start)
    expect(state.past.length).toBeLessThan(9)
    expect(state.past.length).toBeGreaterThan(3)
    expect(state.forgotten).toBe(true)
    expect(state.past.at(-1)!.label).toBe('11')
  })

  it('does nothing while nothing is open', () => {
    const none = reducer(undefined, closed())
    expect(reducer(none, edit('one'))).toBe(none)
    expect(reducer(none, undone())).toBe(none)
  })
})
