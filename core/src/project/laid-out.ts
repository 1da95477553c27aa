// Sheets of one work that a drawing shows beside each other, as they are laid out to be cut: told, and laid on each other.
import { groupBy } from '../base'
import {
  boxesMeet,
  boxHeight,
  boxWidth,
  joinBoxes,
  polygonBox,
  regionArea,
  translation,
  type Box,
} from '../base/geometry'
import { isSomeCut } from './cut-record'
import { removeLayer, transformLayers } from './edit'
import { layerBox, pieceRegion } from './faces'
import { backingRect, designLayers, isOnPane } from './lookup'
import type { Layer, Project } from './schema'
import { setPlan } from './set-plan'
import { apartMm, clusters, isFrontFirst, partOf, partsOf, type Part } from './together'

/** A sheet that lies by itself: a layer, or one of the places where a layer lies. */
export interface LaidSheet {
  layerId: string
  pieceIds: readonly string[]
  /** mm in the project's frame. */
  box: Box
  /** Where it belongs on the work: these places come to lie upon each other, mm. */
  home: readonly [x: number, y: number]
}

/** One whose home is not told yet. */
type Lying = Omit<LaidSheet, 'home'>

/** Sheets of one work are alike in proportion to within this share… */
const ALIKE = 0.03
/** …and none of them is smaller than this share of the largest. */
const LEAST_SIZE = 0.4
/** A picture of the whole may be smaller than its sheets, but not than this share of them. */
const LEAST_PICTURE = 0.1
/** In a picture with more card than this, of the room that it takes, some lies over other card. */
const LIES_OVER = 1.05
/** What is smaller than this share of the largest, both ways, is no sheet: it goes with the one beside it. */
const SMALL = 0.2
/** Sheets pass what the work lives in by this share at least; what passes it by less was measured or drawn amiss. */
const PASSES = 0.2
/** So exactly sheets are drawn in columns and rows, mm. */
const EXACT_MM = 1

/** The finished work as a drawing shows it beside its sheets. */
interface Picture {
  /** mm in the project's frame. */
  box: Box
  /** Ids of layers that lie in it alone. */
  layerIds: readonly string[]
}

/** Sheets that a drawing shows beside each other, back to front as far as can be told, and its picture of the finished work. */
export interface LaidOut {
  sheets: readonly LaidSheet[]
  picture: Picture | null
}

const NOT_LAID_OUT: LaidOut = { sheets: [], picture: null }

/**
 * What of a drawing is laid out to be cut; no sheets where one lies on another (but in one picture of the whole), where all of them about
 * fit what the work lives in as they lie, where they are not alike, or where something is cut already.
 */
export function laidOut(project: Project): LaidOut {
  if (isSomeCut(project) || project.plan.cutWith || project.mount.kind === 'garland') return NOT_LAID_OUT
  const layers = designLayers(project).filter((layer) => layer.pieces.length > 0 && !isOnPane(layer))
  if (layers.length === 0) return NOT_LAID_OUT
  const room = roomOf(project)
  const all = joinBoxes(layers.map(layerBox))
  const most = 1 + PASSES
  if (room && boxWidth(all) <= most * room.widthMm && boxHeight(all) <= most * room.heightMm)
    return NOT_LAID_OUT
  const groups = clusters(layers.flatMap(partsOf))
  const stacked = groups.filter((group) => group.some(({ layerId }) => layerId !== group[0]!.layerId))
  if (stacked.length > 1) return NOT_LAID_OUT
  const single = groups.filter((group) => !stacked.includes(group))
  const lyingAlone = new Set(single.map((group) => group[0]!.layerId))
  const list = layers.filter(({ id }) => lyingAlone.has(id))
  if (list.length === 0) return NOT_LAID_OUT
  // Two sheets of one colour right beside each other are one layer, and so is a ring of petals.
  const told = (several: ReadonlySet<string>) =>
    sheetsAmong(project, lyingOf(list, single, several), { isLimited: room !== null })
  const parted = told(severalSheets(single))
  const sheets = parted.length > 0 ? parted : told(new Set())
  if (stacked.length === 0) return { sheets, picture: null }
  const picture = sheets.length > 0 ? pictureOf(stacked[0]!, layers, sheets) : null
  return picture ? { sheets: inOrderOf(stacked[0]!, layers, sheets), picture } : NOT_LAID_OUT
}

