// From what a drawing paints to layers of card, back to front.
import {
  boxHeight,
  boxWidth,
  fillRings,
  joinBoxes,
  polygonToPath,
  regionArea,
  regionBox,
  regionContains,
  regionRings,
  translation,
  type Box,
  type Point,
  type Polygon,
} from '../../../base/geometry'
import type { Drawing, LeftOut, PaintedShape } from '../../../io/read'
import {
  addLayers,
  backingRect,
  isFrontFirst,
  layerBox,
  layerRegion,
  layerSchema,
  transformLayer,
  type Fold,
  type Layer,
  type Project,
  MOST,
} from '../../../project'
import { BadInput, groupBy } from '../../../base'
import { colourName, colourNames } from './colour-name'
import { sequenceLayers } from './sequence'
import { stackedSheets } from './stacked-sheets'

/** A drawing as layers, with what of it was left out. Lengths in mm. */
export interface Intake {
  layers: Layer[]
  leftOut: LeftOut[]
  /** The drawing's page in mm. */
  widthMm: number
  heightMm: number
  unitMm: Drawing['unitMm']
  cornerMm: Drawing['cornerMm']
  /** Where things were left out, in the frame of the layers. */
  leftAt: Drawing['leftAt']
  /** Nothing but hairlines is drawn. */
  linesOnly: boolean
  unseen: Drawing['unseen']
}

/** Faces smaller than this (mm²) come of rounding, not of anyone's intent. */
const CRUMB_MM2 = 0.01
/** Shapes that only touch have no more card in all, but for rounding, than what they cover together. */
const ONLY_TOUCH = 1.001

/**
 * Layers of a drawing: by named top-level groups where there are two or more, else by colour; always of one colour
 * each (a group of several gives a layer for each, named after both), as few as keep the drawing's look when stacked.
 * Pieces lie in the frame of the drawing's page (mm).
 * Throws BadInput, before anything is computed, where the colours make more layers than a project holds.
 * @param onProgress takes the share done, 0 to 1
 */
export function intake(drawing: Drawing, onProgress?: (share: number) => void): Intake {
  const { shapes, labels } = labelled(drawing.shapes)
  const least = new Set(labels).size
  if (least > MOST.layers)
    throw new BadInput(
      `the drawing shows ${least} colours, each of which would be a layer, and ${MOST.layers} are the most: draw it in fewer colours, or without half-clear shapes over each other`,
    )
  const batches = sequenceLayers(
    shapes.map(({ region, box }, i) => ({ region, box, label: labels[i]! })),
    onProgress,
  )
  const names = new Map<string, number>()
  const coloursOf = groupBy(shapes, (s) => s.group)
  const colourNamed = colourNames(shapes.filter((s) => s.group === null).map((s) => s.colour))
  const named = ({ group, colour }: Drawing['shapes'][number]) => {
    if (group === null) return colourNamed.get(colour)!
    const several = new Set(coloursOf.get(group)!.map((s) => s.colour)).size > 1
    return several ? `${group}, ${colourName(colour).toLowerCase()}` : group
  }
  const layers = batches.flatMap((batch): Layer[] => {
    const first = shapes[batch[0]!]!
    const faces = inOne(batch.map((i) => shapes[i]!)).filter((face) => regionArea([face]) > CRUMB_MM2)
    if (faces.length === 0) return []
    const name = named(first)
    const count = (names.get(name) ?? 0) + 1
    names.set(name, count)
    return [
      makeLayer({ id: `layer-${names.size}-${count}`, name: count > 1 ? `${name} ${count}` : name }, faces, {
        colour: first.colour,
      }),
    ]
  })
  return {
    layers: withFolds(layers, drawing.folds),
    leftOut: drawing.leftOut,
    widthMm: drawing.widthMm,
    heightMm: drawing.heightMm,
    unitMm: drawing.unitMm,
    cornerMm: drawing.cornerMm,
    leftAt: drawing.leftAt,
    linesOnly: drawing.linesOnly,
    unseen: drawing.unseen,
  }
}

/**
 * Shapes, back to front, with what tells which of them may share a layer: group and colour, and the sheet among several of one colour that lie
 * on each other. Of one colour alone nothing is seen of what lies behind: where most later sheets have more card, the first is in front.
 */
