import { wordsIn } from '../../base/units'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { star } from '../../../test/arbitrary'
import { expectLegal } from '../../../test/legal-layout'
import { plate, stack } from '../../../test/stack'
import { demo, demoNames } from '../../demo'
import { ellipse, polygonArea, rectangle, regionArea, subtract, type Polygon } from '../../base/geometry'
import {
  builtLayers,
  cutPieces,
  layerRegion,
  setLayer,
  setPin,
  setPlan,
  starterCutter,
  type Project,
} from '../../project'
import { BadInput } from '../../base'
import {
  changesOf,
  isStandIn,
  planLoads,
  Nester,
  nestProject,
  paperRuns,
  readInstance,
  settingFor,
  sheetSnags,
  sheetsNeeded,
  splitPartId,
  whyIllegal,
  type NestInstance,
  type NestPiece,
  type Turns,
} from './index'

const SHEET = { w: 200, h: 200, margin: 5 }
const piece = (
  id: string,
  shape: Polygon,
  { qty = 1, turns = 'quarter' }: { qty?: number; turns?: Turns } = {},
): NestPiece => ({
  id,
  shape,
  qty,
  turns,
})
const solve = (instance: NestInstance, steps = 12, seed = 1) => {
  const nester = new Nester(instance, seed)
  for (let k = 0; k < steps && !nester.done; k++) nester.step()
  return nester.best
}
const layoutsOf = (project: Project) => nestProject(project)

