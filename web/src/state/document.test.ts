import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { newProject, starterMount, type Project } from '@feuillet/core/project'
import { starterStock } from '@feuillet/core/stages/paper'
import reducer, { closed, edited, opened, redone, savedAs, undone } from './document'

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

  it('says whether what is on screen is kept', () => {
    expect(start.saved).toBe('saved')
    const changed = reducer(start, edit('one'))
    expect(changed.saved).toBe('saving')
    expect(reducer(changed, savedAs('failed')).saved).toBe('failed')
    expect(reducer(changed, undone()).saved).toBe('saving')
  })

  it('does nothing while nothing is open', () => {
    const none = reducer(undefined, closed())
    expect(reducer(none, edit('one'))).toBe(none)
    expect(reducer(none, undone())).toBe(none)
  })
})
