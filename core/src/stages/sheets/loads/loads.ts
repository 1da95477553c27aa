// The sheets in the order in which they go through the cutter, and what to know before each.
import {
  compose,
  mapPolygon,
  perimeter,
  polygonArea,
  polygonBox,
  polygonRings,
  rectangle,
  rotation,
  translation,
  type Polygon,
  type Ring,
} from '../../../base/geometry'
import { layerFigures, mapMarks, noMarks, type Marks } from '../../layers'
import { cutLayers, type CutLayer, type Paper, type Project, type Snag } from '../../../project'
import { groupBy } from '../../../base'
import { cutPath, turnAt, type CutPath } from './cut-path'
import type { NestLayout, Placement } from '../nest/instance'
import { isStandIn, splitPartId, type NestedRun, type PaperRun } from '../runs/paper-runs'
import { whyIllegal } from '../nest/exact/legal'
import { BLADE_CARE_M, cuttingMinutes, settingFor, type CutSetting } from './settings'

/** A piece where it lies on a sheet, mm from the sheet's corner. */
export interface LaidPiece {
  /** Of its layer among all that are cut here. */
  layerId: string
  pieceId: string
  /** Of its layer, with a guest's letter before it. */
  folio: string
  /** With a guest's name before it. */
  layerName: string
  /** The guest project it belongs to; null for the project's own. */
  guestId: string | null
  placement: Placement
  shape: Polygon
  /** Number, folds and place marks, where they lie on the sheet. */
  marks: Marks
  loose: boolean
}

export interface OffCut {
  x: number
  y: number
  widthMm: number
  heightMm: number
}

export interface Load {
  id: string
  /** The run it belongs to. */
  runId: string
  /** From 1, in cutting order. */
  number: number
  paper: Paper
  /** Which sheet of its run: from 0; off-cuts and sheets of other sizes are −1, −2, … */
  sheet: number
  /** Which of the sheets of this paper and size, from 1; 0 for off-cuts. */
  nth: number
  /** Which of its run's whole sheets, or of its off-cuts, from 1. */
  nthOfRun: number
  /** The off-cut that is cut, where it is no whole sheet. */
  onOffCut: { id: string; label: string } | null
  /** What is cut into: the whole sheet or the off-cut, and the size of its box. */
  outline: Polygon
  widthMm: number
  heightMm: number
  /** Of its layers, from the back; guests' come last. */
  folios: string[]
  pieces: LaidPiece[]
  setting: CutSetting
  /** Order of everything that is drawn, scored and cut. */
  path: CutPath
  outlineMm: number
  minutes: number
  /** What one straight cut leaves whole; null where it would be narrower than 30 mm. */
  offCut: OffCut | null
  /** What must be done on the machine before this load; null where nothing changes. */
  change: string | null
  /** The blade wants care before this load: how far it has cut since (m), hard papers counted threefold. */
  bladeCareM: number | null
  utilisation: number
}

/** A clean off-cut narrower than this is not worth keeping (mm). */
const KEEP_MM = 30

/** What is written on a sheet's corner: its folios, and which sheet of several it is. */
export const loadTag = (load: Load): string =>
  load.folios.join('-') +
  (load.onOffCut ? '/off' : load.nthOfRun > 1 ? '/' : '') +
  (load.nthOfRun > 1 ? load.nthOfRun : '')

/** Loads in the order the plan asks for: fewest changes (hard-wearing papers last), or back to front. */
export function loads(
  project: Project,
  runs: readonly NestedRun[],
  marks: ReadonlyMap<string, Marks> = new Map(),
): Load[] {
  const layers = new Map(cutLayers(project).map((layer) => [layer.id, layer]))
  const loose = new Set(
    [...layers].flatMap(([id, { layer }]) => layerFigures(layer).looseBits.map((bit) => `${id}/${bit}`)),
  )
  const list = runs.flatMap(({ run, layout }) =>
    sheetsOf(layout).map((sheet, i, all) => {
      const pieces = layout.placements
        .filter((p) => p.sheet === sheet)
        .map((p) => laid(p, run.instance.pieces, layers, loose, marks))
      const isOffCut = (s: number) => s < 0 && run.bins[-1 - s]!.offCut !== null
      const nthOfRun = all.slice(0, i + 1).filter((s) => isOffCut(s) === isOffCut(sheet)).length
      return { ...makeLoad(project, run, sheet, pieces), nthOfRun }
    }),
  )
  list.sort(byChanges)
  if (project.plan.cutOrder === 'build') list.sort((a, b) => folioOrder(a.folios[0]!, b.folios[0]!))
  if (project.plan.cutOrder === 'hand') list.sort(byHand(project.plan.loadOrder))
  let bladeM = 0
  return list.map((load, i) => {
    const due = bladeM >= BLADE_CARE_M
    if (due) bladeM = 0
    const bladeCareM = due ? BLADE_CARE_M : null
    bladeM += (load.outlineMm / 1000) * load.setting.passes * (load.setting.hardOnBlade ? 3 : 1)
    return { ...load, number: i + 1, change: changeBefore(list[i - 1], load), bladeCareM }
  })
}

