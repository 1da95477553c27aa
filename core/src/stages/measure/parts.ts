// What each layer is to the mount: a sheet of the backing's size, which runs on under the lip, or a part that lies in what is seen.
import {
  boxHeight,
  boxWidth,
  convexHull,
  joinBoxes,
  polygonArea,
  polygonBox,
  type Box,
} from '../../base/geometry'
import {
  backingRect,
  designBox,
  designLayers,
  layerBox,
  layerRegion,
  openingRect,
  type Layer,
  type Project,
} from '../../project'
import { TOLERANCE_MM } from './tolerance'

/** Layers of a project by what they are judged against. */
export interface Parts {
  /** Sheets that cover what is seen, and layers whose edges run on under the lip with them: judged against spacer or panel. */
  sheets: Layer[]
  /** What lies in what is seen: judged against the opening and its air. */
  inside: Layer[]
  /** The picture is cut out of the sheets, or nothing lies on them: sheets are what is sized. */
  fullSheets: boolean
  /** One of such sheets lies on the backing, edge on edge: what of others is past it stands out, and nothing is to be drawn smaller. */
  isToSize: boolean
}

/** A sheet is taken for a rectangle where its outline fills so much of its box. */
const SHEET_FILL = 0.97
/** A side that comes this near to the edge of the sheets runs on under the lip with them, mm. */
const UNDER_MM = 1
/** Sheets drawn at another scale: most layers are rectangles of the design's size to within this share. */
const SAME_SIZE = 0.995

/** The box round all cut edges of some layers, mm in the project’s frame. */
export const boxOf = (layers: readonly Layer[]): Box => joinBoxes(layers.map(layerBox))

/** What fitting sizes: the picture on the sheets, or everything where the picture is cut out of them. */
export const pictureOf = (project: Project, { sheets, inside, fullSheets }: Parts): Layer[] =>
  fullSheets || sheets.length === 0 ? designLayers(project) : inside

/** Sorts the layers that are built. Needs the geometry loaded. */
export function partsOf(project: Project): Parts {
  const layers = designLayers(project).filter((layer) => layer.pieces.length > 0)
  const backing = backingRect(project)
  const opening = openingRect(project)
  if (!backing || !opening) return { sheets: [], inside: layers, fullSheets: false, isToSize: false }
  const seen = polygonBox(opening)
  const drawnSmall = isSheetStack(project, polygonBox(backing), seen)
  const edge = drawnSmall ? designBox(project) : polygonBox(backing)
  const isWhole = (layer: Layer): boolean => {
    const box = layerBox(layer)
    const isNamed = (layer.role === 'backing' || layer.role === 'border') && !isWellInside(box, seen)
    return (
      (drawnSmall && isAsLargeAs(box, edge)) ||
      ((covers(box, seen) || isNamed) && (isPlain(layer) || canCover(box, polygonBox(backing), seen)))
    )
  }
  const rectangles = layers.filter(isRectangle)
  const parted = rectangles.filter((layer) => !isWhole(layer)).map(layerBox)
  // What lies edge on edge with sheets that are part of the picture goes with them.
  const whole = rectangles.filter(
    (layer) => isWhole(layer) && !parted.some((box) => isSameBox(box, layerBox(layer))),
  )
  // Without a sheet there is nothing to run on with: what comes near the edge only happens to.
  const sheets = layers.filter(
    (layer) =>
      whole.includes(layer) ||
      (whole.length > 0 && !isRectangle(layer) && runsUnder(layerBox(layer), seen, edge)),
  )
  const inside = layers.filter((layer) => !sheets.includes(layer))
  const isCut = sheets.some((layer) => !isRectangle(layer) || !isPlain(layer))
  const fullSheets = sheets.length > 0 && (inside.length === 0 || isCut)
  const isToSize = fullSheets && sheets.some((layer) => isSameBox(layerBox(layer), polygonBox(backing)))
  return { sheets, inside, fullSheets, isToSize }
}

/** No opening is cut in it, nor a piece of it where it is put together of parts. */
const isPlain = (layer: Layer): boolean =>
  layerRegion(layer).every((face) => face.holes.length === 0) && filledBy(layer) >= SHEET_FILL

