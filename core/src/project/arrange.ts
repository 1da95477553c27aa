/**
 * Placing layers and parts: moved, turned, scaled, mirrored, copied, aligned, spread, repeated. Lengths in mm in the project's frame
 * (y down), angles in degrees clockwise on screen.
 */
import {
  compose,
  joinBoxes,
  rotation,
  scaling,
  translation,
  type Affine,
  type Box,
  type Point,
} from '../base/geometry'
import { membersOf, movedWith, unitsOf } from './assemblies'
import { inThousandths, transformLayers } from './edit'
import { layerBox } from './faces'
import type { Assembly, Layer, Project } from './schema'

/** The box round layers; empty where they have no pieces. */
export const boxOfLayers = (project: Project, layerIds: readonly string[]): Box =>
  joinBoxes(project.layers.filter((layer) => layerIds.includes(layer.id)).map(layerBox))

const middleOf = (b: Box): Point => ({ x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 })

/** A map about a point in place of the origin. */
const about = ({ x, y }: Point, map: Affine): Affine =>
  compose(translation(x, y), compose(map, translation(-x, -y)))

/** A map about the middle of a box. */
export const aboutMiddle = (box: Box, map: Affine): Affine => about(middleOf(box), map)

/** Maps layers and what belongs to them; what a maker grew is remembered where it was put. */
export function place(project: Project, layerIds: readonly string[], by: Affine): Project {
  const map = inThousandths(by)
  const chosen = movedWith(project, layerIds)
  if (chosen.length === 0) return project
  const next = transformLayers(project, map, chosen)
  return {
    ...next,
    grown: next.grown.map((entry) =>
      entry.layerIds.length > 0 && entry.layerIds.every((id) => chosen.includes(id))
        ? { ...entry, place: [...compose(map, (entry.place ?? IDENTITY) as unknown as Affine)] as Place }
        : entry,
    ),
  }
}

type Place = NonNullable<Project['grown'][number]['place']>
const IDENTITY: Place = [1, 0, 0, 1, 0, 0]

/** Moves. */
export const moveParts = (
  project: Project,
  layerIds: readonly string[],
  [dx, dy]: readonly [number, number],
): Project => place(project, layerIds, translation(dx, dy))

/** Turns about their common middle. */
export const turnParts = (project: Project, layerIds: readonly string[], deg: number): Project =>
  place(project, layerIds, about(middleOf(boxOfMoved(project, layerIds)), rotation(deg)))

/** Makes parts so many times as large (factor), about their common middle, proportions locked. */
export const scaleParts = (project: Project, layerIds: readonly string[], factor: number): Project =>
  factor > 0
    ? place(project, layerIds, about(middleOf(boxOfMoved(project, layerIds)), scaling(factor)))
    : project

/** Exchanges left and right, or top and bottom, about their common middle. */
export const mirrorParts = (
  project: Project,
  layerIds: readonly string[],
  axis: 'upright' | 'level',
): Project =>
  place(
    project,
    layerIds,
    about(
      middleOf(boxOfMoved(project, layerIds)),
      axis === 'upright' ? [-1, 0, 0, 1, 0, 0] : [1, 0, 0, -1, 0, 0],
    ),
  )

/** The box round layers and what moves with them. */
export const boxOfMoved = (project: Project, layerIds: readonly string[]): Box =>
  boxOfLayers(project, movedWith(project, layerIds))

/** Edges and middles by which parts are lined up. */
export type Edge = 'left' | 'centre' | 'right' | 'top' | 'middle' | 'bottom'

/** Lines parts up, each as one, by an edge or a middle of a box: that round all of them where none is given. */
export function alignParts(
  project: Project,
  layerIds: readonly string[],
  { edge, to }: { edge: Edge; to?: Box },
): Project {
  const target = to ?? boxOfMoved(project, layerIds)
  const at = (b: Box): number =>
    ({
      left: b.minX,
      centre: (b.minX + b.maxX) / 2,
      right: b.maxX,
      top: b.minY,
      middle: (b.minY + b.maxY) / 2,
      bottom: b.maxY,
    })[edge]
  const isAcross = edge === 'left' || edge === 'centre' || edge === 'right'
  return unitsOf(project, layerIds).reduce((p, unit) => {
    const by = at(target) - at(boxOfLayers(p, unit.layerIds))
    return isAcross ? moveParts(p, unit.layerIds, [by, 0]) : moveParts(p, unit.layerIds, [0, by])
  }, project)
}

/** Spreads three or more parts so that the gaps between them are even; the outermost stay. */
export function spreadParts(project: Project, layerIds: readonly string[], way: 'across' | 'down'): Project {
  const range = (b: Box): [number, number] => (way === 'across' ? [b.minX, b.maxX] : [b.minY, b.maxY])
  const units = unitsOf(project, layerIds)
    .map((unit) => ({ ...unit, range: range(boxOfLayers(project, unit.layerIds)) }))
    .toSorted((a, b) => a.range[0] + a.range[1] - b.range[0] - b.range[1])
  if (units.length < 3) return project
  const [first, last] = [units[0]!, units.at(-1)!]
  const card = units.reduce((sum, { range: [from, to] }) => sum + to - from, 0)
  const gap = (last.range[1] - first.range[0] - card) / (units.length - 1)
  let at = first.range[0]
  return units.reduce((p, { layerIds: ids, range: [from, to] }) => {
    const by = at - from
    at += to - from + gap
    return way === 'across' ? moveParts(p, ids, [by, 0]) : moveParts(p, ids, [0, by])
  }, project)
}

