import {
  boxHeight,
  boxWidth,
  isEmptyBox,
  polygonArea,
  polygonBox,
  type Affine,
  type Box,
} from '../../base/geometry'
import {
  backingRect,
  builtLayers,
  depthAtHand,
  designBox,
  layerBox,
  layerRegion,
  openingRect,
  scaleAndMove,
  transformLayers,
  type Project,
} from '../../project'

/** Width and height, mm. */
export interface Size {
  widthMm: number
  heightMm: number
}

/** What follows from the measures of the mount. Lengths in mm. */
export interface Measures {
  /** Size of the backing sheet and of every full-size layer; null for toppers and free work. */
  backing: Size | null
  /** What can be seen; null where nothing limits it. */
  opening: Size | null
  /** What the lip hides on each side. */
  lip: { sideMm: number; topMm: number } | null
  /** The largest design, proportions locked, and what sets the limit. */
  safe: (Size & { limit: string }) | null
  /** All layers together. */
  design: (Size & { box: Box }) | null
  /** Whether the layers are full sheets that run on under the lip. */
  fullSheets: boolean
  /** Factor that would bring the design to its safe size. */
  fitFactor: number | null
  /** From the design to the edge of what is seen; negative where it is passed. */
  borders: { left: number; top: number; right: number; bottom: number } | null
  /** Sheet that a cutter can reach, on the largest sheet in the drawer or on the bed. */
  cuttable: Size
  depthMm: number | null
  clearanceMm: number
  /** Depth for card, foam and glue: depth less clearance. */
  roomMm: number | null
}

/** Lengths that differ by less count as equal. */
export const TOLERANCE_MM = 0.05

/** Computes what follows from the mount and the design. Needs the geometry loaded. */
export function measure(project: Project): Measures {
  const { mount } = project
  const backingPolygon = backingRect(project)
  const openingPolygon = openingRect(project)
  const backing = backingPolygon && polygonBox(backingPolygon)
  const opening = openingPolygon && polygonBox(openingPolygon)
  const box = designBox(project)
  const design = isEmptyBox(box) ? null : { widthMm: boxWidth(box), heightMm: boxHeight(box), box }
  const fullSheets =
    backing !== null && opening !== null && design !== null && isSheetStack(project, backing, opening)
  const cuttable = cuttableSize(project)
  const target = targetSize(project, fullSheets, cuttable)
  const fitFactor =
    design && target ? Math.min(target.widthMm / design.widthMm, target.heightMm / design.heightMm) : null
  const limit = depthAtHand(mount)
  const seen = fullSheets ? backing : opening
  return {
    backing: backing && { widthMm: boxWidth(backing), heightMm: boxHeight(backing) },
    opening: opening && { widthMm: boxWidth(opening), heightMm: boxHeight(opening) },
    lip:
      mount.kind === 'frame'
        ? {
            sideMm: (mount.spacer.widthMm - mount.opening.widthMm) / 2,
            topMm: (mount.spacer.heightMm - mount.opening.heightMm) / 2,
          }
        : null,
    safe:
      target && design && fitFactor
        ? { widthMm: design.widthMm * fitFactor, heightMm: design.heightMm * fitFactor, limit: target.limit }
        : target,
    design,
    fullSheets,
    fitFactor,
    borders:
      seen && design
        ? {
            left: box.minX - seen.minX,
            top: box.minY - seen.minY,
            right: seen.maxX - box.maxX,
            bottom: seen.maxY - box.maxY,
          }
        : null,
    cuttable,
    depthMm: limit?.depthMm ?? null,
    clearanceMm: limit?.clearanceMm ?? 0,
    roomMm: limit && limit.depthMm - limit.clearanceMm,
  }
}

/** A sheet is taken for a rectangle where its outline fills so much of its box. */
const SHEET_FILL = 0.97

/**
 * Most of the layers are rectangles of one size that, scaled to the backing, cover what is seen: then the stack is one of
 * full sheets, at whatever scale it was drawn.
 */
