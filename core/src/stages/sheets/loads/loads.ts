// The sheets in the order in which they go through the cutter, and what to know before each.
import { onTheBed, type OnTheBed } from './bed-words'
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
} from '../../../base/geometry'
import { layerFigures, mapMarks, noMarks, type Marks } from '../../layers'
import {
  cutLayers,
  isLaidAsOne,
  matFor,
  pieceRegion,
  sameButSize,
  type CutLayer,
  type CutSheet,
  type MatChoice,
  type Paper,
  type Project,
} from '../../../project'
import { fresh, type Memo } from '../../../base'
import { cutPath, strokeWay, type CutPath } from './cut-path'
import type { NestLayout, Placement } from '../nest/instance'
import { type Bin, type NestedRun, type PaperRun } from '../runs/paper-runs'
import { partId, splitPartId } from '../runs/parts'
import { BLADE_CARE_M, intricacyOf, settingFor, type CutSetting } from './settings'
import { toolSeconds } from './tool-time'

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
  /** It bears its number, drawn or cut. */
  numbered: boolean
  /** Its layer is printed with a picture. */
  printed: boolean
}

/** What one straight cut keeps whole of a sheet, mm from its corner. */
export interface OffCut {
  x: number
  y: number
  widthMm: number
  heightMm: number
}

/** A sheet as it goes through the cutter. Lengths in mm, times in minutes. */
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
  /** What it is laid on; null where no mats are noted, or it is cut by knife. */
  mat: MatChoice | null
  /** How it lies on the bed; null where it lies there as it is drawn. */
  lies: OnTheBed | null
  /** What must be done on the machine before this load; null where nothing changes. */
  change: string | null
  /** The blade wants care before this load: how far it has cut since (m), hard papers counted threefold. */
  bladeCareM: number | null
  utilisation: number
}

/** A clean off-cut narrower than this is not worth keeping (mm). */
const KEEP_MM = 30

/** What is written on a sheet's corner: its folios, and which sheet of several it is. */
export const loadTag = (load: Pick<Load, 'folios' | 'onOffCut' | 'nthOfRun'>): string =>
  load.folios.join('-') +
  (load.onOffCut ? '/off' : load.nthOfRun > 1 ? '/' : '') +
  (load.nthOfRun > 1 ? load.nthOfRun : '')

/** What a sheet's loads depend on by shape alone: kept while names, order and numbers of loads change. */
interface Laid {
  shapes: { shape: Polygon; marks: Marks }[]
  path: CutPath
  outlineMm: number
  offCut: OffCut | null
  utilisation: number
}

/**
 * Loads in the order the plan asks for: fewest changes (hard-wearing papers last, printed ones late), or back to front.
 * @param marks numbers, folds and crosses by part
 * @param memo remembers what is laid on each sheet
 */
