// Sheets cut, work changed, sheets cut again, in any order: a walk at random, after every step of which the books must balance.
import { describe, expect, it } from 'vitest'
import { plate, stack } from '../../../test/stack'
import { Cache, groupBy, seededRandom } from '../../base'
import { pathToRegion, polygonArea, polygonToPath, rectangle } from '../../base/geometry'
import { Planner } from '../../planner'
import {
  assignPaper,
  builtLayers,
  fromOffCuts,
  markSpoilt,
  refreshPapers,
  setLayer,
  setPlan,
  SPOILT,
  takeOffCuts,
  transformLayers,
  uncut,
  wentBack,
  type CutSheet,
  type Paper,
  type Project,
} from '../../project'
import { nodes } from '../index'
import { starterStock } from '../paper'
import { freezeSheets, laidKey, sheetOf } from './frozen'
import { pinAll, putPieces, roomFor } from './hand'
import { loadTag, type Load } from './loads/loads'
import { whyIllegal } from './nest/exact/legal'
import type { NestLayout, Placement } from './nest/instance'
import { laidAgain } from './again'
import { Nester } from './nest/nester'
import { keptLayout } from './runs/kept-layouts'
import type { NestedRun } from './runs/paper-runs'
import { partId, splitPartId } from './runs/parts'
import { toSend } from './sent'
import { takeDown, toNote, type TakenDown, type WhatIsCut } from './taken-down'
import { leftView } from './views'

/** A document with its drawer and layouts, and what was sent to a machine. */
class Desk {
  private readonly planner = new Planner(new Cache())
  private found = new Map<string, NestLayout>()
  sent: ReturnType<typeof toSend> | null = null
  saved: TakenDown[] = []
  readonly past: Project[] = []
  readonly bought: readonly Paper[]
  at = 1

  constructor(
    public project: Project,
    public stock: readonly Paper[],
  ) {
    this.bought = stock
    this.update()
  }

  update(project = this.project, stock = this.stock): void {
    this.project = refreshPapers(project, stock)
    this.stock = stock
    this.planner.update({ project: this.project, stock, found: this.found })
  }

  get loads(): Load[] {
    return this.planner.get(nodes.loads())
  }

  get cutLoads(): Load[] {
    return this.planner.get(nodes.cutLoads())
  }

  get runs() {
    return this.planner.get(nodes.nested())
  }

  /** Notes sheets as cut; clean off-cuts are kept. */
  freeze(sheets: readonly CutSheet[]): void {
    const ids = new Set(sheets.map(({ id }) => id))
    const left = this.planner.get(nodes.left()).map(leftView)
    const kept = left.filter(({ loadId, kind }) => ids.has(loadId) && kind === 'clean')
    const { project, stock, runs } = this
    const frozen = freezeSheets({ project, stock }, { sheets, runs, kept, at: this.at++ })
    this.take(frozen.found)
    this.update(frozen.project, frozen.stock)
  }

  /** Notes loads as cut as the page does. */
  note(what: WhatIsCut): string[] {
    const { project, stock, runs, loads } = this
    const now = { loads, left: this.planner.get(nodes.left()) }
    const { sheets, kept, asSaved } = toNote({ project, stock }, now, what)
    const frozen = freezeSheets({ project, stock }, { sheets, runs, kept, at: this.at++ })
    this.take(frozen.found)
    this.update(frozen.project, frozen.stock)
    return asSaved
  }

  isPinned({ runId }: Load, { id, copy }: Placement): boolean {
    const { pinned = [] } = this.runs.find(({ run }) => run.id === runId)!.run.instance
    return pinned.some((pin) => pin.id === id && pin.copy === copy)
  }

  take(found: readonly [string, NestLayout][]): void {
    this.found = new Map([...this.found, ...found])
  }
}

const PAPERS = starterStock().filter(({ finish }) => finish === 'smooth').slice(0, 3) // prettier-ignore

/** Three layers, three times; the paper in a smaller size too where that is asked for. */
function deskOf(sizes: 1 | 2): Desk {
  const small = stack(
    'frame',
    plate('back', 0, [0, 0, 180, 180]),
    plate('mid', 2, [0, 0, 90, 60], [100, 0, 80, 70], [0, 90, 60, 60]),
    plate('top', 2, [0, 0, 70, 50], [90, 0, 12, 12]),
  )
  const paper = PAPERS[0]!
  const half = { ...paper, id: `${paper.id}-small`, widthMm: 200, heightMm: 150, count: 4 }
  const stock = sizes === 2 ? [...PAPERS, half] : PAPERS
  const layers = small.layers.map((layer) => layer.id)
  return new Desk(assignPaper(setPlan(small, { batch: 3 }), layers, { paper, stock: [...stock] }), stock)
}