describe('nesting', () => {
  it('is done at once where there is nothing to lay, or nothing but what is pinned', () => {
    const none = new Nester({ sheet: SHEET, gap: 2, pieces: [] }, 1)
    expect([none.done, none.step(), none.best.sheets, none.best.score]).toEqual([true, false, 0, 0])
    const pinned = {
      sheet: SHEET,
      gap: 2,
      pieces: [piece('a', rectangle([0, 0], 30, 30))],
      pinned: [{ id: 'a', copy: 0, sheet: 0, x: 50, y: 50, rotation: 0 }],
    }
    const nester = new Nester(pinned, 1)
    for (let k = 0; k < 5; k++) nester.step()
    expect(nester.best.placements).toEqual(pinned.pinned)
    const project = setLayer(demo('bon-voyage'), 'words', { pieces: [] })
    expect(planLoads(project, { runs: nestProject(project) }).flatMap((load) => load.folios)).not.toContain(
      '2',
    )
  })

  it('is legal for any stars, turns and gaps, proved by another library', () => {
    fc.assert(
      fc.property(
        fc.array(star(28), { minLength: 3, maxLength: 9 }),
        fc.constantFrom<Turns>('free', 'quarter', 'fixed'),
        fc.double({ min: 0, max: 6, noNaN: true }),
        (shapes, turns, gap) => {
          const instance: NestInstance = {
            sheet: SHEET,
            gap,
            pieces: shapes.map((shape, i) => piece(`s${i}`, shape, { qty: 1 + (i % 2), turns })),
          }
          expectLegal(instance, solve(instance, 4))
        },
      ),
      { numRuns: 12 },
    )
  })

  it('puts small pieces into the openings of large ones', () => {
    const ring = subtract([rectangle([0, 0], 180, 180)], [rectangle([15, 15], 150, 150)])[0]!
    const instance: NestInstance = {
      sheet: SHEET,
      gap: 2,
      pieces: [piece('ring', ring), piece('disc', ellipse([0, 0], 30), { qty: 4 })],
    }
    const layout = solve(instance)
    expectLegal(instance, layout)
    expect(layout.sheets).toBe(1)
  })

  it('tucks triangles where boxes would need twice the card', () => {
    const triangle: Polygon = { outer: Float64Array.of(0, 0, 90, 0, 0, 90), holes: [] }
    const instance: NestInstance = { sheet: SHEET, gap: 1, pieces: [piece('t', triangle, { qty: 6 })] }
    const layout = solve(instance, 60)
    expectLegal(instance, layout)
    // Six boxes of 90 × 90 take two sheets of 190 × 190; the triangles take one.
    expect(layout.sheets).toBe(1)
  })

  it('gives the same layout for the same seed and steps, and never a worse one with more', () => {
    const instance: NestInstance = {
      sheet: SHEET,
      gap: 2,
      pieces: [
        piece('a', rectangle([0, 0], 70, 40), { qty: 5, turns: 'free' }),
        piece('b', ellipse([0, 0], 25), { qty: 6 }),
      ],
    }
    expect(solve(instance, 20)).toEqual(solve(instance, 20))
    let last = Infinity
    const nester = new Nester(instance, 3)
    for (let k = 0; k < 40; k++) {
      nester.step()
      expect(nester.best.score).toBeLessThanOrEqual(last)
      last = nester.best.score
    }
  })

  it('keeps groups on one sheet, or on sheets of their own, where they say so', () => {
    const groups = (sharing: NestPiece['sharing']): NestInstance => ({
      sheet: SHEET,
      gap: 2,
      pieces: [
        { ...piece('a', rectangle([0, 0], 90, 90), { qty: 3 }), group: 'a' },
        { ...piece('b', rectangle([0, 0], 60, 60), { qty: 4 }), group: 'b', ...(sharing ? { sharing } : {}) },
        { ...piece('c', ellipse([0, 0], 12), { qty: 3 }), group: 'c' },
      ],
    })
    const sheetsOf = (layout: ReturnType<typeof solve>, id: string) => [
      ...new Set(layout.placements.filter((p) => p.id === id).map((p) => p.sheet)),
    ]
    for (const sharing of [undefined, 'one-sheet', 'own-sheets'] as const) {
      const layout = solve(groups(sharing), 20)
      expectLegal(groups(sharing), layout)
      if (sharing === 'one-sheet') expect(sheetsOf(layout, 'b')).toHaveLength(1)
      if (sharing === 'own-sheets')
        expect(
          [...sheetsOf(layout, 'a'), ...sheetsOf(layout, 'c')].filter((s) =>
            sheetsOf(layout, 'b').includes(s),
          ),
        ).toEqual([])
    }
    // What no single sheet holds is laid all the same.
    const many: NestInstance = {
      sheet: SHEET,
      gap: 2,
      pieces: [{ ...piece('d', rectangle([0, 0], 90, 90), { qty: 6 }), group: 'd', sharing: 'one-sheet' }],
    }
    expectLegal(many, solve(many, 6))
  })

  it('turns nothing that has to keep its way', () => {
    const instance: NestInstance = {
      sheet: { w: 110, h: 60, margin: 0 },
      gap: 0,
      pieces: [piece('tall', rectangle([0, 0], 20, 50), { qty: 3, turns: 'fixed' })],
    }
    expectLegal(instance, solve(instance))
  })

  it('says at once what is larger than a sheet', () => {
    const instance: NestInstance = {
      sheet: SHEET,
      gap: 2,
      pieces: [piece('door', rectangle([0, 0], 195, 20))],
    }
    expect(() => new Nester(instance)).toThrow(BadInput)
    expect(() => new Nester(instance)).toThrow(/door: larger than the 190 × 190 mm/)
  })

  it('takes a piece just as large as what can be cut', () => {
    const exact: NestInstance = { sheet: SHEET, gap: 0, pieces: [piece('q', rectangle([0, 0], 190, 190))] }
    expect(solve(exact).sheets).toBe(1)
  })
})

describe('instance files', () => {
  const read = (outer: number[][], holes: number[][][] = []) =>
    readInstance(JSON.stringify({ sheet: { w: 100, h: 100 }, pieces: [{ id: 'a', outer, holes }] }))
      .pieces[0]!.shape

  it('keep the points of a sound shape to the last digit, and untie one that crosses itself', () => {
    const third = 1 / 3
    const frame = read([[0, 0], [0, 30 + third], [40 + third, 30 + third], [40 + third, 0]], [[[5, 5], [20 + third, 5], [20 + third, 20], [5, 20]]]) // prettier-ignore
    expect([...frame.outer]).toContain(40 + third)
    expect([...frame.holes[0]!]).toContain(20 + third)
    expect(polygonArea(frame)).toBeCloseTo((40 + third) * (30 + third) - (15 + third) * 15, 9)
    const bow = read([[0, 0], [20, 20], [20, 0], [0, 30]]) // prettier-ignore
    expect(polygonArea(bow)).toBeGreaterThan(50)
    expect(bow.outer.length / 2).toBe(3)
  })

  it('are read with defaults and refused in one sentence', () => {
    const good = readInstance('{"sheet":{"w":100,"h":80},"pieces":[{"id":7,"outer":[[0,0],[10,0],[10,10]]}]}')
    expect(good.pieces[0]).toMatchObject({ id: '7', qty: 1, turns: 'free' })
    expect(good.sheet.margin).toBe(0)
    expect(() => readInstance('[')).toThrow('this is not JSON')
    expect(() => readInstance('{"sheet":{"w":100,"h":80},"pieces":[]}')).toThrow(BadInput)
    expect(() =>
      readInstance('{"sheet":{"w":1,"h":1},"pieces":[{"id":"a","outer":[[0,0],[1,1],[2,2]]}]}'),
    ).toThrow(/“a” has no area/)
  })
})