/** Whether a sheet, scaled to the backing with proportions locked, covers what is seen. */
export function canCover(box: Box, backing: Box, seen: Box): boolean {
  const scale = Math.min(boxWidth(backing) / boxWidth(box), boxHeight(backing) / boxHeight(box))
  return (
    boxWidth(box) * scale >= boxWidth(seen) - TOLERANCE_MM &&
    boxHeight(box) * scale >= boxHeight(seen) - TOLERANCE_MM
  )
}

const isAsLargeAs = (box: Box, other: Box): boolean =>
  boxWidth(box) >= boxWidth(other) * SAME_SIZE && boxHeight(box) >= boxHeight(other) * SAME_SIZE

const covers = (box: Box, seen: Box): boolean =>
  box.minX <= seen.minX + TOLERANCE_MM &&
  box.minY <= seen.minY + TOLERANCE_MM &&
  box.maxX >= seen.maxX - TOLERANCE_MM &&
  box.maxY >= seen.maxY - TOLERANCE_MM

/** Named a backing and yet so small that it can only be part of the picture. */
const isWellInside = (box: Box, seen: Box): boolean =>
  boxWidth(box) < boxWidth(seen) * 0.8 || boxHeight(box) < boxHeight(seen) * 0.8

/** Whether two lie edge on edge. */
const isSameBox = (a: Box, b: Box): boolean =>
  (['minX', 'minY', 'maxX', 'maxY'] as const).every((side) => Math.abs(a[side] - b[side]) < UNDER_MM)

/** Whether a side passes what is seen and goes on to the edge of the sheets. */
const runsUnder = (box: Box, seen: Box, edge: Box): boolean =>
  (box.minX < seen.minX && Math.abs(box.minX - edge.minX) < UNDER_MM) ||
  (box.minY < seen.minY && Math.abs(box.minY - edge.minY) < UNDER_MM) ||
  (box.maxX > seen.maxX && Math.abs(box.maxX - edge.maxX) < UNDER_MM) ||
  (box.maxY > seen.maxY && Math.abs(box.maxY - edge.maxY) < UNDER_MM)

/** How much of its box the outlines of a layer fill, openings and all. */
function filledBy(layer: Layer): number {
  const box = layerBox(layer)
  const outlines = layerRegion(layer).reduce((sum, { outer }) => sum + polygonArea({ outer, holes: [] }), 0)
  return outlines / (boxWidth(box) * boxHeight(box))
}

/** One outline that nearly fills its box, in one piece or in parts: it is to cover what is seen, unlike what runs under the lip on some sides only. */
export const isRectangle = (layer: Layer): boolean => filledBy(layer) >= SHEET_FILL || isInParts(layer)

/** Parts of a sheet, and what is left in their openings, are no more. */
const MOST_FACES = 64

/** Whether pieces lie side by side like parts of one sheet, openings cut through by seams: their boxes fill that of the layer, and its corners are there. */
function isInParts(layer: Layer): boolean {
  const faces = layerRegion(layer)
  if (faces.length < 2 || faces.length > MOST_FACES) return false
  const boxes = faces.map(polygonBox)
  const apart = boxes.filter((box, i) => !boxes.some((other, k) => k !== i && lies(box, other)))
  const areaOf = (box: Box) => boxWidth(box) * boxHeight(box)
  const all = areaOf(layerBox(layer))
  const covered = apart.reduce((sum, box) => sum + areaOf(box), 0) / all
  if (covered < SHEET_FILL || covered > 2 - SHEET_FILL) return false
  const outer = convexHull(faces.flatMap((face) => [...face.outer]))
  return polygonArea({ outer, holes: [] }) >= SHEET_FILL * all
}

/** Whether a box lies in another. */
const lies = (box: Box, within: Box): boolean =>
  box.minX >= within.minX && box.minY >= within.minY && box.maxX <= within.maxX && box.maxY <= within.maxY

/**
 * Most of the layers are rectangles of one size that, scaled to the backing, cover what is seen: then the stack is one of
 * full sheets, at whatever scale it was drawn.
 */
function isSheetStack(project: Project, backing: Box, seen: Box): boolean {
  const layers = designLayers(project)
  const box = designBox(project)
  if (!canCover(box, backing, seen)) return false
  const full = layers.filter((layer) => isAsLargeAs(layerBox(layer), box) && isRectangle(layer))
  return full.length * 2 > layers.length
}