const byHand = (order: readonly string[]) => (a: Load, b: Load) => {
  const place = (load: Load) => (order.includes(load.id) ? order.indexOf(load.id) : Infinity)
  return place(a) === place(b) ? 0 : place(a) - place(b)
}

/** The sheets of a layout that bear pieces: off-cuts first. */
function sheetsOf(layout: NestLayout): number[] {
  const offCuts = [...new Set(layout.placements.map((p) => p.sheet).filter((sheet) => sheet < 0))].sort(
    (a, b) => b - a,
  )
  return [...offCuts, ...Array.from({ length: layout.sheets }, (_, sheet) => sheet)]
}

function laid(
  p: Placement,
  parts: readonly { id: string; shape: Polygon }[],
  layers: ReadonlyMap<string, CutLayer>,
  loose: Set<string>,
  marks: ReadonlyMap<string, Marks>,
): LaidPiece {
  const { layerId, pieceId } = splitPartId(p.id)
  const part = parts.find((piece) => piece.id === p.id)!
  const map = compose(translation(p.x, p.y), rotation(p.rotation))
  const own = marks.get(p.id)
  const cut = layers.get(layerId)!
  return {
    layerId,
    pieceId,
    folio: cut.folio,
    guestId: cut.guest?.projectId ?? null,
    layerName: cut.guest ? `${cut.guest.name}: ${cut.layer.name}` : cut.layer.name,
    placement: p,
    shape: mapPolygon(map, part.shape),
    marks: own ? mapMarks(map, own) : noMarks(),
    loose: loose.has(p.id),
  }
}

function makeLoad(
  project: Project,
  run: PaperRun,
  sheet: number,
  pieces: LaidPiece[],
): Omit<Load, 'nthOfRun'> {
  const bin = sheet < 0 ? run.bins[-1 - sheet]! : null
  const { paper, offCut } = bin ?? { paper: run.paper, offCut: null }
  const outline = bin
    ? run.instance.offCuts![-1 - sheet]!.outline
    : rectangle(0, 0, paper.widthMm, paper.heightMm)
  const { maxX: widthMm, maxY: heightMm } = polygonBox(outline)
  const nth = offCut
    ? 0
    : sheet >= 0
      ? sheet + 1
      : run.bins.slice(0, -sheet).filter((other) => !other.offCut && other.paper.id === paper.id).length
  const setting = settingFor(paper)
  const path = cutPath(pieces, heightMm, project.plan.numbers)
  const rings = pieces.flatMap((piece) => polygonRings(piece.shape))
  const outlineMm = rings.reduce((sum, ring) => sum + perimeter(ring), 0)
  const corners = rings.reduce((sum, ring) => sum + sharpCorners(ring), 0)
  const { cutter } = project.drawer
  const area = pieces.reduce((sum, piece) => sum + polygonArea(piece.shape), 0)
  return {
    id: offCut ? `${paper.id}-off-${offCut.id}` : `${paper.id}-${nth}`,
    runId: run.id,
    number: 0,
    paper,
    sheet,
    nth,
    onOffCut: offCut && { id: offCut.id, label: offCut.label },
    outline,
    widthMm,
    heightMm,
    folios: [...new Set(pieces.map((piece) => piece.folio))].sort(folioOrder),
    pieces,
    setting,
    path,
    outlineMm,
    minutes: cuttingMinutes(outlineMm, corners, rings.length, setting.passes, cutter),
    offCut: offCut ? null : cleanOffCut(paper, pieces),
    change: null,
    bladeCareM: null,
    utilisation: area / polygonArea(outline),
  }
}

/** Corners sharper than 30°, where the blade slows down. */
function sharpCorners(ring: Ring): number {
  let count = 0
  for (let i = 0; i < ring.length; i += 2) if (turnAt(ring, i) > Math.PI / 6) count++
  return count
}

/** The larger of the two rectangles that a straight cut across the sheet, behind all pieces, keeps whole. */
function cleanOffCut(paper: Paper, pieces: readonly LaidPiece[]): OffCut | null {
  let right = 0
  let bottom = 0
  for (const piece of pieces) {
    const b = polygonBox(piece.shape)
    right = Math.max(right, b.maxX)
    bottom = Math.max(bottom, b.maxY)
  }
  // Leave the blade's width and a ruler's safety between the cut and the pieces.
  const x = Math.ceil(right + 1)
  const y = Math.ceil(bottom + 1)
  const side: OffCut = { x, y: 0, widthMm: paper.widthMm - x, heightMm: paper.heightMm }
  const foot: OffCut = { x: 0, y, widthMm: paper.widthMm, heightMm: paper.heightMm - y }
  const best = side.widthMm * side.heightMm >= foot.widthMm * foot.heightMm ? side : foot
  return Math.min(best.widthMm, best.heightMm) >= KEEP_MM ? best : null
}