/** A stack beside sheets as the picture of what they make; null where it is none. */
function pictureOf(
  parts: readonly Part[],
  layers: readonly Layer[],
  sheets: readonly LaidSheet[],
): Picture | null {
  const box = joinBoxes(parts.map((part) => part.box))
  const largest = largestOf(sheets)
  const isAlone = ({ id }: Layer) => sheets.every(({ layerId }) => layerId !== id)
  const own = new Set(parts.map(({ layerId }) => layerId))
  const shown = layers.filter(({ id }) => own.has(id))
  const alone = shown.filter(isAlone)
  if (!isAlike(box, largest, LEAST_PICTURE)) return null
  // Every colour of it is that of a sheet, or all of it is drawn by itself, in the colours of the sheets.
  const colours = new Set(layers.filter((layer) => !isAlone(layer)).map(({ colour }) => colour))
  const isOfThem =
    alone.length === 0 || (alone.length === shown.length && alone.every(({ colour }) => colours.has(colour)))
  return isOfThem ? { box, layerIds: alone.map(({ id }) => id) } : null
}

/**
 * Sheets in the order of their colours in a picture of the whole: as they are where two have one colour, where one is not in the
 * picture, or where the picture shows only what is seen of each, which says nothing of the order.
 */
function inOrderOf(
  parts: readonly Part[],
  layers: readonly Layer[],
  sheets: readonly LaidSheet[],
): readonly LaidSheet[] {
  const pieces = groupBy(parts, ({ layerId }) => layerId)
  const shown = layers.filter(({ id }) => pieces.has(id))
  const card = shown.reduce((sum, layer) => sum + cardIn(layer, pieces.get(layer.id)!.flatMap(idsOf)), 0)
  if (card <= LIES_OVER * sizeOf(joinBoxes(parts.map(({ box }) => box)))) return sheets
  const places = new Map(shown.map(({ colour }, k) => [colour, k]))
  const placeOf = ({ layerId }: LaidSheet) => places.get(layers.find(({ id }) => id === layerId)!.colour)
  const found = sheets.map(placeOf)
  if (found.includes(undefined) || new Set(found).size < sheets.length) return sheets
  return sheets.toSorted((a, b) => placeOf(a)! - placeOf(b)!)
}

const idsOf = ({ pieceIds }: Part): readonly string[] => pieceIds

/**
 * Lays the sheets of a drawing on each other, in the middle of what the work lives in; a picture of the finished work goes. A project that
 * is not laid out stays as it is.
 */
export function layOnEachOther(project: Project): Project {
  const { sheets, picture } = laidOut(project)
  if (sheets.length === 0) return project
  const backing = backingRect(project)
  const largest = largestOf(sheets)
  const middle = middleOf(backing ? polygonBox(backing) : largest)
  const taken = new Set(project.layers.map(({ id }) => id))
  const moved = new Set<string>()
  const several = new Set<string>()
  const layers = sheets.map((sheet): Layer => {
    const layer = partOf(
      project.layers.find(({ id }) => id === sheet.layerId)!,
      {
        pieceIds: new Set(sheet.pieceIds),
        box: sheet.box,
      },
    )
    if (!moved.has(layer.id)) {
      moved.add(layer.id)
      return layer
    }
    several.add(layer.id)
    let n = 2
    while (taken.has(`${layer.id}-${n}`)) n++
    taken.add(`${layer.id}-${n}`)
    return { ...layer, id: `${layer.id}-${n}`, name: `${layer.name}, ${n}` }
  })
  const at = project.layers.findIndex(({ id }) => moved.has(id))
  const others = project.layers.filter(({ id }) => !moved.has(id))
  const isWhole = ({ layerId }: { layerId: string }) => !several.has(layerId)
  const { pins, handPads, padFree } = project.plan
  const stacked = setPlan(
    {
      ...project,
      layers: [...others.slice(0, at), ...layers, ...others.slice(at)],
      grown: project.grown.filter(({ layerIds }) => !layerIds.some((id) => moved.has(id))),
    },
    // What was set by hand on a layer that lay at several places may be another's now.
    { pins: pins.filter(isWhole), handPads: handPads.filter(isWhole), padFree: padFree.filter(isWhole) },
  )
  const laid = layers.reduce((next, { id }, k) => {
    const [x, y] = sheets[k]!.home
    return transformLayers(next, translation(middle[0] - x, middle[1] - y), [id])
  }, stacked)
  return (picture?.layerIds ?? []).reduce(removeLayer, laid)
}

