// What is to be cut again, beside what stays where it lies.
import { describe, expect, it } from 'vitest'
import { expectLegal } from '../../../test/legal-layout'
import { plate, stack } from '../../../test/stack'
import { Cache } from '../../base'
import { rectangle } from '../../base/geometry'
import { Planner } from '../../planner'
import { assignPaper, fromOffCuts, markSpoilt, setLayer, setPlan, type Project } from '../../project'
import { nodes } from '../index'
import { starterStock } from '../paper'
import { laidAgain, withAgain } from './again'
import { freezeSheets, sheetOf } from './frozen'
import { knownLayout } from './runs/kept-layouts'
import type { NestedRun, PaperRun } from './runs/paper-runs'

const stock = starterStock().slice(0, 1)

/** Two sheets and more of one paper. */
function desk() {
  const bare = stack(
    'free',
    plate('a', 0, [0, 0, 150, 120], [0, 200, 90, 70]),
    plate('b', 0, [0, 0, 120, 100]),
  )
  const planner = new Planner(new Cache())
  const at = (project: Project) => {
    planner.update({ project, stock, found: new Map() })
    return { runs: planner.get(nodes.nested()), loads: planner.get(nodes.loads()) }
  }
  return { at, project: assignPaper(setPlan(bare, { batch: 4 }), ['a', 'b'], { paper: stock[0]!, stock }) }
}

const scrap = rectangle([0, 0], 130, 110)
const runWithScrap = (): PaperRun => {
  const { at, project } = desk()
  const { run } = at(project).runs[0]!
  const offCut = { id: 'scrap', label: 'scrap', path: 'M0 0L130 0L130 110L0 110Z' }
  const instance = { ...run.instance, offCuts: [{ id: 'scrap', outline: scrap, margin: 3 }] }
  return { ...run, instance, bins: [{ paper: stock[0]!, offCut }] }
}

