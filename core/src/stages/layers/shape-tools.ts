// Layers made of layers, and their pieces one by one. Lengths in mm.
import {
  ellipse,
  intersect,
  offset,
  polygonArea,
  ringContains,
  subtract,
  union,
  type Join,
  type Point,
  type Polygon,
} from '../../base/geometry'
import {
  backingRect,
  findLayer,
  layerRegion,
  MOST,
  pieceRegion,
  setLayer,
  type Layer,
  type Project,
} from '../../project'
import { makeLayer } from './intake/intake'
import { stripRegion } from './makers/bridge'
import { thickened } from './soundness/necks'
import { roomRound } from './soundness/soundness'
import { reshaped } from './reshaped'
import { tiesOf, untied, type DrawnStrip } from './ties'

/** Faces smaller than this come of rounding, mm². */
const CRUMB_MM2 = 0.05

const without = (project: Project, layerId: string): Project['plan'] => ({
  ...project.plan,
  pins: project.plan.pins.filter((pin) => pin.layerId !== layerId),
})

/** A layer whose shape may be worked on: what is cut flat and then rolled or folded is its maker's to change. */
const shapeable = (project: Project, layerId: string): Layer | undefined => {
  const layer = findLayer(project, layerId)
  return layer?.blanks.length === 0 ? layer : undefined
}

/** An id that no layer has. */
function freeId(project: Project, base: string): string {
  let id = base
  for (let n = 2; project.layers.some((layer) => layer.id === id); n++) id = `${base}-${n}`
  return id
}

/** Layers with one put right in front of another, or right behind it. */
const putBeside = (
  project: Project,
  layerId: string,
  { layer, where }: { layer: Layer; where: 'front' | 'behind' },
): Project => {
  const at = project.layers.findIndex((other) => other.id === layerId) + (where === 'front' ? 1 : 0)
  return { ...project, layers: [...project.layers.slice(0, at), layer, ...project.layers.slice(at)] }
}

/**
 * A copy of a layer that is larger all round by a distance, behind it; or smaller (less than 0), in front of it. Unchanged where
 * nothing would be left. Needs the geometry loaded.
 */
export function offsetCopy(
  project: Project,
  layerId: string,
  { mm, corners }: { mm: number; corners: 'round' | 'sharp' },
): Project {
  const layer = shapeable(project, layerId)
  if (!layer || mm === 0) return project
  const join: Join = corners === 'round' ? 'round' : 'miter'
  const region = offset(layerRegion(layer), mm, join).filter((face) => polygonArea(face) > CRUMB_MM2)
  if (region.length === 0) return project
  const id = freeId(project, `${layerId}-${mm > 0 ? 'outset' : 'inset'}`)
  const name = `${layer.name}, ${mm > 0 ? 'larger' : 'smaller'}`
  const { paperId, joint, colour, assemblyId } = layer
  const copy = makeLayer({ id, name }, region, { paperId, joint, colour, assemblyId })
  return putBeside(project, layerId, { layer: copy, where: mm > 0 ? 'behind' : 'front' })
}

/** Takes the shape of one layer out of another, with room round it; the cutting layer stays. */
export function cutOut(
  project: Project,
  layerId: string,
  { byId, roomMm }: { byId: string; roomMm: number },
): Project {
  const [layer, by] = [shapeable(project, layerId), findLayer(project, byId)]
  if (!layer || !by || layerId === byId) return project
  const rest = subtract(layerRegion(layer), offset(layerRegion(by), roomMm)).filter(
    (face) => polygonArea(face) > CRUMB_MM2,
  )
  return rest.length === 0 ? project : reshaped(project, layer, { region: rest })
}

/** What of a layer lies within what the work lives in: the backing sheet, the panel. Needs the geometry loaded. */
export function cutOff(project: Project, layerId: string): Project {
  const [layer, backing] = [shapeable(project, layerId), backingRect(project)]
  if (!layer || !backing) return project
  const within = layer.pieces.flatMap((piece) => intersect(pieceRegion(piece), [backing]))
  const left = within.filter((face) => polygonArea(face) > CRUMB_MM2)
  return left.length === 0 ? project : reshaped(project, layer, { region: left })
}