const areaOf = (path: string) => pathToRegion(path).reduce((sum, face) => sum + polygonArea(face), 0)

/** Sheets on which another layer lies beside one that wants its own. */
function badlyShared({ run, layout }: NestedRun): string[] {
  const alone = new Set(run.layers.filter(({ layer }) => layer.sharing === 'own-sheets').map(({ id }) => id))
  const bySheet = groupBy(layout.placements, ({ sheet }) => sheet)
  return [...bySheet].flatMap(([sheet, places]) => {
    const there = new Set(places.map(({ id }) => splitPartId(id).layerId))
    return there.size > 1 && [...there].some((id) => alone.has(id))
      ? [`sheet ${sheet} of ${run.id} is shared`]
      : []
  })
}

/** What is wrong in the books: nothing is cut twice or missing, no name is borne twice, the drawer holds what it should. */
function faultsOf({ project, stock, loads, cutLoads, runs, bought }: Desk): string[] {
  const faults: string[] = runs.flatMap(({ run }) => run.tooLarge?.parts ?? [])
  for (const { run, layout } of runs) {
    const { pinned = [] } = run.instance
    const key = ({ id, copy }: Placement) => `${id}#${copy}`
    const at = new Map(layout.placements.map((place) => [key(place), place]))
    for (const pin of pinned) {
      const place = at.get(key(pin))
      const stray = place
        ? Math.hypot(place.x - pin.x, place.y - pin.y) + Math.abs(place.rotation - pin.rotation)
        : 1
      if (stray > 1e-6 || place?.sheet !== pin.sheet) faults.push(`${key(pin)} is not where it is pinned`)
    }
    const fixed = new Set(pinned.map(key))
    for (const place of layout.placements)
      if (!fixed.has(key(place)) && whyIllegal(run.instance, place, layout.placements) !== null)
        faults.push(`${key(place)} may not lie where it does`)
    // Where they are pinned they lie as the maker has it.
    if (pinned.length === 0) faults.push(...badlyShared({ run, layout }))
  }
  const laid = loads.flatMap(({ pieces }) => pieces.map(({ layerId, pieceId }) => partId(layerId, pieceId)))
  for (const layer of builtLayers(project))
    for (const piece of layer.pieces) {
      const good = project.cut
        .filter(({ paper }) => paper.name === stock.find(({ id }) => id === layer.paperId)?.name)
        .flatMap(({ pieces }) => pieces)
        .filter((one) => one.layerId === layer.id && one.pieceId === piece.id && one.spoilt === null)
        .filter((one) => Math.abs(areaOf(one.path) / areaOf(piece.path) - 1) < 1e-4).length
      const id = partId(layer.id, piece.id)
      const wanted = Math.max(0, layer.copies * project.plan.batch - good)
      const there = laid.filter((one) => one === id).length
      if (there !== wanted) faults.push(`${id}: ${there} on the sheets for ${wanted}`)
    }
  const all = [...loads, ...cutLoads]
  const twice = (what: string, of: (load: Load) => string) => {
    const names = all.map(of)
    for (const name of names.filter((one, k) => names.indexOf(one) !== k))
      faults.push(`${what} ${name} twice`)
  }
  twice('id', ({ id }) => id)
  twice('number', ({ number }) => String(number))
  twice('tag', (load) => `${load.paper.name} ${loadTag(load)}`)
  const ticked = project.progress.done.filter((id) => id.startsWith('cut-')).toSorted()
  const cut = project.cut.map(({ id }) => `cut-${id}`).sort()
  if (ticked.join() !== cut.join()) faults.push(`ticked ${ticked.join()} for ${cut.join()}`)
  for (const paper of stock) {
    const before = bought.find(({ id }) => id === paper.id)!.count
    const used = project.cut.filter((one) => one.paper.id === paper.id).map(({ took }) => took.sheets)
    if (paper.count !== used.reduce((count, sheets) => count - sheets, before))
      faults.push(`${paper.name}: ${paper.count} sheets left`)
    for (const { onOffCut } of project.cut)
      if (paper.offCuts.some(({ id }) => id === onOffCut?.id))
        faults.push(`off-cut ${onOffCut!.id} is cut and there`)
  }
  return faults
}