describe('what is to be cut again', () => {
  it('lies on an off-cut that is whole yet, then on sheets of its own', () => {
    const run = runWithScrap()
    const { at, project } = desk()
    const { layout } = at(project).runs[0]!
    const more = (id: string, by: number): PaperRun => ({
      ...run,
      instance: {
        ...run.instance,
        pieces: run.instance.pieces.map((piece) =>
          piece.id === id ? { ...piece, qty: piece.qty + by } : piece,
        ),
      },
    })
    const one = more('b/p1', 1)
    const laid = withAgain(one, layout.placements)!
    expectLegal(one.instance, laid)
    expect(laid.placements.slice(0, -1)).toEqual(layout.placements)
    expect(laid.placements.at(-1)).toMatchObject({ id: 'b/p1', copy: 4, sheet: -1 })
    const two = more('b/p1', 2)
    const both = withAgain(two, layout.placements)!
    expectLegal(two.instance, both)
    expect(
      both.placements
        .slice(-2)
        .map(({ sheet }) => sheet)
        .sort(),
    ).toEqual([-1, layout.sheets])
    // Where something lies on the off-cut already, it is no longer a sheet of its own.
    const third = withAgain(two, laid.placements)!
    expect(third.placements.at(-1)!.sheet).toBe(layout.sheets)
  })

  it('leaves all else where it lies where a layer has sheets of its own, and lays a layer anew that is to lie on one', () => {
    const { at, project } = desk()
    for (const [sharing, layer, piece] of [
      ['own-sheets', 'a', 'b/p1'],
      ['own-sheets', 'b', 'b/p1'],
      ['one-sheet', 'a', 'b/p1'],
      ['one-sheet', 'b', 'b/p1'],
    ] as const) {
      const { run, layout } = at(setLayer(project, layer, { sharing })).runs[0]!
      const pieces = run.instance.pieces.map((one) => (one.id === piece ? { ...one, qty: one.qty + 1 } : one))
      const more = { ...run, instance: { ...run.instance, pieces } }
      const laid = withAgain(more, layout.placements)
      const isParted = sharing === 'one-sheet' && layer === 'b'
      expect(laid === null, `${sharing} of ${layer}`).toBe(isParted)
      if (!laid) continue
      expectLegal(more.instance, laid)
      expect(laid.placements.slice(0, -1)).toEqual(layout.placements)
      expect(laid.placements.at(-1)!.sheet).toBe(layout.sheets)
      // Once all others of it are cut, nothing is parted.
      const others = layout.placements.filter(({ id }) => !id.startsWith('b/'))
      const rest = pieces.flatMap((one) => (one.id === piece ? [{ ...one, qty: 1 }] : one.id.startsWith('b/') ? [] : [one])) // prettier-ignore
      expect(withAgain({ ...run, instance: { ...run.instance, pieces: rest } }, others)).not.toBeNull()
    }
  })

  it('is told from what wants anything else', () => {
    const { at, project } = desk()
    const { runs } = at(project)
    const [{ run, layout }] = runs as [(typeof runs)[number]]
    expect(withAgain(run, layout.placements)).toEqual(layout)
    const fewer = { ...run, instance: { ...run.instance, pieces: run.instance.pieces.slice(1) } }
    expect(withAgain(fewer, layout.placements)).toBeNull()
    expect(laidAgain(project, runs)).toEqual([])
    expect(laidAgain(setPlan(project, { gapMm: 7 }), runs)).toEqual([])
    expect(laidAgain(setLayer(project, 'a', { sharing: 'own-sheets' }), runs)).toEqual([])
    const once = setLayer(project, 'a', { copies: 2 })
    const [{ run: named, layout: wider }] = laidAgain(once, runs) as [NestedRun]
    expect(named.fingerprint).toBe(at(once).runs[0]!.run.fingerprint)
    expect(wider.placements.slice(0, layout.placements.length)).toEqual(layout.placements)
    // One fewer is taken from the end, and nothing moves.
    const [{ layout: back }] = laidAgain(setPlan(project, { batch: 3 }), runs) as [NestedRun]
    expect(back.placements).toEqual(layout.placements.filter(({ copy }) => copy < 3))
  })

  it('and is whole after all, leaves its sheet again', () => {
    const { at, project } = desk()
    const { runs, loads } = at(project)
    const cut = freezeSheets(
      { project, stock },
      { sheets: [sheetOf(project, loads[0]!, { stock })], runs, kept: [], at: 1 },
    )
    const sheetId = cut.project.cut[0]!.id
    const torn = markSpoilt(cut.project, { sheetId, index: 0 }, 'torn')
    const run = at(cut.project).runs[0]!.run
    const before = knownLayout(run, new Map(cut.found))!
    const [{ layout: again }] = laidAgain(torn, [{ run, layout: before }]) as [NestedRun]
    expect(again.placements.slice(0, -1)).toEqual(before.placements)
    expect(again.sheets).toBe(before.sheets + 1)
    // What the drawer holds of its paper is cut into first.
    const held = [
      { ...stock[0]!, offCuts: [{ id: 'scrap', label: 'scrap', path: 'M0 0L170 0L170 150L0 150Z' }] },
    ]
    const [{ layout: onScrap }] = laidAgain(fromOffCuts(cut.project, torn, held), [{ run, layout: before }]) as [NestedRun] // prettier-ignore
    expect(onScrap.placements.slice(0, -1)).toEqual(before.placements)
    expect([onScrap.sheets, onScrap.placements.at(-1)!.sheet]).toEqual([before.sheets, -1])
    const without = setPlan(cut.project, { useOffCuts: false })
    const tornToo = setPlan(torn, { useOffCuts: false })
    expect(fromOffCuts(without, tornToo, held)).toBe(tornToo)
    expect(fromOffCuts(torn, cut.project, held)).toBe(cut.project)
    const tornRun = at(torn).runs[0]!.run
    const [{ layout: whole }] = laidAgain(cut.project, [{ run: tornRun, layout: again }]) as [NestedRun]
    expect(whole.placements).toEqual(before.placements)
  })
  it('is told where nothing that is cut serves a layer that is slit', () => {
    const { project, at } = desk()
    const one = setPlan(project, { batch: 1 })
    const { runs, loads } = at(one)
    const sheets = loads.map((load) => sheetOf(one, load, { stock }))
    const cut = freezeSheets({ project: one, stock }, { sheets, runs, kept: [], at: 1 }).project
    const planner = new Planner(new Cache())
    const seen = (slits: number[][]) => {
      const layers = cut.layers.map((layer) => (layer.id === 'b' ? { ...layer, id: 'c', slits } : layer))
      planner.update({ project: { ...cut, layers }, stock, found: new Map() })
      const codes = planner.get(nodes.sheetsSnags()).map(({ code }) => code)
      return { laid: planner.get(nodes.loads()).length, codes }
    }
    expect(seen([])).toEqual({ laid: 0, codes: [] })
    expect(seen([[10, 10, 40, 40]])).toMatchObject({
      laid: 1,
      codes: expect.arrayContaining(['cut-for-nothing']),
    })
  })
})
