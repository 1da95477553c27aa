// Which pieces are to be cut of which paper, and the layout that comes of it.
import { clipToBox, polygonArea, polygonBox, rectangle, type Polygon } from '../../../base/geometry'
import { colourName } from '../../layers'
import {
  bedOf,
  cutLayers,
  pieceRegion,
  sameButSize,
  isSomeCut,
  stillToCut,
  type CutLayer,
  type Paper,
  type Piece,
  type Pin,
  type Project,
} from '../../../project'
import { fingerprint, fresh, type Memo } from '../../../base'
import type { NestInstance, NestLayout, NestPiece, OffCutSheet, Placement } from '../nest/instance'
import { cheapestMix, mixNamed, onBed, sheetOf, wholeSheet, type Bed, type SheetMix } from './sizes'
import { formerNames, nameOfOffCut, namesOf, runName } from './names'
import { inOwnFrames } from './own-frames'
import { laidPieces, partId, WHOLE } from './parts'
import { takenBy, type TooLarge } from './too-large'

/** An off-cut of the drawer, or a whole sheet of another size, that is cut before the sheets of a run's main size. */
export interface Bin {
  paper: Paper
  offCut: Paper['offCuts'][number] | null
}

/** Names one of a run's bins, however many others come or go: by its off-cut, or by its paper and which of its sheets it is. */
export function binName(bins: readonly Bin[], at: number): string {
  const { paper, offCut } = bins[at]!
  const nth = bins.slice(0, at).filter((bin) => !bin.offCut && bin.paper.id === paper.id).length
  return `${paper.id} ${offCut ? offCut.id : `sheet ${nth}`}`
}

/** Everything that is cut of one paper, in whatever sizes it is at hand. */
export interface PaperRun {
  /** Id of the paper of its first layer. */
  id: string
  /** In the size of which any number of sheets may be cut. */
  paper: Paper
  layers: CutLayer[]
  /** What is laid: all of its pieces but those that are too large. */
  instance: NestInstance
  /** What is larger than can be cut of any sheet; null where nothing is. */
  tooLarge: TooLarge | null
  /** A whole sheet of it. */
  sheetOutline: Polygon
  /** What the instance's off-cuts are, in their order. */
  bins: Bin[]
  /** Of the search for its first layout. */
  seed: number
  /** Names what is laid on what: equal fingerprints lead to equal layouts, wherever layers lie in the picture. */
  fingerprint: string
}

/** A layout with the run it belongs to. */
export interface NestedRun {
  run: PaperRun
  layout: NestLayout
  /** It lies as another run lay before, but for what is another. */
  carried?: true
}

const STAND_IN = 'no-paper'

/** Whether a run's paper only stands in for one that is not chosen yet. */
export const isStandIn = (paper: Paper): boolean => paper.id.startsWith(STAND_IN)

/** Stand-in for layers of a colour without a paper, so that their sheets can be planned too. */
const standIn = (project: Project, colour: string): Paper => ({
  id: `${STAND_IN}-${colour}`,
  name: `${colourName(colour)}: no paper yet`,
  colour,
  finish: 'smooth',
  gsm: 216,
  thicknessMm: 0.29,
  core: 'solid',
  widthMm: bedOf(project.drawer.cutter).bedWidthMm,
  heightMm: bedOf(project.drawer.cutter).bedHeightMm,
  count: 0,
  price: 0,
  perPack: 1,
  shop: '',
  oneWay: false,
  press: null,
  note: '',
  offCuts: [],
})

/** Kept free along the edges of an off-cut, mm: it is laid on the mat by eye. */
const OFF_CUT_RIM_MM = 3

/** Off-cuts of a paper as sheets, small ones first: a large one may serve for something large. */
export function offCutSheets(paper: Paper): OffCutSheet[] {
  return paper.offCuts
    .flatMap((offCut): OffCutSheet[] => {
      const outline = pieceRegion(offCut)[0]
      return outline ? [{ id: offCut.id, outline, margin: OFF_CUT_RIM_MM }] : []
    })
    .toSorted((a, b) => polygonArea(a.outline) - polygonArea(b.outline) || a.id.localeCompare(b.id))
}

/**
 * What of an off-cut lies on the bed, from its corner as it is drawn; null where nothing of it does. What the blade does not reach beside
 * the edge of the bed is left away.
 */
function offCutOnBed(sheet: OffCutSheet, bed: Bed): OffCutSheet | null {
  const { maxX, maxY } = polygonBox(sheet.outline)
  const { widthMm, heightMm } = onBed({ widthMm: maxX, heightMm: maxY }, bed)
  if (widthMm >= maxX && heightMm >= maxY) return sheet
  const rim = Math.max(0, bed.rimMm - sheet.margin)
  const reach = (lies: number, all: number) => (lies < all ? lies - rim : all)
  const parts = clipToBox([sheet.outline], {
    minX: 0,
    minY: 0,
    maxX: reach(widthMm, maxX),
    maxY: reach(heightMm, maxY),
  })
  const [outline] = parts.toSorted((a, b) => polygonArea(b) - polygonArea(a))
  return outline ? { ...sheet, outline } : null
}