/** Where everything lies, by sheet. */
const placesOf = (loads: readonly Load[]): string[] =>
  loads.flatMap(
    ({ runId, sheet, onOffCut, pieces }) =>
    pieces.map(({ layerId, pieceId, placement: { x, y, rotation } }) => [runId, onOffCut?.id ?? (sheet < 0 ? 'small' : 'sheet'), layerId, pieceId, x, y, rotation].join(' ')), // prettier-ignore
  )

/** A layer is to lie on one sheet: what of it is to be cut again may lay all anew. */
const isShared = ({ project }: Desk) => project.layers.some(({ sharing }) => sharing === 'one-sheet')

/** One step of the walk, and what it is called. */
type Step = (desk: Desk, one: <T>(list: readonly T[]) => T | undefined) => string

const STEPS: Step[] = [
  (desk, one) => {
    const load = one(desk.loads)
    if (!load) return 'nothing to cut'
    const lying = (loads: readonly Load[]) =>
      loads.flatMap(({ id, number, pieces }) => pieces.map(({ layerId, pieceId, placement: { x, y, rotation } }) => [id, number, layerId, pieceId, x, y, rotation].join(' '))).sort() // prettier-ignore
    const others = lying(desk.loads.filter((other) => other !== load))
    const pinned = desk.runs.flatMap(({ run }) => run.instance.pinned ?? []).length
    const held = load.pieces.filter(({ placement }) => desk.isPinned(load, placement)).length
    desk.freeze([sheetOf(desk.project, load, desk)])
    // All others lie as they lay, under the names they had, and what was pinned of them is.
    expect(lying(desk.loads), `cut ${load.id}`).toEqual(others)
    const rest = desk.runs.flatMap(({ run }) => run.instance.pinned ?? []).length
    // A sheet that is like the one that was cut may keep its pin.
    expect(rest).toBeGreaterThanOrEqual(pinned - held)
    expect(rest).toBeLessThanOrEqual(pinned)
    return `cut ${load.id}`
  },
  (desk, one) => {
    const load = one(desk.loads)
    const others = placesOf(desk.loads.filter((other) => other !== load))
    const whole = new Set(load?.pieces.slice(1).map(laidKey))
    if (load) desk.freeze([sheetOf(desk.project, load, { stock: desk.stock, whole })])
    if (!isShared(desk)) expect(placesOf(desk.loads), `cut ${load?.id} in part`).toEqual(expect.arrayContaining(others)) // prettier-ignore
    return `cut ${load?.id} but for one`
  },
  (desk, one) => {
    const load = one(desk.loads)
    if (load) desk.sent = toSend(desk.project, load, desk.stock)
    return `send ${load?.id}`
  },
  (desk) => {
    const { sent } = desk
    if (!sent || desk.project.cut.some(({ id }) => id === sent.sheet.id)) return 'nothing is sent'
    // A machine asks for a sheet that is there.
    const { onOffCut, paper } = sent.sheet
    const own = desk.stock.find(({ id }) => id === paper.id)!
    if (onOffCut && !own.offCuts.some(({ id }) => id === onOffCut.id)) return 'its off-cut is gone'
    desk.freeze([sent.sheet])
    return `machine has cut ${sent.sheet.id}`
  },
  (desk) => {
    desk.saved = desk.loads.map((load) => takeDown(desk.project, load, desk.stock))
    return 'save files'
  },
  (desk, one) => {
    const load = one(desk.loads)
    const asSaved = load ? desk.note({ loadIds: [load.id], saved: desk.saved }) : []
    return `cut ${load?.id} from its file${asSaved.length > 0 ? ', which is older' : ''}`
  },
  (desk, one) => {
    const sheet = one(desk.project.cut)
    if (sheet) {
      const { project, stock } = uncut(desk, sheet.id)
      desk.update(project, stock)
    }
    return `take back ${sheet?.id}`
  },
  (desk, one) => {
    const sheet = one(desk.project.cut)
    const what = one([...SPOILT, null])!
    if (!sheet) return 'nothing to spoil'
    const others = placesOf(desk.loads)
    const isWorse = sheet.pieces[0]!.spoilt === null && what !== null
    const spoilt = markSpoilt(desk.project, { sheetId: sheet.id, index: 0 }, what)
    const next = fromOffCuts(desk.project, spoilt, desk.stock)
    desk.take(laidAgain(next, desk.runs).map((one) => keptLayout(one)))
    desk.update(next)
    if (isWorse && !isShared(desk)) expect(placesOf(desk.loads), 'spoilt').toEqual(expect.arrayContaining(others)) // prettier-ignore
    return `first of ${sheet.id}: ${what}`
  },
  (desk, one) => {
    desk.update(setPlan(desk.project, { batch: one([1, 2, 3, 4])! }))
    return `batch ${desk.project.plan.batch}`
  },
  (desk, one) => {
    const layer = one(desk.project.layers)!
    desk.update(setLayer(desk.project, layer.id, { copies: one([1, 2])! }))
    return `copies of ${layer.id}`
  },
  (desk) => {
    const ids = desk.stock.map(({ id }) => id)
    desk.update(takeOffCuts(desk.project, desk.stock, ids))
    return 'take off-cuts'
  },
  (desk, one) => {
    const layer = one(desk.project.layers)!
    const by = one([0.9, 1 / 0.9])!
    desk.update(transformLayers(desk.project, [by, 0, 0, by, 0, 0], [layer.id]))
    return `scale ${layer.id}`
  },
  (desk, one) => {
    const layer = one(desk.project.layers)!
    desk.update(transformLayers(desk.project, [0, 1, -1, 0, 200, 3], [layer.id]))
    return `turn ${layer.id}`
  },
  (desk, one) => {
    const layer = one(desk.project.layers)!
    desk.update(assignPaper(desk.project, [layer.id], { paper: one(desk.stock)!, stock: [...desk.stock] }))
    return `paper of ${layer.id}`
  },
  (desk, one) => {
    desk.update(setPlan(desk.project, { gapMm: one([1, 2, 5])!, useOffCuts: one([true, false])! }))
    return `gap ${desk.project.plan.gapMm}`
  },
  (desk, one) => {
    const nested = one(desk.runs)
    const place = one(nested?.layout.placements ?? [])
    const room = nested && place && roomFor(nested, [place], one([0, 1, 2])!)
    const put = room && putPieces(desk.project, { nested, places: room })
    if (!put?.ok) return 'sent nothing elsewhere'
    desk.take([put.found])
    desk.update(pinAll(desk.project, put.pins))
    return `send ${place!.id}#${place!.copy} to sheet ${put.pins[0]!.sheet}`
  },
  (desk, one) => {
    const nested = one(desk.runs)
    if (!nested) return 'nothing to search'
    const nester = new Nester(nested.run.instance, one([3, 4])!)
    for (let k = 0; k < 4; k++) nester.step()
    desk.take([keptLayout({ run: nested.run, layout: nester.best })])
    desk.update()
    return `search ${nested.run.id}`
  },
  (desk, one) => {
    const layer = one(desk.project.layers)!
    desk.update(setLayer(desk.project, layer.id, { leftOut: one([true, false])!, optional: true }))
    return `without ${layer.id}`
  },
  (desk, one) => {
    const layer = one(desk.project.layers)!
    desk.update(
      setLayer(desk.project, layer.id, { sharing: one(['any', 'one-sheet', 'own-sheets'] as const)! }),
    )
    return `sharing of ${layer.id}`
  },
  (desk) => {
    desk.past.push(desk.project)
    return 'keep a version'
  },
  (desk, one) => {
    const past = one(desk.past)
    if (past) desk.update(wentBack(past, desk.project))
    return `back to version ${past ? desk.past.indexOf(past) : 'none'}`
  },
  (desk, one) => {
    const nested = one(desk.runs)
    const place = one(nested?.layout.placements ?? [])
    const put = nested && place && putPieces(desk.project, { nested, places: [place] })
    if (!put?.ok) return 'pinned nothing'
    desk.take([put.found])
    desk.update(pinAll(desk.project, put.pins))
    return `pin ${place!.id}#${place!.copy}`
  },
]

