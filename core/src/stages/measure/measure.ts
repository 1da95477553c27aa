import {
  boxHeight,
  boxWidth,
  emptyBox,
  isEmptyBox,
  polygonBox,
  type Affine,
  type Box,
} from '../../base/geometry'
import {
  bedOf,
  backingRect,
  depthAtHand,
  findLayer,
  layerBox,
  layerRegion,
  openingRect,
  scaleAndMove,
  transformLayers,
  type Project,
} from '../../project'
import { boxOf, partsOf, pictureOf } from './parts'

/** Width and height, mm. */
export interface Size {
  widthMm: number
  heightMm: number
}

/** What an edge hides, or what is left beside one, on each side. Lengths in mm. */
export interface Sides {
  left: number
  top: number
  right: number
  bottom: number
}

/** What follows from the measures of the mount. Lengths in mm. */
export interface Measures {
  /** Size of the backing sheet and of every full-size layer; null for toppers and free work. */
  backing: Size | null
  /** What can be seen; null where nothing limits it. */
  opening: Size | null
  /** What lip and mat hide on each side. */
  lip: Sides | null
  /** The largest design, proportions locked, and what sets the limit. */
  safe: (Size & { limit: string }) | null
  /** What is sized: the picture where it lies on sheets of the backing's size, else all layers together. */
  design: (Size & { box: Box }) | null
  /** Whether the picture is cut out of full sheets that run on under the lip. */
  fullSheets: boolean
  /** One of these is as large as the backing and lies on it: nothing is to be scaled, and what passes its edge is to be cut off. */
  isToSize: boolean
  /** Factor that would bring the design to its safe size. */
  fitFactor: number | null
  /** From the design to the edge of what is seen; from full sheets to that of the backing. Negative where it is passed. */
  borders: Sides | null
  /** Sheet that a cutter can reach, on the largest sheet in the drawer or on the bed. */
  cuttable: Size
  depthMm: number | null
  clearanceMm: number
  /** Depth for card, foam and glue: depth less clearance, and less a mat. */
  roomMm: number | null
  /** String of a garland: flags as wide as the design, the gaps between them and both ends; null for other work. */
  stringMm: number | null
}

/** Computes what follows from the mount and the design. Needs the geometry loaded. */
export function measure(project: Project): Measures {
  const { mount } = project
  const backingPolygon = backingRect(project)
  const openingPolygon = openingRect(project)
  const backing = backingPolygon && polygonBox(backingPolygon)
  const opening = openingPolygon && polygonBox(openingPolygon)
  const parts = partsOf(project)
  const box = boxOf(pictureOf(project, parts))
  const design = isEmptyBox(box) ? null : { widthMm: boxWidth(box), heightMm: boxHeight(box), box }
  const { fullSheets, isToSize } = parts
  const cuttable = cuttableSize(project)
  const target = targetSize(project, fullSheets, cuttable)
  const factor =
    design && target ? Math.min(target.widthMm / design.widthMm, target.heightMm / design.heightMm) : null
  const fitFactor = factor !== null && isToSize ? 1 : factor
  const limit = depthAtHand(mount)
  const seen = fullSheets ? backing : opening
  return {
    backing: backing && { widthMm: boxWidth(backing), heightMm: boxHeight(backing) },
    opening: opening && { widthMm: boxWidth(opening), heightMm: boxHeight(opening) },
    lip: mount.kind === 'frame' && backing && opening ? sidesWithin(opening, backing) : null,
    safe:
      target && design && fitFactor
        ? { widthMm: design.widthMm * fitFactor, heightMm: design.heightMm * fitFactor, limit: target.limit }
        : target,
    design,
    fullSheets,
    isToSize,
    fitFactor,
    borders: seen && design ? sidesWithin(box, seen) : null,
    cuttable,
    depthMm: limit?.depthMm ?? null,
    clearanceMm: limit?.clearanceMm ?? 0,
    roomMm: limit && limit.depthMm - limit.clearanceMm,
    stringMm: stringOf(project, design),
  }
}

/** A garland that was grown shows all of its flags; of any other the design is one flag. */
function stringOf({ mount, grown }: Project, design: { widthMm: number } | null): number | null {
  if (mount.kind !== 'garland' || !design) return null
  const flags = grown.some(({ recipe }) => recipe.kind === 'garland')
    ? design.widthMm
    : mount.flags * design.widthMm + (mount.flags - 1) * mount.gapMm
  return flags + 2 * mount.endsMm
}

/** What is left between a box and one round it; negative where it is passed. */
export const sidesWithin = (inner: Box, outer: Box): Sides => ({
  left: inner.minX - outer.minX,
  top: inner.minY - outer.minY,
  right: outer.maxX - inner.maxX,
  bottom: outer.maxY - inner.maxY,
})