function labelled(painted: readonly PaintedShape[]): { shapes: readonly PaintedShape[]; labels: string[] } {
  const labelOf = ({ group, colour }: PaintedShape) => `${group ?? ''}|${colour}`
  const byLabel = groupBy(painted, labelOf)
  const page = joinBoxes(painted.map(({ box }) => box))
  const alone = byLabel.size === 1
  const sheetOf = new Map<PaintedShape, number>()
  for (const shapes of byLabel.values())
    stackedSheets(shapes, { page, alone })?.forEach((sheet, i) => sheetOf.set(shapes[i]!, sheet))
  const numbered = (shape: PaintedShape) => `${labelOf(shape)}|${sheetOf.get(shape) ?? 0}`
  const card = [...groupBy(painted, numbered).values()].map((own) =>
    own.reduce((sum, { region }) => sum + regionArea(region), 0),
  )
  const shapes = alone && sheetOf.size > 0 && isFrontFirst(card) ? painted.toReversed() : painted
  return { shapes, labels: shapes.map(numbered) }
}

/** Pieces of a layer: what overlaps or touches is one, but for outlines, each of which is cut. */
function inOne(shapes: readonly PaintedShape[]): readonly Polygon[] {
  const own = shapes.flatMap(({ region }) => region)
  const joined = fillRings(regionRings(own), 'nonzero')
  const isCutApart = shapes.every(({ drawnBy }) => drawnBy === 'outline')
  return isCutApart && regionArea(own) <= regionArea(joined) * ONLY_TOUCH ? own : joined
}

/** How a fold that a drawing shows by its line alone is taken to turn, degrees. */
const DRAWN_FOLD_DEG = 90

/** Layers with the folds of a drawing: each belongs to the frontmost layer whose card it crosses, of its own group first. */
function withFolds(layers: readonly Layer[], folds: Drawing['folds']): Layer[] {
  const given = new Map<Layer, Fold[]>()
  for (const { line, group } of folds) {
    const [x1, y1, x2, y2] = line
    const on = layers.filter((layer) => regionContains(layerRegion(layer), (x1 + x2) / 2, (y1 + y2) / 2))
    const layer = on.findLast((one) => group !== null && one.name.startsWith(group)) ?? on.at(-1)
    if (layer) given.set(layer, [...(given.get(layer) ?? []), { line, way: 'up', deg: DRAWN_FOLD_DEG }])
  }
  return layers.map((layer) => ({ ...layer, folds: (given.get(layer) ?? []).slice(0, MOST.folds) }))
}

/** A layer with the schema's defaults; every face becomes a piece, the largest first. */
export function makeLayer(
  { id, name }: { id: string; name: string },
  faces: readonly Polygon[],
  more: Partial<Layer> = {},
): Layer {
  const sorted = [...faces].sort((a, b) => regionArea([b]) - regionArea([a]))
  return layerSchema.parse({
    id,
    name,
    pieces: sorted.map((face, i) => ({ id: `p${i + 1}`, path: polygonToPath(face) })),
    ...more,
  })
}

/**
 * Puts the layers of a drawing into a project. A page of the backing sheet's size lies exactly on it; any other drawing
 * keeps its true size and is centred, so that fitting it is the maker's choice. The backmost layer lies on the board.
 */
export function takeIn(project: Project, taken: Intake, move = placement(project, [taken])): Project {
  const wasEmpty = project.layers.length === 0
  const added = taken.layers.map((layer) => transformLayer(layer, translation(move.x, move.y)))
  const layers = added.map((layer, i) => {
    if (i > 0 || !wasEmpty) return layer
    return { ...layer, role: 'backing' as const, joint: { kind: 'glue' as const, gapMm: 0, pinned: false } }
  })
  return addLayers(project, layers)
}

/** Pages so much alike lie upon each other, mm. */
const SAME_PAGE_MM = 0.5

/** Whether drawings are layers of one work, a file each: all have a page of one size. */
export const haveOnePage = ([first, ...others]: readonly Pick<Intake, 'widthMm' | 'heightMm'>[]): boolean =>
  others.length > 0 &&
  others.every(
    ({ widthMm, heightMm }) =>
      Math.abs(widthMm - first!.widthMm) < SAME_PAGE_MM &&
      Math.abs(heightMm - first!.heightMm) < SAME_PAGE_MM,
  )