export function planLoads(
  project: Project,
  { runs, marks = new Map() }: { runs: readonly NestedRun[]; marks?: ReadonlyMap<string, Marks> },
  memo: Memo = fresh,
): Load[] {
  const layers = new Map(cutLayers(project, memo).map((layer) => [layer.id, layer]))
  const loose = new Set(
    [...layers].flatMap(([id, { layer }]) =>
      memo('loose bits', [layer.pieces], () => layerFigures(layer).looseBits).map((bit) => `${id}/${bit}`),
    ),
  )
  const list = runs.flatMap(({ run, layout }) => {
    const parts = new Map(run.instance.pieces.map((piece) => [piece.id, piece.shape]))
    return sheetsOf(layout).map((sheet, i, all) => {
      const cut = layout.placements
        .filter((p) => p.sheet === sheet)
        .flatMap((placement) => cutOf(placement, layers, parts))
      const placements = cut.map(({ placement }) => placement)
      const bin = binOf(run, sheet)
      const own = cut.map(({ id, shape }) => ({ shape, marks: marks.get(id) ?? null }))
      const { numbers } = project.plan
      const { cutter } = project.drawer
      const laid = memo('laid sheet', [own, placements, bin, numbers], () =>
        layOut({ own, placements, bin, numbers }),
      )
      const intricacy = memo('intricacy', [own.map(({ shape }) => shape)], () =>
        intricacyOf(own.map(({ shape }) => shape)),
      )
      const setting = settingFor(bin.paper, cutter, { intricacy, book: project.drawer.settings })
      const box = polygonBox(bin.outline)
      const mat = matFor(cutter, setting.tack, { widthMm: box.maxX, heightMm: box.maxY })
      const { accelMmPerS2, travelMmPerS, cornerS, liftS, overcutMm } = cutter
      const pace = { accelMmPerS2, travelMmPerS, cornerS, liftS, speedMmPerS: setting.speedMmPerS }
      const passS = memo('time of a pass', [laid.path, pace, overcutMm], () =>
        toolSeconds(
          laid.path.strokes.map((stroke) => strokeWay(stroke, overcutMm)),
          pace,
          polygonBox(bin.outline).maxY,
        ),
      )
      const minutes = (setting.passes * passS) / 60 + cutter.loadMin
      const isOffCut = (s: number) => s < 0 && run.bins[-1 - s]!.offCut !== null
      const nthOfRun = nthFree(
        all.slice(0, i + 1).filter((s) => isOffCut(s) === isOffCut(sheet)).length,
        cutOfRun(project, run.paper, isOffCut(sheet)),
      )
      const pieces = cut.map(({ id, placement }, k): LaidPiece => ({
        ...ownerOf(id, layers),
        placement,
        ...laid.shapes[k]!,
        loose: loose.has(id),
        numbered: laid.shapes[k]!.marks.number.length > 0,
      }))
      const cutOfIt = cutOfPaper(project, bin.paper.id)
      const lies = onTheBed({ widthMm: box.maxX, heightMm: box.maxY }, cutter)
      return makeLoad({ run, sheet, bin, nthOfRun, pieces, laid, cutOfIt, setting, mat, lies, minutes })
    })
  })
  list.sort(byChanges(list))
  if (project.plan.cutOrder === 'build') list.sort((a, b) => folioOrder(a.folios[0]!, b.folios[0]!))
  if (project.plan.cutOrder === 'hand') list.sort(byHand(project.plan.loadOrder))
  // Sheets that are cut keep their numbers; the others take those that are left, so that none is given twice.
  const taken = project.cut.map(({ number }) => number)
  let bladeM = 0
  return list.map((load, i) => {
    const due = bladeM >= BLADE_CARE_M
    if (due) bladeM = 0
    const bladeCareM = due ? BLADE_CARE_M : null
    bladeM += (load.outlineMm / 1000) * load.setting.passes * (load.setting.hardOnBlade ? 3 : 1)
    return {
      ...load,
      number: nthFree(i + 1, taken),
      change: changeBefore(list[i - 1], load),
      bladeCareM,
    }
  })
}

/** The nth number from 1 that is not taken: what is cut keeps its own, and what is left keeps those it had. */
export const nthFree = (nth: number, taken: readonly number[]): number =>
  [...new Set(taken)]
    .sort((a, b) => a - b)
    .reduce((number, one) => (one <= number ? number + 1 : number), nth)

/** Which whole sheets of a paper have given their ids to sheets that are cut. */
export const cutOfPaper = ({ cut }: Project, paperId: string): number[] =>
  cut
    .map(({ id }) => (id.startsWith(`${paperId}-`) ? Number(id.slice(paperId.length + 1)) : NaN))
    .filter(Number.isInteger)

/** Which of its paper's sheets, or off-cuts, those are that are cut already. */
export const cutOfRun = ({ cut }: Project, paper: Paper, offCuts: boolean): number[] =>
  cut.flatMap((one, i) =>
    (one.onOffCut !== null) === offCuts && (one.paper.id === paper.id || sameButSize(one.paper, paper))
      ? [nthOfCut(cut, i)]
      : [],
  )