function isSheetStack(project: Project, backing: Box, opening: Box): boolean {
  const layers = builtLayers(project)
  const box = designBox(project)
  const [w, h] = [boxWidth(box), boxHeight(box)]
  const scale = Math.min(boxWidth(backing) / w, boxHeight(backing) / h)
  if (!(w * scale >= boxWidth(opening) - TOLERANCE_MM && h * scale >= boxHeight(opening) - TOLERANCE_MM))
    return false
  const full = layers.filter((layer) => {
    const b = layerBox(layer)
    if (boxWidth(b) < w * 0.995 || boxHeight(b) < h * 0.995) return false
    const outline = layerRegion(layer).reduce(
      (sum, face) => sum + polygonArea({ outer: face.outer, holes: [] }),
      0,
    )
    return outline >= SHEET_FILL * boxWidth(b) * boxHeight(b)
  })
  return full.length * 2 > layers.length
}

/** What a cutter reaches on the largest sheet in use; on a full bed where no paper is chosen yet. */
function cuttableSize(project: Project): Size {
  const { cutter, papers } = project.drawer
  const reach = (w: number, h: number): Size => ({
    widthMm: Math.min(w, cutter.bedWidthMm) - 2 * cutter.rimMm,
    heightMm: Math.min(h, cutter.bedHeightMm) - 2 * cutter.rimMm,
  })
  const sizes = papers.map((p) => reach(p.widthMm, p.heightMm))
  sizes.sort((a, b) => b.widthMm * b.heightMm - a.widthMm * a.heightMm)
  return sizes[0] ?? reach(cutter.bedWidthMm, cutter.bedHeightMm)
}

function targetSize(
  project: Project,
  fullSheets: boolean,
  cuttable: Size,
): (Size & { limit: string }) | null {
  const { mount } = project
  let room: Size & { limit: string }
  if (mount.kind === 'frame')
    room = fullSheets
      ? { ...mount.spacer, limit: 'the spacer' }
      : {
          widthMm: mount.opening.widthMm - 2 * mount.airMm,
          heightMm: mount.opening.heightMm - 2 * mount.airMm,
          limit: 'the opening less its air',
        }
  else if (mount.kind === 'card')
    room = fullSheets
      ? { ...mount.panel, limit: 'the card panel' }
      : {
          widthMm: mount.panel.widthMm - 2 * mount.airMm,
          heightMm: mount.panel.heightMm - 2 * mount.airMm,
          limit: 'the card panel less its air',
        }
  else if (mount.kind === 'topper')
    room = { widthMm: mount.widthMm, heightMm: Infinity, limit: 'the width of the topper' }
  else return null
  const widthMm = Math.min(room.widthMm, cuttable.widthMm)
  const heightMm = Math.min(room.heightMm, cuttable.heightMm)
  if (!(widthMm > 0 && heightMm > 0)) return null
  const bySheet = widthMm < room.widthMm || (heightMm < room.heightMm && room.heightMm !== Infinity)
  return { widthMm, heightMm, limit: bySheet ? 'what the cutter reaches on a sheet' : room.limit }
}

/** The map that brings the design to its safe size, proportions locked, in the middle of what is seen. Null where there is no design or no limit. */
export function fitMap(project: Project): Affine | null {
  const m = measure(project)
  if (!m.design || !m.fitFactor) return null
  const { box } = m.design
  const middle = { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 }
  const place = openingRect(project)
  const target = place
    ? {
        x: (polygonBox(place).minX + polygonBox(place).maxX) / 2,
        y: (polygonBox(place).minY + polygonBox(place).maxY) / 2,
      }
    : { x: (m.design.widthMm * m.fitFactor) / 2, y: (m.design.heightMm * m.fitFactor) / 2 }
  return scaleAndMove(m.fitFactor, middle, target)
}

/** Scales and centres the whole design to its safe size. */
export function fitDesign(project: Project): Project {
  const map = fitMap(project)
  return map ? transformLayers(project, map) : project
}