/** Copies layers and parts right in front of what they are copies of, mapped; gives the ids of the copies too. */
export function copyParts(
  project: Project,
  layerIds: readonly string[],
  map: Affine,
): { project: Project; layerIds: string[] } {
  const chosen = movedWith(project, layerIds)
  const taken = new Set([...project.layers.map((l) => l.id), ...project.assemblies.map((a) => a.id)])
  const freshId = (id: string): string => {
    const base = id.replace(/-copy\d*$/, '')
    let next = `${base}-copy`
    for (let n = 2; taken.has(next); n++) next = `${base}-copy${n}`
    taken.add(next)
    return next
  }
  // Parts are copied whole: what moved with the layers has all of their members.
  const parts = project.assemblies.filter((part) =>
    membersOf(project, part.id).some((member) => chosen.includes(member.id)),
  )
  const partIds = new Map(parts.map((part) => [part.id, freshId(part.id)]))
  const copiedParts = parts.map((part): Assembly => ({
    ...part,
    id: partIds.get(part.id)!,
    name: copyName(part.name, project.assemblies),
    parentId: part.parentId === null ? null : (partIds.get(part.parentId) ?? part.parentId),
  }))
  const copies = project.layers
    .filter((layer) => chosen.includes(layer.id))
    .map((layer): Layer => ({
      ...layer,
      id: freshId(layer.id),
      name: copyName(layer.name, project.layers),
      assemblyId: layer.assemblyId === null ? null : (partIds.get(layer.assemblyId) ?? null),
    }))
  if (copies.length === 0) return { project, layerIds: [] }
  const after = project.layers.findLastIndex((layer) => chosen.includes(layer.id)) + 1
  const ids = copies.map((layer) => layer.id)
  const next = {
    ...project,
    assemblies: [...project.assemblies, ...copiedParts],
    layers: [...project.layers.slice(0, after), ...copies, ...project.layers.slice(after)],
  }
  return { project: transformLayers(next, map, ids), layerIds: ids }
}

/** "Petal" becomes "Petal, copy", "Petal, copy 2" … */
function copyName(name: string, others: readonly { name: string }[]): string {
  const base = name.replace(/, copy( \d+)?$/, '')
  let next = `${base}, copy`
  for (let n = 2; others.some((other) => other.name === next); n++) next = `${base}, copy ${n}`
  return next
}

/** So many of a part in all, evenly round a point, each turned to face outwards as the first does. */
export function repeatRound(
  project: Project,
  layerIds: readonly string[],
  { count, centre }: { count: number; centre: Point },
): Project {
  let next = project
  for (let k = count - 1; k >= 1; k--)
    next = copyParts(next, layerIds, about(centre, rotation((360 * k) / count))).project
  return next
}

/** So many of a part in all along a line, each a step from the one before. */
export function repeatAlong(
  project: Project,
  layerIds: readonly string[],
  { count, dx, dy }: { count: number; dx: number; dy: number },
): Project {
  let next = project
  for (let k = count - 1; k >= 1; k--) next = copyParts(next, layerIds, translation(dx * k, dy * k)).project
  return next
}

/** A copy of parts with left and right exchanged about an upright line: the right wing from the left one. */
export const mirroredCopy = (project: Project, layerIds: readonly string[], x: number) =>
  copyParts(project, layerIds, [-1, 0, 0, 1, 2 * x, 0])

/** A line to which a moved box may be drawn, and where it is. */
export interface Snap {
  axis: 'x' | 'y'
  at: number
}

/** Edges and middles of boxes, to which parts are drawn while they are moved. */
export const snapsOf = (boxes: readonly Box[]): Snap[] =>
  boxes.flatMap((b) => [
    ...[b.minX, (b.minX + b.maxX) / 2, b.maxX].map((at): Snap => ({ axis: 'x', at })),
    ...[b.minY, (b.minY + b.maxY) / 2, b.maxY].map((at): Snap => ({ axis: 'y', at })),
  ])

/** By how much a box that is moved is drawn on to the nearest line within reach, each way on its own, and which lines those are. */
export function snapped(
  box: Box,
  snaps: readonly Snap[],
  reachMm: number,
): { dx: number; dy: number; lines: Snap[] } {
  const nearest = (axis: 'x' | 'y', places: readonly number[]) => {
    let best: { by: number; line: Snap } | null = null
    for (const line of snaps)
      if (line.axis === axis)
        for (const place of places) {
          const by = line.at - place
          if (Math.abs(by) <= reachMm && (!best || Math.abs(by) < Math.abs(best.by))) best = { by, line }
        }
    return best
  }
  const x = nearest('x', [box.minX, (box.minX + box.maxX) / 2, box.maxX])
  const y = nearest('y', [box.minY, (box.minY + box.maxY) / 2, box.maxY])
  return { dx: x?.by ?? 0, dy: y?.by ?? 0, lines: [x?.line, y?.line].filter((line) => line !== undefined) }
}

/** The name of what is picked: the part, or the layer. */
export const nameOfPicked = (project: Project, layerIds: readonly string[]): string => {
  const units = unitsOf(project, layerIds)
  return units.length === 1 ? units[0]!.name : `${units.length} parts`
}