/** The sheets among what lies by itself; none where they are not those of one work. */
function sheetsAmong(
  project: Project,
  lying: readonly Lying[],
  { isLimited }: { isLimited: boolean },
): LaidSheet[] {
  const largest = largestOf(lying)
  const sheets = lying.filter(({ box }) => !isSmall(box, largest))
  const alike = sheets.filter(({ box }) => isAlike(box, largest))
  // Where nothing limits a work, two of a kind may just be two, and one colour at two places two things.
  if (alike.length < (isLimited ? 2 : 3) || (!isLimited && hasPlaces(sheets))) return []
  const card = new Map(sheets.map((sheet) => [sheet, cardOf(project, sheet)]))
  // Sheets of one work differ by their openings: what is all of one shape is so many of a thing.
  if (alike.length * 2 < sheets.length || kindsOf(alike.map((sheet) => card.get(sheet)!)) < alike.length / 2)
    return []
  const homes = homesOf(lying, largest)
  const found = lying.map((one, k): LaidSheet => ({ ...one, home: homes[k]! }))
  if (!isFrontFirst([...card.values()])) return smallInOne(found, largest)
  // What came last because it is small is in front at any rate.
  const last = hasPlaces(lying) ? found.filter(({ box }) => isSmall(box, largest)) : []
  return smallInOne([...found.filter((one) => !last.includes(one)).toReversed(), ...last], largest)
}

const sheetOf = (parts: readonly Part[]): Lying => ({
  layerId: parts[0]!.layerId,
  pieceIds: parts.flatMap(({ pieceIds }) => pieceIds),
  box: joinBoxes(parts.map(({ box }) => box)),
})

/** What a work lives in, mm; null where nothing limits it. */
function roomOf(project: Project): { widthMm: number; heightMm: number } | null {
  const { mount } = project
  if (mount.kind === 'topper') return { widthMm: mount.widthMm, heightMm: Infinity }
  const backing = backingRect(project)
  if (!backing) return null
  const box = polygonBox(backing)
  return { widthMm: boxWidth(box), heightMm: boxHeight(box) }
}

const middleOf = (b: Box): [number, number] => [(b.minX + b.maxX) / 2, (b.minY + b.maxY) / 2]

const sizeOf = (b: Box): number => boxWidth(b) * boxHeight(b)

const largestOf = (sheets: readonly Lying[]): Box =>
  sheets.map(({ box }) => box).reduce((a, b) => (sizeOf(b) > sizeOf(a) ? b : a))

const isSmall = (box: Box, largest: Box): boolean =>
  boxWidth(box) < SMALL * boxWidth(largest) && boxHeight(box) < SMALL * boxHeight(largest)

function isAlike(box: Box, largest: Box, least = LEAST_SIZE): boolean {
  const [across, down] = [boxWidth(box) / boxWidth(largest), boxHeight(box) / boxHeight(largest)]
  return Math.abs(across / down - 1) <= ALIKE && Math.min(across, down) >= least
}

/** Ids of layers that lie at two places and more as sheets do: alike to the largest of all. */
function severalSheets(groups: readonly Part[][]): ReadonlySet<string> {
  const places = groups.map(sheetOf)
  const largest = largestOf(places)
  const likeIt = groupBy(
    places.filter(({ box }) => isAlike(box, largest)),
    ({ layerId }) => layerId,
  )
  return new Set([...likeIt].flatMap(([id, list]) => (list.length > 1 ? [id] : [])))
}

/** Layers that lie by themselves, and the places of those that lie at several; in the order of the layers as far as that tells one. */
function lyingOf(layers: readonly Layer[], groups: readonly Part[][], several: ReadonlySet<string>): Lying[] {
  const places = groupBy(groups.map(sheetOf), ({ layerId }) => layerId)
  const whole = [...places.values()].map(inOne)
  const apart = whole.filter(
    (a) => !several.has(a.layerId) && whole.every((b) => a === b || !boxesMeet(a.box, b.box)),
  )
  const isApart = new Set(apart.map(({ layerId }) => layerId))
  const placesOf = (layerId: string, isWhole: boolean): Lying[] =>
    isWhole ? [inOne(places.get(layerId)!)] : places.get(layerId)!
  const largest = largestOf(layers.flatMap(({ id }) => placesOf(id, isApart.has(id))))
  const isSheet = (box: Box) =>
    boxWidth(box) <= boxWidth(largest) * (1 + ALIKE) && boxHeight(box) <= boxHeight(largest) * (1 + ALIKE)
  const isWhole = ({ layerId, box }: Lying) => isApart.has(layerId) && isSheet(box)
  const lying = whole.flatMap((one) => placesOf(one.layerId, isWhole(one)))
  if (lying.length === whole.length) return lying
  const sheets = lying.filter(({ box }) => !isSmall(box, largest))
  return [
    ...(hasPlaces(sheets) ? inReadingOrder(sheets, largest) : sheets),
    ...lying.filter(({ box }) => isSmall(box, largest)),
  ]
}