/** Which of its paper's sheets, or off-cuts, one was that is cut: as its tag says, else by the order in which they were cut. */
export function nthOfCut(cut: readonly CutSheet[], at: number): number {
  const { paper, onOffCut, nthOfRun } = cut[at]!
  const alike = (one: CutSheet) => one.paper.id === paper.id && !one.onOffCut === !onOffCut
  return nthOfRun || cut.slice(0, at).filter(alike).length + 1
}

const byHand = (order: readonly string[]) => (a: Load, b: Load) => {
  const place = (load: Load) => (order.includes(load.id) ? order.indexOf(load.id) : Infinity)
  return place(a) === place(b) ? 0 : place(a) - place(b)
}

/** The sheets of a layout that bear pieces: off-cuts first. What is pinned may leave one before it empty. */
function sheetsOf({ placements }: NestLayout): number[] {
  const used = [...new Set(placements.map(({ sheet }) => sheet))].sort((a, b) => a - b)
  return [...used.filter((sheet) => sheet < 0).reverse(), ...used.filter((sheet) => sheet >= 0)]
}

/** What is cut at a place: the piece that lies there, or all pieces of a layer that is laid as one. */
function cutOf(
  placement: Placement,
  layers: ReadonlyMap<string, CutLayer>,
  parts: ReadonlyMap<string, Polygon>,
): { id: string; placement: Placement; shape: Polygon }[] {
  const { layerId } = splitPartId(placement.id)
  const { layer } = layers.get(layerId)!
  if (!isLaidAsOne(layer)) return [{ id: placement.id, placement, shape: parts.get(placement.id)! }]
  return layer.pieces.flatMap((piece) => {
    const shape = pieceRegion(piece)[0]
    return shape ? [{ id: partId(layerId, piece.id), placement, shape }] : []
  })
}

/** Whose piece a part is. */
function ownerOf(
  part: string,
  layers: ReadonlyMap<string, CutLayer>,
): Pick<LaidPiece, 'layerId' | 'pieceId' | 'folio' | 'guestId' | 'layerName' | 'printed'> {
  const { layerId, pieceId } = splitPartId(part)
  const { folio, guest, layer } = layers.get(layerId)!
  return {
    layerId,
    pieceId,
    folio,
    guestId: guest?.projectId ?? null,
    layerName: guest ? `${guest.name}: ${layer.name}` : layer.name,
    // What is rolled or bent is not printed as it is seen.
    printed: layer.print !== null && layer.blanks.length === 0,
  }
}

/** What is cut into for a sheet of a run: a whole sheet, or an off-cut. */
function binOf(run: PaperRun, sheet: number): { paper: Paper; offCut: Bin['offCut']; outline: Polygon } {
  const bin = sheet < 0 ? run.bins[-1 - sheet]! : null
  const { paper, offCut } = bin ?? { paper: run.paper, offCut: null }
  // What hangs over the bed is there too, though nothing can be cut of it.
  const whole = bin ? rectangle([0, 0], paper.widthMm, paper.heightMm) : run.sheetOutline
  return { paper, offCut, outline: offCut ? pieceRegion(offCut)[0]! : whole }
}

interface ToLay {
  own: readonly { shape: Polygon; marks: Marks | null }[]
  placements: readonly Placement[]
  bin: ReturnType<typeof binOf>
  numbers: Project['plan']['numbers']
}

function layOut({ own, placements, bin, numbers }: ToLay): Laid {
  const { paper, offCut, outline } = bin
  const shapes = placements.map((p, k) => {
    const map = compose(translation(p.x, p.y), rotation(p.rotation))
    const { shape, marks } = own[k]!
    return { shape: mapPolygon(map, shape), marks: marks ? mapMarks(map, marks) : noMarks() }
  })
  const path = cutPath(shapes, polygonBox(outline).maxY, numbers)
  const rings = shapes.flatMap(({ shape }) => polygonRings(shape))
  const outlineMm = rings.reduce((sum, ring) => sum + perimeter(ring), 0)
  const area = shapes.reduce((sum, { shape }) => sum + polygonArea(shape), 0)
  return {
    shapes,
    path,
    outlineMm,
    offCut: offCut ? null : cleanOffCut(paper, shapes),
    utilisation: area / polygonArea(outline),
  }
}