describe('what is pinned', () => {
  it('stays on its off-cut when another comes before it, and is laid anew when it is gone', () => {
    const desk = deskOf(1)
    const [paper] = desk.stock
    const offCut = (id: string, side: number) => ({
      id,
      label: id,
      path: polygonToPath(rectangle([0, 0], side, side)),
    })
    const hold = (...offCuts: Paper['offCuts']) => {
      const stock = desk.stock.with(0, { ...paper!, offCuts })
      desk.update(takeOffCuts(desk.project, stock, [paper!.id]), stock)
    }
    hold(offCut('wide', 200))
    const nested = desk.runs[0]!
    const place = nested.layout.placements.find(({ sheet }) => sheet === -1)!
    const put = putPieces(desk.project, { nested, places: [place] })
    if (!put.ok) throw new Error('it may not lie where it lies')
    desk.update(pinAll(desk.project, put.pins))
    const where = () => {
      const load = desk.loads.find(({ pieces }) => pieces.some((p) => p.placement.id === place.id && p.placement.copy === place.copy))! // prettier-ignore
      const { placement } = load.pieces.find((p) => p.placement.id === place.id && p.placement.copy === place.copy)! // prettier-ignore
      return [load.onOffCut?.id ?? 'sheet', placement.x.toFixed(3), placement.y.toFixed(3)]
    }
    const there = ['wide', place.x.toFixed(3), place.y.toFixed(3)]
    expect(where()).toEqual(there)
    hold(offCut('wide', 200), offCut('narrow', 20))
    expect(where()).toEqual(there)
    hold(offCut('narrow', 20))
    expect(where()[0]).toBe('sheet')
    expect(faultsOf(desk)).toEqual([])
    hold(offCut('wide', 200))
    expect(where()).toEqual(there)
  })

  it('may leave a sheet before it empty, which is then no load', () => {
    const desk = deskOf(1)
    const [nested] = desk.runs
    const first = nested!.layout.placements.filter(({ sheet }) => sheet === 0)
    const places = first.map((place) => ({ ...place, sheet: nested!.layout.sheets }))
    const put = putPieces(desk.project, { nested: nested!, places })
    if (!put.ok) throw new Error('there is room on a sheet more')
    const before = desk.loads
    desk.take([put.found])
    desk.update(pinAll(desk.project, put.pins))
    expect(desk.loads).toHaveLength(before.length)
    expect(desk.loads.every(({ pieces }) => pieces.length > 0)).toBe(true)
    expect(faultsOf(desk)).toEqual([])
  })
})