/** A page that is somewhat larger than what the work lives in is still meant for it: by this share of its sides. */
const PASSES = 0.1

/** Drawings without a page lie on one plane where all of them together are hardly larger than one of them, by this factor. */
const ONE_PLANE = 1.25

/**
 * Drawings that have no page (DXF) on the page that they have in common, where their coordinates say how they lie: layers of
 * one work, a file each. Others, and those of which each begins at its own corner, come back as they are.
 */
export function onOnePlane(drawings: readonly Intake[]): readonly Intake[] {
  const placed = drawings.flatMap((drawing) => {
    const { cornerMm, widthMm, heightMm } = drawing
    return cornerMm ? [{ drawing, box: boxAt(cornerMm, widthMm, heightMm) }] : []
  })
  if (placed.length < 2 || placed.length < drawings.length) return drawings
  const all = joinBoxes(placed.map(({ box }) => box))
  const most = (of: (box: Box) => number) => ONE_PLANE * Math.max(...placed.map(({ box }) => of(box)))
  const isTogether = boxWidth(all) <= most(boxWidth) && boxHeight(all) <= most(boxHeight)
  const sameCorner = placed.every(
    ({ box }) => Math.abs(box.minX - all.minX) < SAME_PAGE_MM && Math.abs(box.maxY - all.maxY) < SAME_PAGE_MM,
  )
  if (!isTogether || sameCorner) return drawings
  return placed.map(({ drawing, box }) => onPage(drawing, all, box))
}

const boxAt = ({ x, y }: Point, width: number, height: number): Box => ({
  minX: x,
  minY: y,
  maxX: x + width,
  maxY: y + height,
})

/** A drawing whose box lies on a page, in the page's frame. */
function onPage(drawing: Intake, page: Box, box: Box): Intake {
  const [x, y] = [box.minX - page.minX, box.minY - page.minY]
  return {
    ...drawing,
    layers: drawing.layers.map((layer) => transformLayer(layer, translation(x, y))),
    leftAt: drawing.leftAt.map(({ what, at }) => ({ what, at: { x: at.x + x, y: at.y + y } })),
    widthMm: boxWidth(page),
    heightMm: boxHeight(page),
    cornerMm: { x: page.minX, y: page.minY },
  }
}

/** Whether drawings, moved, lie about in what the work lives in; all do where nothing limits it. */
export function liesWithin(project: Project, drawings: readonly Intake[], { x, y }: Point): boolean {
  const backing = backingRect(project)
  if (!backing) return true
  const room = regionBox([backing])
  const box = boxOfAll(drawings)
  const [across, down] = [PASSES * boxWidth(room), PASSES * boxHeight(room)]
  return (
    box.minX + x >= room.minX - across &&
    box.minY + y >= room.minY - down &&
    box.maxX + x <= room.maxX + across &&
    box.maxY + y <= room.maxY + down
  )
}

/** The box round all that drawings show, on the page that they share, mm. */
const boxOfAll = (drawings: readonly Intake[]): Box =>
  joinBoxes(drawings.flatMap(({ layers }) => layers.map(layerBox)))

/** How far drawings on pages that lie upon each other are moved when they are taken in, mm; most often it is one. */
export function placement(project: Project, drawings: readonly Intake[]): Point {
  const backing = backingRect(project)
  if (!backing) return { x: 0, y: 0 }
  const { minX, minY, maxX, maxY } = regionBox([backing])
  const isOnIt = ({ widthMm, heightMm }: Pick<Intake, 'widthMm' | 'heightMm'>) =>
    Math.abs(widthMm - (maxX - minX)) < 1 && Math.abs(heightMm - (maxY - minY)) < 1
  if (drawings.every(isOnIt)) return { x: 0, y: 0 }
  // A sheet as large as the backing lies on it, whatever else runs past its edge.
  const sheet = drawings
    .flatMap(({ layers }) => layers.map(layerBox))
    .find((own) => isOnIt({ widthMm: boxWidth(own), heightMm: boxHeight(own) }))
  if (sheet) return { x: minX - sheet.minX, y: minY - sheet.minY }
  const box = boxOfAll(drawings)
  return { x: (minX + maxX - box.minX - box.maxX) / 2, y: (minY + maxY - box.minY - box.maxY) / 2 }
}