interface LoadParts {
  run: PaperRun
  sheet: number
  bin: ReturnType<typeof binOf>
  nthOfRun: number
  pieces: LaidPiece[]
  laid: Laid
  /** Which whole sheets of the paper are cut: their ids are no other's. */
  cutOfIt: readonly number[]
  setting: CutSetting
  mat: MatChoice | null
  lies: OnTheBed | null
  /** Loading and all passes. */
  minutes: number
}

function makeLoad({
  run,
  sheet,
  bin,
  nthOfRun,
  pieces,
  laid,
  cutOfIt,
  setting,
  mat,
  lies,
  minutes,
}: LoadParts): Load {
  const { paper, offCut, outline } = bin
  const { maxX: widthMm, maxY: heightMm } = polygonBox(outline)
  const nth = offCut
    ? 0
    : sheet >= 0
      ? sheet + 1
      : run.bins.slice(0, -sheet).filter((other) => !other.offCut && other.paper.id === paper.id).length
  return {
    id: offCut ? `${paper.id}-off-${offCut.id}` : `${paper.id}-${nthFree(nth, cutOfIt)}`,
    runId: run.id,
    number: 0,
    paper,
    sheet,
    nth,
    nthOfRun,
    onOffCut: offCut && { id: offCut.id, label: offCut.label },
    outline,
    widthMm,
    heightMm,
    folios: [...new Set(pieces.map((piece) => piece.folio))].sort(folioOrder),
    pieces,
    setting,
    mat,
    lies,
    path: laid.path,
    outlineMm: laid.outlineMm,
    minutes,
    offCut: laid.offCut,
    change: null,
    bladeCareM: null,
    utilisation: laid.utilisation,
  }
}

/** The larger of the two rectangles that a straight cut across the sheet, behind all pieces, keeps whole. */
function cleanOffCut(paper: Paper, pieces: readonly { shape: Polygon }[]): OffCut | null {
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

/** What is printed comes as late as that costs no change: others are cut while its ink dries. */
function byChanges(list: readonly Load[]) {
  const isPrinted = ({ pieces }: Load) => pieces.some(({ printed }) => printed)
  const inked = new Set(list.filter(isPrinted).map(({ setting }) => setting.name))
  return (a: Load, b: Load): number =>
    Number(a.setting.hardOnBlade) - Number(b.setting.hardOnBlade) ||
    TACKS.indexOf(b.setting.tack) * Number(!b.setting.hardOnBlade) -
      TACKS.indexOf(a.setting.tack) * Number(!a.setting.hardOnBlade) ||
    Number(inked.has(a.setting.name)) - Number(inked.has(b.setting.name)) ||
    a.setting.name.localeCompare(b.setting.name) ||
    Number(isPrinted(a)) - Number(isPrinted(b)) ||
    folioOrder(a.folios[0]!, b.folios[0]!) ||
    a.sheet - b.sheet
}

function changeBefore(before: Load | undefined, load: Load): string | null {
  const { setting } = load
  if (setting.basis.from === 'hand') return null
  const words: string[] = []
  if (!before || before.setting.name !== setting.name) words.push(`setting “${setting.name}”`)
  if (!before || before.setting.tack !== setting.tack) words.push(`${setting.tack} tack mat`)
  if (before?.setting.hardOnBlade && !setting.hardOnBlade) words.push('clean the blade')
  return words.length > 0 ? words.join(', ') : null
}

/** How often setting or mat change between loads. */
export const changesOf = (list: readonly Pick<Load, 'change'>[]): number =>
  list.filter((load, i) => i > 0 && load.change !== null).length
