// The sheets in the order in which they go through the cutter, and what to know before each.
import { compose, mapPolygon, perimeter, polygonArea, polygonBox, polygonRings, rectangle, rotation, translation, type Polygon, type Ring } from '../geometry'
import { layerFigures, mapMarks, noMarks, type Marks } from '../layers'
import { builtLayers, groupBy, type Paper, type Project, type Snag } from '../project'
import { cutPath, turnAt, type CutPath } from './cut-path'
import type { NestLayout, Placement } from './nest/instance'
import { splitPartId, type NestedRun, type PaperRun } from './parts'
import { whyIllegal } from './nest/legal'
import { BLADE_CARE_M, cuttingMinutes, settingFor, type CutSetting } from './settings'

/** A piece where it lies on a sheet, mm from the sheet's corner. */
export interface LaidPiece {
  layerId: string
  pieceId: string
  /** Folio of its layer. */
  folio: number
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
  /** From 1, in cutting order. */
  number: number
  paper: Paper
  /** Which sheet of its paper, from 0; off-cuts are −1, −2, … */
  sheet: number
  /** The off-cut that is cut, where it is no whole sheet. */
  onOffCut: { id: string; label: string } | null
  /** What is cut into: the whole sheet or the off-cut, and the size of its box. */
  outline: Polygon
  widthMm: number
  heightMm: number
  folios: number[]
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
export const loadTag = (load: Load): string => load.folios.join('-') + (load.onOffCut ? '/off' : load.sheet > 0 ? `/${load.sheet + 1}` : '')

/** Loads in the order the plan asks for: fewest changes (hard-wearing papers last), or back to front. */
export function loads(project: Project, runs: readonly NestedRun[], marks: ReadonlyMap<string, Marks> = new Map()): Load[] {
  const folios = new Map(builtLayers(project).map((layer, i) => [layer.id, i + 1]))
  const loose = new Set(builtLayers(project).flatMap((layer) => layerFigures(layer).looseBits.map((id) => `${layer.id}/${id}`)))
  const list = runs.flatMap(({ run, layout }) =>
    sheetsOf(layout).map((sheet) => {
      const pieces = layout.placements.filter((p) => p.sheet === sheet).map((p) => laid(p, run.instance.pieces, folios, loose, marks))
      return makeLoad(project, run, sheet, pieces)
    }),
  )
  list.sort(byChanges)
  if (project.plan.cutOrder === 'build') list.sort((a, b) => a.folios[0]! - b.folios[0]!)
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
  const offCuts = [...new Set(layout.placements.map((p) => p.sheet).filter((sheet) => sheet < 0))].sort((a, b) => b - a)
  return [...offCuts, ...Array.from({ length: layout.sheets }, (_, sheet) => sheet)]
}

function laid(
  p: Placement,
  parts: readonly { id: string; shape: Polygon }[],
  folios: Map<string, number>,
  loose: Set<string>,
  marks: ReadonlyMap<string, Marks>,
): LaidPiece {
  const { layerId, pieceId } = splitPartId(p.id)
  const part = parts.find((piece) => piece.id === p.id)!
  const map = compose(translation(p.x, p.y), rotation(p.rotation))
  const own = marks.get(p.id)
  return {
    layerId,
    pieceId,
    folio: folios.get(layerId) ?? 0,
    placement: p,
    shape: mapPolygon(map, part.shape),
    marks: own ? mapMarks(map, own) : noMarks(),
    loose: loose.has(p.id),
  }
}

function makeLoad(project: Project, { paper, instance }: PaperRun, sheet: number, pieces: LaidPiece[]): Load {
  const offCut = sheet < 0 ? instance.offCuts![-1 - sheet]! : null
  const outline = offCut?.outline ?? rectangle(0, 0, paper.widthMm, paper.heightMm)
  const { maxX: widthMm, maxY: heightMm } = polygonBox(outline)
  const setting = settingFor(paper)
  const path = cutPath(pieces, heightMm, project.plan.numbers)
  const rings = pieces.flatMap((piece) => polygonRings(piece.shape))
  const outlineMm = rings.reduce((sum, ring) => sum + perimeter(ring), 0)
  const corners = rings.reduce((sum, ring) => sum + sharpCorners(ring), 0)
  const { cutter } = project.drawer
  const area = pieces.reduce((sum, piece) => sum + polygonArea(piece.shape), 0)
  return {
    id: offCut ? `${paper.id}-off-${offCut.id}` : `${paper.id}-${sheet + 1}`,
    number: 0,
    paper,
    sheet,
    onOffCut: offCut && { id: offCut.id, label: paper.offCuts.find((o) => o.id === offCut.id)?.label ?? '' },
    outline,
    widthMm,
    heightMm,
    folios: [...new Set(pieces.map((piece) => piece.folio))].sort((a, b) => a - b),
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

const TACKS = ['low', 'medium', 'high']

function byChanges(a: Load, b: Load): number {
  return (
    Number(a.setting.hardOnBlade) - Number(b.setting.hardOnBlade) ||
    TACKS.indexOf(b.setting.tack) * Number(!b.setting.hardOnBlade) - TACKS.indexOf(a.setting.tack) * Number(!a.setting.hardOnBlade) ||
    a.setting.name.localeCompare(b.setting.name) ||
    a.folios[0]! - b.folios[0]! ||
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
export const changesOf = (list: readonly Load[]): number => list.filter((load, i) => i > 0 && load.change !== null).length

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
        layer: loose[0]!.layerId,
        at: null,
        message: `Load ${load.number} has ${loose.length} loose ${loose.length === 1 ? 'bit' : 'bits'} to keep when weeding (${load.paper.name}).`,
      })
  }
  for (const need of sheetsNeeded(list))
    if (need.buy > 0 && need.paper.id !== 'no-paper')
      snags.push({
        code: 'short-of-paper',
        stage: 'sheets',
        severity: 'caution',
        layer: null,
        at: null,
        message: `${need.sheets} ${need.sheets === 1 ? 'sheet' : 'sheets'} of ${need.paper.name} needed, ${need.paper.count} at hand: buy ${need.buy}.`,
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
      const name = project.layers.find((layer) => layer.id === layerId)?.name ?? layerId
      return [
        {
          code: 'pin-illegal',
          stage: 'sheets',
          severity: 'stop',
          layer: layerId,
          at: null,
          message: `A pinned piece of “${name}” ${why}.`,
          mend: { label: 'Take the pin out', action: { kind: 'drop-pin', layerId, pieceId, copy: pin.copy } },
        },
      ]
    }),
  )
}

export interface SheetsNeeded {
  paper: Paper
  /** Whole sheets, and off-cuts beside them. */
  sheets: number
  offCuts: number
  buy: number
  cost: number
}

/** Sheets of each paper against what is at hand. Cost counts every sheet used, bought or not. */
export function sheetsNeeded(list: readonly Load[]): SheetsNeeded[] {
  const byPaper = groupBy(list, (load) => load.paper.id)
  return [...byPaper.values()].map((group) => {
    const { paper } = group[0]!
    const sheets = group.filter((load) => !load.onOffCut).length
    return { paper, sheets, offCuts: group.length - sheets, buy: Math.max(0, sheets - paper.count), cost: sheets * paper.price }
  })
}