/** The layers that are cut of one paper, in whatever sizes it comes. */
interface PaperGroup {
  paper: Paper
  layers: CutLayer[]
}

/** Layers by paper, in the order in which the papers first appear from the back; guests come after. */
function paperGroups(project: Project, memo: Memo): PaperGroup[] {
  const groups: PaperGroup[] = []
  for (const layer of cutLayers(project, memo)) {
    const paper = layer.paper ?? standIn(project, layer.layer.colour)
    const group = groups.find((g) => g.paper.id === paper.id || sameButSize(g.paper, paper))
    if (group) group.layers.push(layer)
    else groups.push({ paper, layers: [layer] })
  }
  return groups
}

/** Tells how often what is laid of a layer is still to be cut: all its pieces together where they are laid as one. */
function stillToLay(project: Project, memo: Memo): (layer: CutLayer, laid: Piece) => number {
  const left = stillToCut(project, memo)
  return (layer, laid) => {
    const pieces = laid.id === WHOLE ? layer.layer.pieces : [laid]
    return pieces.reduce((most, piece) => Math.max(most, left(layer, piece)), 0)
  }
}

/** Papers of which there is something to cut. */
function openGroups(project: Project, memo: Memo): PaperGroup[] {
  const groups = paperGroups(project, memo)
  if (!isSomeCut(project)) return groups
  const left = stillToLay(project, memo)
  return groups.filter(({ layers }) =>
    layers.some((layer) => laidPieces(layer.layer).some((laid) => left(layer, laid) > 0)),
  )
}

/** Ids of the runs of a project; while nothing is cut, without looking at a shape. */
export const runIds = (project: Project, memo: Memo = fresh): string[] =>
  openGroups(project, memo).map(({ paper }) => paper.id)

/** One run per paper, its sizes together. Needs the geometry loaded where a paper comes in several sizes. */
export const paperRuns = (project: Project, memo: Memo = fresh): PaperRun[] =>
  openGroups(project, memo).map((group) => paperRun(project, group, memo))

/** A run as it is with the project's pins of now; nothing else of the project may have changed. */
export const withPins = (run: PaperRun, project: Project, memo: Memo = fresh): PaperRun => {
  const { layers, bins } = run
  const instance = {
    ...run.instance,
    pinned: pinnedOf(project, { layers, bins, pieces: run.instance.pieces }),
  }
  return { ...run, instance, fingerprint: runName({ ...run, instance }, memo) }
}

/** What is to be laid of a paper, and what there is to lay it on. */
interface Wanted {
  /** Those that a sheet takes. */
  pieces: NestPiece[]
  tooLarge: TooLarge | null
  bed: Bed
  sizes: Paper[]
  scraps: { paper: Paper; sheet: OffCutSheet }[]
}

function wantedOf(project: Project, { paper, layers }: PaperGroup, memo: Memo): Wanted {
  const { plan, drawer } = project
  const bed = { rimMm: drawer.cutter.rimMm, ...bedOf(drawer.cutter) }
  const turns = paper.oneWay ? 'fixed' : plan.turns
  const left = stillToLay(project, memo)
  const asked = layers.flatMap((own) =>
    laidPieces(own.layer).flatMap((piece): NestPiece[] => {
      const { id, layer } = own
      const { sharing } = layer
      const shape = pieceRegion(piece)[0]
      const qty = left(own, piece)
      return shape && qty > 0
        ? [
            {
              id: partId(id, piece.id),
              shape,
              qty,
              turns,
              ...(sharing === 'any' ? {} : { sharing }),
              group: id,
            },
          ]
        : []
    }),
  )
  const all = [...drawer.papers, ...plan.guests.flatMap((guest) => guest.papers), paper]
  const sizes = all.filter(
    (p, i) =>
      (p.id === paper.id || sameButSize(p, paper)) && all.findIndex((other) => other.id === p.id) === i,
  )
  const scraps = plan.useOffCuts
    ? sizes.flatMap((size) =>
        offCutSheets(size).flatMap((whole) => {
          const sheet = offCutOnBed(whole, bed)
          return sheet ? [{ paper: size, sheet }] : []
        }),
      )
    : []
  scraps.sort((a, b) => polygonArea(a.sheet.outline) - polygonArea(b.sheet.outline))
  const isPinned = ({ id, qty: n }: NestPiece) =>
    plan.pins.filter((pin) => partId(pin.layerId, pin.pieceId) === id && pin.copy < n).length >= n
  const { taken, tooLarge } = takenBy(sizes, { pieces: asked, bed, gap: plan.gapMm, isPinned }, memo)
  return { pieces: taken, tooLarge, bed, sizes, scraps }
}