describe('cut, changed and cut again', () => {
  it('of a paper in two sizes the other loads lie as they lay, whichever is cut first', () => {
    let mixed = 0
    for (let seed = 1; seed <= 5; seed++) {
      const random = seededRandom(seed)
      const rects = Array.from({ length: 14 }, (_, k): [number, number, number, number] => [200 * k, 0, 30 + 120 * random(), 30 + 100 * random()]) // prettier-ignore
      const bare = stack('free', plate('a', 0, ...rects.slice(0, 7)), plate('b', 2, ...rects.slice(7)))
      const large = { ...PAPERS[0]!, count: 3 }
      const small = { ...large, id: 'small', widthMm: 200, heightMm: 150, count: 4, price: large.price * 0.3 }
      const stock = [large, small]
      const desk = new Desk(assignPaper(setPlan(bare, { batch: 2 }), ['a', 'b'], { paper: large, stock }), stock) // prettier-ignore
      const lying = (loads: readonly Load[]) =>
        loads.map(({ id, number, pieces }) => [id, number, ...pieces.map(({ pieceId, placement: { x, y, rotation } }) => [pieceId, x, y, rotation].join(' ')).toSorted()].join('|')).toSorted() // prettier-ignore
      if (new Set(desk.loads.map(({ paper }) => paper.id)).size > 1) mixed++
      while (desk.loads.length > 0) {
        const load = desk.loads[Math.floor(random() * desk.loads.length)]!
        const others = lying(desk.loads.filter((other) => other !== load))
        desk.freeze([sheetOf(desk.project, load, desk)])
        expect(lying(desk.loads), `seed ${seed}: ${load.id}`).toEqual(others)
        expect(faultsOf(desk)).toEqual([])
      }
    }
    expect(mixed).toBeGreaterThan(2)
  })

  it.each([1, 2, 3, 4])('the books balance after every step (seed %i)', (seed) => {
    const random = seededRandom(seed)
    const one = <T>(list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)]
    const desk = deskOf(seed % 4 === 0 ? 2 : 1)
    const told: string[] = []
    const steps = seed % 4 === 0 ? 20 : 40
    for (let k = 0; k < steps; k++) {
      const { cut } = desk.project
      told.push(one(STEPS)!(desk, one))
      expect(faultsOf(desk), told.join('; ')).toEqual([])
      // What was cut is as it was, but for what became of its pieces.
      const bare = (sheets: readonly CutSheet[]) =>
        sheets.map((sheet) => ({
          ...sheet,
          pieces: sheet.pieces.map((piece) => ({ ...piece, spoilt: null })),
        }))
      const kept = cut.filter(({ id }) => desk.project.cut.some((sheet) => sheet.id === id))
      expect(bare(desk.project.cut).slice(0, kept.length), told.join('; ')).toEqual(bare(kept))
    }
  })
})