const inOne = (list: readonly Lying[]): Lying => ({
  layerId: list[0]!.layerId,
  pieceIds: list.flatMap(({ pieceIds }) => pieceIds),
  box: joinBoxes(list.map(({ box }) => box)),
})

/** Row by row, each from the left. */
function inReadingOrder(sheets: readonly Lying[], largest: Box): Lying[] {
  const row = ({ box }: Lying) => Math.round((middleOf(box)[1] - middleOf(largest)[1]) / boxHeight(largest))
  return sheets.toSorted((a, b) => row(a) - row(b) || a.box.minX - b.box.minX)
}

/** Card of a sheet, mm². */
const cardOf = (project: Project, { layerId, pieceIds }: Lying): number =>
  cardIn(
    project.layers.find(({ id }) => id === layerId)!,
    pieceIds,
  )

/** Card of some pieces of a layer, mm². */
function cardIn({ pieces }: Layer, pieceIds: readonly string[]): number {
  const own = new Set(pieceIds)
  return pieces.reduce((sum, piece) => sum + (own.has(piece.id) ? regionArea(pieceRegion(piece)) : 0), 0)
}

/** Whether some layer lies at several places. */
const hasPlaces = (sheets: readonly Lying[]): boolean =>
  new Set(sheets.map(({ layerId }) => layerId)).size < sheets.length

/** How many of some areas differ by more than is lost by rounding. */
const kindsOf = (areas: readonly number[]): number =>
  areas.toSorted((a, b) => a - b).filter((area, k, all) => k === 0 || area > all[k - 1]! * 1.001).length

/** What is small, of one layer and at home at one place, is one layer still. */
function smallInOne(sheets: readonly LaidSheet[], largest: Box): LaidSheet[] {
  const groups = groupBy(sheets, (sheet) =>
    isSmall(sheet.box, largest) ? `${sheet.layerId} ${sheet.home.map(Math.round).join(' ')}` : sheet,
  )
  return [...groups.values()].map((group) => ({ ...inOne(group), home: group[0]!.home }))
}

/**
 * Where each is at home: in the middle of the column and row in which it lies where sheets are drawn so, which keeps what is smaller at its
 * place; else in its own middle, and what is small in that of the sheet beside it.
 */
function homesOf(lying: readonly Lying[], largest: Box): [number, number][] {
  const full = lying.filter(
    ({ box }) =>
      Math.abs(boxWidth(box) - boxWidth(largest)) <= EXACT_MM &&
      Math.abs(boxHeight(box) - boxHeight(largest)) <= EXACT_MM,
  )
  const [x0, y0] = middleOf(largest)
  const across = pitchOf(full.map(({ box }) => middleOf(box)[0]))
  const down = pitchOf(full.map(({ box }) => middleOf(box)[1]))
  const inGrid = (box: Box): [number, number] | null => {
    const [x, y] = middleOf(box)
    const [column, row] = [across && Math.round((x - x0) / across), down && Math.round((y - y0) / down)]
    const home: [number, number] = [x0 + across * column, y0 + down * row]
    return full.length > 1 &&
      Math.abs(x - home[0]) <= (boxWidth(largest) - boxWidth(box)) / 2 + EXACT_MM &&
      Math.abs(y - home[1]) <= (boxHeight(largest) - boxHeight(box)) / 2 + EXACT_MM
      ? home
      : null
  }
  const isFull = new Set(full)
  const ofSheets = lying
    .filter(({ box }) => !isSmall(box, largest))
    .map((sheet) => ({
      box: sheet.box,
      home: isFull.has(sheet) ? middleOf(sheet.box) : (inGrid(sheet.box) ?? middleOf(sheet.box)),
    }))
  const homeOf = new Map(ofSheets.map(({ box, home }) => [box, home]))
  const beside = (box: Box) =>
    ofSheets.reduce((best, sheet) => (apartMm(sheet.box, box) < apartMm(best.box, box) ? sheet : best)).home
  return lying.map(({ box }) => homeOf.get(box) ?? inGrid(box) ?? beside(box))
}

/** How far places along a line lie from one to the next, where all are as many of it apart; 0 where they are one, or lie anyhow. */
function pitchOf(places: readonly number[]): number {
  const from = Math.min(...places)
  const steps = places.map((place) => place - from).filter((step) => step > EXACT_MM)
  if (steps.length === 0) return 0
  const least = Math.min(...steps)
  const most = Math.max(...steps)
  // The widest way tells it most exactly.
  const pitch = most / Math.round(most / least)
  return steps.every((step) => Math.abs(step - Math.round(step / pitch) * pitch) <= EXACT_MM) ? pitch : 0
}