/** Closes the openings of a layer that are smaller than an area (mm²). */
export function fillHoles(project: Project, layerId: string, underMm2: number): Project {
  const layer = shapeable(project, layerId)
  if (!layer) return project
  const region = union(layerRegion(layer))
  const filled = region.map(({ outer, holes }): Polygon => ({
    outer,
    holes: holes.filter((hole) => holeArea(hole) >= underMm2),
  }))
  return filled.every((face, i) => face.holes.length === region[i]!.holes.length)
    ? project
    : reshaped(project, layer, { region: filled })
}

/** Closes the smallest opening of a layer round a place. */
export function fillOpening(project: Project, layerId: string, { x, y }: Point): Project {
  const layer = shapeable(project, layerId)
  if (!layer) return project
  const region = layerRegion(layer)
  const around = region.flatMap((face) => face.holes).filter((hole) => ringContains(hole, x, y))
  const [least] = around.toSorted((a, b) => holeArea(a) - holeArea(b))
  if (!least) return project
  return reshaped(project, layer, {
    region: region.map((face) => ({ ...face, holes: face.holes.filter((hole) => hole !== least) })),
  })
}

/** Lays a strip of card into a layer, tying what it touches; or cuts one out of it. Needs the geometry loaded. */
export function drawStrip(
  project: Project,
  layerId: string,
  { from, to, widthMm, cut }: DrawnStrip & { cut: boolean },
): Project {
  const layer = shapeable(project, layerId)
  if (!layer) return project
  const strip = stripRegion(from, to, { widthMm })
  const region = layerRegion(layer)
  const next = cut ? subtract(region, strip) : union(region, strip)
  const whole = next.filter((face) => polygonArea(face) > CRUMB_MM2)
  if (whole.length === 0) return project
  const ties = cut ? layer.ties : [...layer.ties, ...tiesOf(untied(layer), [{ from, to, widthMm }])]
  return reshaped(project, layer, { region: whole, ties: ties.slice(-MOST.ties) })
}

/** Widens the strips of a layer that are too narrow round one place, and no others. Needs the geometry loaded. */
export function widenAt(
  project: Project,
  layerId: string,
  { at, safeMm }: { at: Point; safeMm: number },
): Project {
  const layer = shapeable(project, layerId)
  if (!layer) return project
  const region = layerRegion(layer)
  const near = [ellipse([at.x, at.y], safeMm * NEAR)]
  const around = intersect(region, near)
  const added = intersect(subtract(thickened(around, safeMm, roomRound(project, around)), around), near)
  return added.length === 0 ? project : reshaped(project, layer, { region: union(region, added) })
}

/** Round a place that is widened so many safe strips count. */
const NEAR = 5

const holeArea = (hole: Float64Array): number => Math.abs(polygonArea({ outer: hole, holes: [] }))

/** Makes a layer of its own of some pieces, right in front of the one they lay in. */
export function splitOff(project: Project, layerId: string, pieceIds: readonly string[]): Project {
  const layer = shapeable(project, layerId)
  const own = layer?.pieces.filter((piece) => pieceIds.includes(piece.id)) ?? []
  if (!layer || own.length === 0 || own.length === layer.pieces.length) return project
  const id = freeId(project, `${layerId}-part`)
  const rest = setLayer(project, layerId, {
    pieces: layer.pieces.filter((piece) => !pieceIds.includes(piece.id)),
  })
  return {
    ...putBeside(rest, layerId, {
      layer: { ...layer, id, name: `${layer.name}, part`, pieces: own, folds: [] },
      where: 'front',
    }),
    plan: without(project, layerId),
  }
}

/** Moves pieces into another layer, where they join what they touch. */
export function movePieces(
  project: Project,
  layerId: string,
  { pieceIds, toId }: { pieceIds: readonly string[]; toId: string },
): Project {
  const [layer, to] = [shapeable(project, layerId), shapeable(project, toId)]
  const own = layer?.pieces.filter((piece) => pieceIds.includes(piece.id)) ?? []
  if (!layer || !to || own.length === 0 || layerId === toId) return project
  const region = union(layerRegion(to), own.flatMap(pieceRegion))
  const joined = reshaped(project, to, { region, others: own })
  return {
    ...setLayer(joined, layerId, { pieces: layer.pieces.filter((piece) => !pieceIds.includes(piece.id)) }),
    plan: without(joined, layerId),
  }
}