describe('loads of a project', () => {
  it.each(demoNames)(
    '%s: every piece lies once on a sheet of its layer’s paper, and all card is there',
    (name) => {
      const project = demo(name)
      const runs = layoutsOf(project)
      for (const { run, layout } of runs) expectLegal(run.instance, layout)
      const list = planLoads(project, { runs })
      const laid = list.flatMap((load) => load.pieces.map((p) => p.shape))
      const layers = builtLayers(project)
      expect(laid).toHaveLength(layers.reduce((n, l) => n + cutPieces(l).length, 0))
      expect(regionArea(laid)).toBeCloseTo(
        layers.reduce((sum, l) => sum + regionArea(layerRegion({ pieces: cutPieces(l) })), 0),
        0,
      )
      for (const load of list)
        for (const p of load.pieces)
          expect(project.layers.find((l) => l.id === p.layerId)!.paperId).toBe(load.paper.id)
    },
  )

  it('leave hard papers to the last and change setting and mat least', () => {
    const project = demo('tide-rose')
    const list = planLoads(project, { runs: layoutsOf(project) })
    expect(list.at(-1)!.paper.finish).toBe('glitter')
    expect(list.at(-1)!.setting).toMatchObject({ tack: 'high', passes: 2 })
    const asBuilt = planLoads(setPlan(project, { cutOrder: 'build' }), { runs: layoutsOf(project) })
    expect(asBuilt.map((load) => load.folios[0])).toEqual(['1', '2', '3', '4', '5', '6'])
    expect(changesOf(list)).toBeLessThanOrEqual(changesOf(asBuilt))
    expect(settingFor({ ...list[0]!.paper, finish: 'chipboard', thicknessMm: 2 }, starterCutter).passes).toBe(
      4,
    )
  })

  it('leave what is printed as late as that costs no change: its ink dries meanwhile', () => {
    const project = demo('kittiwake')
    const list = planLoads(project, { runs: layoutsOf(project) })
    const at = list.findIndex(({ pieces }) => pieces.some(({ printed }) => printed))
    const { tack } = list[at]!.setting
    expect(at).toBeGreaterThan(0)
    expect(list.slice(at + 1).map(({ setting }) => setting.tack)).not.toContain(tack)
    const bare = { ...project, layers: project.layers.map((layer) => ({ ...layer, print: null })) }
    expect(changesOf(list)).toBe(changesOf(planLoads(bare, { runs: layoutsOf(bare) })))
  })

  it('keep a clean off-cut that no piece reaches into', () => {
    const project = demo('harbour')
    for (const { offCut, pieces, paper } of planLoads(project, { runs: layoutsOf(project) })) {
      expect(offCut).not.toBeNull()
      const region = [rectangle([offCut!.x, offCut!.y], offCut!.widthMm, offCut!.heightMm)]
      for (const p of pieces)
        expect(regionArea(subtract([p.shape], region))).toBeCloseTo(polygonArea(p.shape), 1)
      expect(offCut!.x + offCut!.widthMm).toBeCloseTo(paper.widthMm, 6)
    }
  })

  it('take longer for more passes, longer outlines and more corners', () => {
    const project = demo('harbour')
    const list = planLoads(project, { runs: layoutsOf(project) })
    const byLayer = (folio: string) => list.find((load) => load.folios.includes(folio))!
    expect(byLayer('7').minutes).toBeGreaterThan(byLayer('1').minutes)
    expect(byLayer('1').outlineMm).toBeCloseTo(800, 3)
    // 800 mm at 60 mm/s, four corners, one lift, and a minute to load.
    // A sheet of 200 by 200 at 60 mm/s, four points, a way there and back: some 15 s, and a minute to put it in.
    expect(byLayer('1').minutes).toBeGreaterThan(1 + 800 / 60 / 60)
    expect(byLayer('1').minutes).toBeLessThan(1 + 22 / 60)
  })

  it('count copies and what to buy', () => {
    const project = setLayer(demo('harbour'), 'sky', { copies: 6 })
    const list = planLoads(project, { runs: layoutsOf(project) })
    const shell = sheetsNeeded(list).find((need) => need.paper.name === 'Shell')!
    expect([shell.sheets, shell.buy]).toEqual([6, 2])
    const codes = sheetSnags(project, layoutsOf(project), list).map((s) => s.code)
    expect(codes).toContain('short-of-paper')
  })

  it('say once what is loose, load by load', () => {
    const project = demo('dune-garden')
    const list = planLoads(project, { runs: layoutsOf(project) })
    const [loose, ...more] = sheetSnags(project, layoutsOf(project), list).filter(
      ({ code }) => code === 'loose-bits',
    )
    expect(more).toEqual([])
    const byLoad = list
      .map((load) => [load.number, load.pieces.filter((piece) => piece.loose).length] as const)
      .filter(([, count]) => count > 0)
    expect(byLoad.length).toBeGreaterThan(1)
    const total = byLoad.reduce((sum, [, count]) => sum + count, 0)
    expect(loose!.message).toBe(
      `Loads ${byLoad.map(([number, count]) => `${number} (${count})`).join(', ')} have ${total} loose bits to keep when weeding.`,
    )
  })
})