/** Names what a mix of sizes is chosen for. @param names what names the pieces */
const askedOf = (
  { plan }: Project,
  { pieces, bed, sizes, scraps }: Wanted,
  names: readonly unknown[],
): string =>
  fingerprint([
    plan.gapMm,
    pieces[0]?.turns,
    bed,
    ...names,
    sizes.map(({ id, widthMm, heightMm, count, price }) => [id, widthMm, heightMm, count, price]),
    scraps.map(({ sheet }) => nameOfOffCut(sheet)),
  ])

/** What mixes of sizes would be chosen for now, by the ids of their runs; of papers in one size there is none to choose. */
export const mixesAsked = (project: Project, memo: Memo = fresh): ReadonlyMap<string, string> =>
  new Map(
    openGroups(project, memo).flatMap((group): [string, string][] => {
      const wanted = wantedOf(project, group, memo)
      return wanted.sizes.length > 1
        ? [[group.paper.id, askedOf(project, wanted, [namesOf(wanted.pieces, memo)])]]
        : []
    }),
  )

/** The mix that is held to since a sheet of it was cut, where the same is still asked for; else the cheapest. */
function mixOf(
  project: Project,
  group: PaperGroup,
  { wanted, memo }: { wanted: Wanted; memo: Memo },
): SheetMix {
  const { pieces, bed, sizes, scraps } = wanted
  const held = project.plan.mixes[group.paper.id]
  const isHeld =
    held !== undefined &&
    (held.asked === askedOf(project, wanted, [namesOf(pieces, memo)]) ||
      held.asked === askedOf(project, wanted, formerNames(group.layers, pieces, memo)))
  const offCuts = scraps.map(({ sheet }) => sheet)
  return (
    (isHeld ? mixNamed(sizes, held) : null) ??
    cheapestMix(
      sizes,
      { instance: inOwnFrames({ gap: project.plan.gapMm, pieces, offCuts }, memo), bed },
      memo,
    )
  )
}

function paperRun(project: Project, group: PaperGroup, memo: Memo): PaperRun {
  const { paper, layers } = group
  const { plan } = project
  const wanted = wantedOf(project, group, memo)
  const { pieces, tooLarge, bed, scraps } = wanted
  const { main, others } = mixOf(project, group, { wanted, memo })
  const bins = [
    ...scraps.map((scrap): Bin => ({
      paper: scrap.paper,
      offCut: scrap.paper.offCuts.find((offCut) => offCut.id === scrap.sheet.id)!,
    })),
    ...others.map((size): Bin => ({ paper: size, offCut: null })),
  ]
  const instance: NestInstance = {
    sheet: sheetOf(main, bed),
    gap: plan.gapMm,
    pieces,
    offCuts: [...scraps.map(({ sheet }) => sheet), ...others.map((size, n) => wholeSheet(size, n, bed))],
    pinned: pinnedOf(project, { layers, bins, pieces }),
  }
  const sheetOutline = memo('sheet outline', [main.widthMm, main.heightMm], () =>
    rectangle([0, 0], main.widthMm, main.heightMm),
  )
  const seed = plan.layoutSeeds[paper.id] ?? 1
  const run = { id: paper.id, paper: main, layers, instance, tooLarge, sheetOutline, bins, seed }
  return { ...run, fingerprint: runName(run, memo) }
}

/** Pins of the pieces of a run, as far as they are still to be laid and what they are pinned on is there. */
function pinnedOf(
  project: Project,
  {
    layers,
    bins,
    pieces,
  }: { layers: readonly CutLayer[]; bins: readonly Bin[]; pieces: readonly NestPiece[] },
): Placement[] {
  const qty = new Map(pieces.map((piece) => [piece.id, piece.qty]))
  const names = bins.map((_, k) => binName(bins, k))
  const sheetNow = ({ sheet, on }: Pin): number | null => {
    if (sheet >= 0) return sheet
    const at = on === '' ? -1 - sheet : names.indexOf(on)
    return bins[at] ? -1 - at : null
  }
  return project.plan.pins.flatMap((pin): Placement[] => {
    const { layerId, pieceId, copy, x, y, rotation } = pin
    const id = partId(layerId, pieceId)
    const sheet = sheetNow(pin)
    const isAsked = layers.some((layer) => layer.id === layerId) && copy < (qty.get(id) ?? 0)
    return isAsked && sheet !== null ? [{ id, copy, sheet, x, y, rotation }] : []
  })
}