/** The map that brings the design to its safe size, proportions locked, in the middle of what is seen. Null where there is no design or no limit, or sheets are to size. */
export function fitMap(project: Project): Affine | null {
  const m = measure(project)
  if (!m.design || !m.fitFactor || m.isToSize) return null
  const { box } = m.design
  const middle = { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 }
  // Sheets lie on the backing, wherever the opening sits in front of them.
  const place = m.fullSheets ? backingRect(project) : openingRect(project)
  const target = place
    ? {
        x: (polygonBox(place).minX + polygonBox(place).maxX) / 2,
        y: (polygonBox(place).minY + polygonBox(place).maxY) / 2,
      }
    : { x: (m.design.widthMm * m.fitFactor) / 2, y: (m.design.heightMm * m.fitFactor) / 2 }
  return scaleAndMove(m.fitFactor, middle, target)
}

/** Brings the design to its safe size and its place; sheets that lie right stay as they are. */
export function fitDesign(project: Project): Project {
  const map = fitMap(project)
  if (!map) return project
  const layers = pictureOf(project, partsOf(project))
  return transformLayers(
    project,
    map,
    layers.map((layer) => layer.id),
  )
}

/** Makes one sheet as large as the backing: a plain one is cut anew, one with openings is scaled with them. */
export function fitSheet(project: Project, layerId: string): Project {
  const layer = findLayer(project, layerId)
  const backing = backingRect(project)
  if (!layer || !backing || layer.pieces.length === 0) return project
  const box = layerBox(layer)
  const room = polygonBox(backing)
  const isPlain = layer.pieces.length === 1 && layerRegion(layer).every((face) => face.holes.length === 0)
  const [sx, sy] = [boxWidth(room) / boxWidth(box), boxHeight(room) / boxHeight(box)]
  const factor = Math.min(sx, sy)
  const [fx, fy] = isPlain ? [sx, sy] : [factor, factor]
  const [cx, cy] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2]
  const [tx, ty] = [(room.minX + room.maxX) / 2, (room.minY + room.maxY) / 2]
  return transformLayers(project, [fx, 0, 0, fy, tx - cx * fx, ty - cy * fy], [layerId])
}

/** What a cutter reaches on the largest sheet in use; on a full bed where no paper is chosen yet. */
function cuttableSize(project: Project): Size {
  const { cutter, papers } = project.drawer
  const { bedWidthMm, bedHeightMm } = bedOf(cutter)
  const reach = (w: number, h: number): Size => ({
    widthMm: Math.min(w, bedWidthMm) - 2 * cutter.rimMm,
    heightMm: Math.min(h, bedHeightMm) - 2 * cutter.rimMm,
  })
  const sizes = papers.map((p) => reach(p.widthMm, p.heightMm))
  sizes.sort((a, b) => b.widthMm * b.heightMm - a.widthMm * a.heightMm)
  return sizes[0] ?? reach(bedWidthMm, bedHeightMm)
}

function targetSize(
  project: Project,
  fullSheets: boolean,
  cuttable: Size,
): (Size & { limit: string }) | null {
  const { mount } = project
  let room: Size & { limit: string }
  const opening = openingRect(project)
  const seen = opening ? polygonBox(opening) : emptyBox()
  if (mount.kind === 'frame')
    room = fullSheets
      ? { widthMm: mount.spacer.widthMm, heightMm: mount.spacer.heightMm, limit: 'the spacer' }
      : {
          widthMm: boxWidth(seen) - 2 * mount.airMm,
          heightMm: boxHeight(seen) - 2 * mount.airMm,
          limit: mount.mat ? 'the mat’s opening less its air' : 'the opening less its air',
        }
  else if (mount.kind === 'card' || mount.kind === 'panel')
    room = fullSheets
      ? { widthMm: mount.panel.widthMm, heightMm: mount.panel.heightMm, limit: 'the panel' }
      : {
          widthMm: mount.panel.widthMm - 2 * mount.airMm,
          heightMm: mount.panel.heightMm - 2 * mount.airMm,
          limit: 'the panel less its air',
        }
  else if (mount.kind === 'topper')
    room = { widthMm: mount.widthMm, heightMm: Infinity, limit: 'the width of the topper' }
  else return null
  // Sheets are as large as the backing, whatever is cut in one.
  if (fullSheets) return room
  const widthMm = Math.min(room.widthMm, cuttable.widthMm)
  const heightMm = Math.min(room.heightMm, cuttable.heightMm)
  if (!(widthMm > 0 && heightMm > 0)) return null
  const bySheet = widthMm < room.widthMm || (heightMm < room.heightMm && room.heightMm !== Infinity)
  return { widthMm, heightMm, limit: bySheet ? 'what the cutter reaches on a sheet' : room.limit }
}