describe('layers without a paper', () => {
  it('stand on sheets by their colours, and nothing is to be bought for them yet', () => {
    const bare = ['#cc2222', '#2222cc', '#cc2222'].map((colour, i) => ({
      ...plate(`l${i}`, 2, [10 * i, 10, 40, 40]),
      colour,
    }))
    const list = planLoads(stack('card', ...bare), { runs: nestProject(stack('card', ...bare)) })
    expect(list.map((load) => [load.folios.toSorted(), load.paper.colour])).toEqual([
      [['1', '3'], '#cc2222'],
      [['2'], '#2222cc'],
    ])
    expect(list.every((load) => isStandIn(load.paper))).toBe(true)
    expect(
      sheetSnags(stack('card', ...bare), nestProject(stack('card', ...bare)), list).filter(
        (snag) => snag.code === 'short-of-paper',
      ),
    ).toEqual([])
  })
})

describe('the maker’s pins', () => {
  const project = demo('bon-voyage')
  const run = paperRuns(project)[0]!
  const { layerId, pieceId } = splitPartId(run.instance.pieces[0]!.id)
  const pin = { layerId, pieceId, copy: 0, sheet: 0, on: '', x: 60, y: 90, rotation: 0 }

  it('stay where they were put while the rest is laid round them', () => {
    const pinned = setPin(project, pin)
    const { layout } = layoutsOf(pinned).find((r) => r.run.paper.id === run.paper.id)!
    expect(layout.placements.find((p) => p.id === run.instance.pieces[0]!.id)).toMatchObject({
      x: 60,
      y: 90,
      sheet: 0,
    })
    expectLegal(paperRuns(pinned)[0]!.instance, layout)
  })

  it('are refused where they may not lie, with the reason', () => {
    const place = { id: run.instance.pieces[0]!.id, copy: 0, sheet: 0, x: 60, y: 90, rotation: 0 }
    const why = (...of: Parameters<typeof whyIllegal>) => {
      const said = whyIllegal(...of)
      return said && wordsIn(said, 'mm')
    }
    expect(why(run.instance, place, [])).toBeNull()
    expect(why(run.instance, { ...place, x: -5 }, [])).toMatch(/rim of 6\.3 mm/)
    const two: NestInstance = {
      sheet: SHEET,
      gap: 2,
      pieces: [piece('a', rectangle([0, 0], 20, 20), { qty: 2 })],
    }
    const at = (x: number, copy: number) => ({ id: 'a', copy, sheet: 0, x, y: 50, rotation: 0 })
    expect(why(two, at(60, 1), [at(50, 0)])).toBe('lies over another piece')
    expect(why(two, at(71, 1), [at(50, 0)])).toBe('is nearer than 2 mm to another piece')
    expect(why(two, at(72, 1), [at(50, 0)])).toBeNull()
    expect(why(two, { ...at(60, 1), sheet: 1 }, [at(50, 0)])).toBeNull()
    const off = setPin(project, { ...pin, x: 2 })
    const runs = layoutsOf(off)
    expect(sheetSnags(off, runs, planLoads(off, { runs })).map((s) => s.code)).toContain('pin-illegal')
  })
})