/** Own layers from the back, then guest by guest. */
const folioOrder = (a: string, b: string): number => a.localeCompare(b, 'en', { numeric: true })

const TACKS = ['low', 'medium', 'high']

function byChanges(a: Load, b: Load): number {
  return (
    Number(a.setting.hardOnBlade) - Number(b.setting.hardOnBlade) ||
    TACKS.indexOf(b.setting.tack) * Number(!b.setting.hardOnBlade) -
      TACKS.indexOf(a.setting.tack) * Number(!a.setting.hardOnBlade) ||
    a.setting.name.localeCompare(b.setting.name) ||
    folioOrder(a.folios[0]!, b.folios[0]!) ||
    a.sheet - b.sheet
  )
}

function changeBefore(before: Load | undefined, load: Load): string | null {
  const { setting } = load
  const words: string[] = []
  if (!before || before.setting.name !== setting.name) words.push(`setting “${setting.name}”`)
  if (!before || before.setting.tack !== setting.tack) words.push(`${setting.tack} tack mat`)
  if (before?.setting.hardOnBlade && !setting.hardOnBlade) words.push('clean the blade')
  return words.length > 0 ? words.join(', ') : null
}

/** How often setting or mat change between loads. */
export const changesOf = (list: readonly Load[]): number =>
  list.filter((load, i) => i > 0 && load.change !== null).length

/** Findings of the sheets stage: loose bits to keep, papers that run short. */
export function sheetSnags(project: Project, runs: readonly NestedRun[], list: readonly Load[]): Snag[] {
  const snags: Snag[] = pinSnags(project, runs)
  for (const load of list) {
    const loose = load.pieces.filter((piece) => piece.loose)
    if (loose.length > 0)
      snags.push({
        code: 'loose-bits',
        stage: 'sheets',
        severity: 'caution',
        layer: ownLayer(project, loose[0]!.layerId),
        at: null,
        message: `Load ${load.number} has ${loose.length} loose ${loose.length === 1 ? 'bit' : 'bits'} to keep when weeding (${load.paper.name}).`,
      })
  }
  for (const need of sheetsNeeded(list))
    if (need.buy > 0 && !isStandIn(need.paper))
      snags.push({
        code: 'short-of-paper',
        stage: 'sheets',
        severity: 'caution',
        layer: null,
        at: null,
        message: `${need.sheets} ${need.sheets === 1 ? 'sheet' : 'sheets'} of ${need.paper.name} needed, ${need.paper.count} at hand: buy ${buyWords(need)}.`,
      })
  return snags
}

/** Pieces pinned by hand to where they may not lie. */
function pinSnags(project: Project, runs: readonly NestedRun[]): Snag[] {
  return runs.flatMap(({ run }) =>
    (run.instance.pinned ?? []).flatMap((pin): Snag[] => {
      const why = whyIllegal(run.instance, pin, run.instance.pinned ?? [])
      if (!why) return []
      const { layerId, pieceId } = splitPartId(pin.id)
      const name = run.layers.find((layer) => layer.id === layerId)?.layer.name ?? layerId
      return [
        {
          code: 'pin-illegal',
          stage: 'sheets',
          severity: 'stop',
          layer: ownLayer(project, layerId),
          at: null,
          message: `A pinned piece of “${name}” ${why}.`,
          mend: { label: 'Take the pin out', action: { kind: 'drop-pin', layerId, pieceId, copy: pin.copy } },
        },
      ]
    }),
  )
}

/** The layer where it is the project's own, and no guest's. */
const ownLayer = (project: Project, layerId: string): string | null =>
  project.layers.some((layer) => layer.id === layerId) ? layerId : null

export interface SheetsNeeded {
  paper: Paper
  /** Whole sheets, and off-cuts beside them. */
  sheets: number
  offCuts: number
  /** Sheets that are short, and the packs they come in. */
  buy: number
  packs: number
  /** Of all whole sheets used, bought or not. */
  cost: number
}

/** Sheets of each paper against what is at hand. */
export function sheetsNeeded(list: readonly Load[]): SheetsNeeded[] {
  const byPaper = groupBy(list, (load) => load.paper.id)
  return [...byPaper.values()].map((group) => {
    const { paper } = group[0]!
    const sheets = group.filter((load) => !load.onOffCut).length
    const buy = Math.max(0, sheets - paper.count)
    return {
      paper,
      sheets,
      offCuts: group.length - sheets,
      buy,
      packs: Math.ceil(buy / paper.perPack),
      cost: sheets * paper.price,
    }
  })
}

/** “3”, or “1 pack of 10” where it is sold so. */
export const buyWords = ({ buy, packs, paper }: SheetsNeeded): string =>
  paper.perPack === 1 ? String(buy) : `${packs} ${packs === 1 ? 'pack' : 'packs'} of ${paper.perPack}`
