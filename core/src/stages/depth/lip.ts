// What stands the work off the pane under the lip: the band that the lip hides, and pads of foam along it.
import {
  intersect,
  offset,
  polygonBox,
  rectangle,
  subtract,
  union,
  type Polygon,
  type Region,
} from '../../base/geometry'
import {
  backingRect,
  depthAtHand,
  insideRing,
  isOnPane,
  isStandOff,
  openingRect,
  standsInFrame,
  type Project,
} from '../../project'
import { builds, footprints } from './foam'
import type { PieceHeight } from './heights'
import { Edges } from './pads/edges'

/** It keeps so far behind the edge of the lip, and so far off the spacer (mm). */
export const BEHIND_LIP_MM = 1
const OFF_SPACER_MM = 0.5

/** The band that the lip of a frame hides; null where there is no frame. Needs the geometry loaded. */
export function lipBand(project: Project): { band: Region; opening: Polygon } | null {
  const backing = backingRect(project)
  const opening = openingRect(project)
  if (project.mount.kind !== 'frame' || !backing || !opening) return null
  const outer = offset([insideRing(project) ?? backing], -OFF_SPACER_MM)
  return { band: subtract(outer, offset([opening], BEHIND_LIP_MM, 'miter')), opening }
}

/** Pads along the lip, from the frontmost card under it to the pane or the mat. Lengths in mm. */
export interface LipPads {
  mm: number
  partsMm: number[]
  /** Foams of one pad, thickest first. */
  foamIds: string[]
  /** Upper side of the card that they stand on. */
  bottomMm: number
  /** Each with its middle and sides, in the project's frame. */
  at: { x: number; y: number; widthMm: number; heightMm: number }[]
}

/** From one pad to the next, at the most (mm). */
const EVERY_MM = 70
/** Fewer do not hold the work off all round. */
const LEAST_PADS = 4
/** Card lower than the highest under the lip by more carries no pad (mm). */
const EVEN_MM = 0.3

/**
 * The thickest build of the foam at hand that goes between the work and the pane, along the lip; null where the lip is too narrow for any, nothing
 * lies under it, or no foam is thin enough. Needs the geometry loaded.
 */
export function lipPadsFor(project: Project, pieces: readonly PieceHeight[]): LipPads | null {
  const lip = lipBand(project)
  const limit = depthAtHand(project.mount)
  if (!lip || !limit) return null
  const under = pieces
    .filter(({ layer }) => !standsInFrame(layer) && !isStandOff(layer) && !isOnPane(layer))
    .flatMap(({ parts }) => parts)
    .map(({ region, topMm }) => ({ topMm, card: intersect(region, lip.band) }))
    .filter(({ card }) => card.length > 0)
  const bottomMm = Math.max(...under.map(({ topMm }) => topMm))
  const gapMm = limit.depthMm - bottomMm
  if (under.length === 0 || gapMm <= 0) return null
  const edges = new Edges(union(under.flatMap(({ topMm, card }) => (topMm > bottomMm - EVEN_MM ? card : []))))
  const all = footprints(project.drawer.foams)
    .flatMap((size) => builds(size).map((build) => ({ size, build })))
    .filter(({ build }) => build.totalMm <= gapMm + 1e-9)
    .toSorted((a, b) => b.build.totalMm - a.build.totalMm || a.build.foams.length - b.build.foams.length)
  const tried = new Map<unknown, LipPads['at']>()
  for (const { size, build } of all) {
    if (!tried.has(size)) tried.set(size, placesAlong(lip, edges, size))
    const at = tried.get(size)!
    if (at.length >= LEAST_PADS)
      return {
        mm: build.totalMm,
        partsMm: build.foams.map((foam) => foam.thicknessMm),
        foamIds: build.foams.map((foam) => foam.id),
        bottomMm,
        at,
      }
  }
  return null
}

/** Places in the middle of the band: above and below over its whole width, at the sides between them; long pads lie along it. */
function placesAlong(
  { band, opening }: { band: Region; opening: Polygon },
  edges: Edges,
  size: { widthMm: number; heightMm: number },
): LipPads['at'] {
  if (band.length === 0) return []
  const [all, hole] = [polygonBox(band[0]!), polygonBox(opening)]
  const [long, short] = [Math.max(size.widthMm, size.heightMm), Math.min(size.widthMm, size.heightMm)]
  const steps = (from: number, to: number): number[] => {
    const [first, last] = [from + long / 2 + OFF_SPACER_MM, to - long / 2 - OFF_SPACER_MM]
    if (last < first) return []
    const n = Math.max(1, Math.ceil((last - first) / EVERY_MM))
    return Array.from({ length: n + 1 }, (_, k) => first + ((last - first) * k) / n)
  }
  const level = [(all.minY + hole.minY - BEHIND_LIP_MM) / 2, (all.maxY + hole.maxY + BEHIND_LIP_MM) / 2]
  const upright = [(all.minX + hole.minX - BEHIND_LIP_MM) / 2, (all.maxX + hole.maxX + BEHIND_LIP_MM) / 2]
  return [
    ...level.flatMap((y) => steps(all.minX, all.maxX).map((x) => ({ x, y, widthMm: long, heightMm: short }))),
    ...upright.flatMap((x) =>
      steps(hole.minY, hole.maxY).map((y) => ({ x, y, widthMm: short, heightMm: long })),
    ),
  ].filter(({ x, y, widthMm, heightMm }) => edges.holds({ x, y, widthMm, heightMm, rotation: 0 }))
}

/** Outlines of the pads. */
export const lipShapes = ({ at }: LipPads): Polygon[] =>
  at.map(({ x, y, widthMm, heightMm }) => rectangle([x - widthMm / 2, y - heightMm / 2], widthMm, heightMm))

/**
 * The band in strips: above and below over its whole width, and what is left at the sides between them; each in as many of one length as
 * it takes to be no longer than `mostMm`.
 */
export function inStrips({ band, opening }: { band: Region; opening: Polygon }, mostMm: number): Polygon[] {
  const all = polygonBox(band[0]!)
  const hole = polygonBox(opening)
  const [top, bottom] = [hole.minY - BEHIND_LIP_MM, hole.maxY + BEHIND_LIP_MM]
  const [left, right] = [hole.minX - BEHIND_LIP_MM, hole.maxX + BEHIND_LIP_MM]
  const parts = (from: number, to: number): [number, number][] => {
    const n = Math.max(1, Math.ceil((to - from) / mostMm - 1e-9))
    return Array.from({ length: n }, (_, k) => [
      from + ((to - from) * k) / n,
      from + ((to - from) * (k + 1)) / n,
    ])
  }
  const strip = ([x0, x1]: readonly [number, number], [y0, y1]: readonly [number, number]) =>
    intersect(band, [rectangle([x0, y0], x1 - x0, y1 - y0)])
  const across = parts(all.minX, all.maxX)
  return [
    ...across.flatMap((part) => strip(part, [all.minY, top])),
    ...across.flatMap((part) => strip(part, [bottom, all.maxY])),
    ...parts(top, bottom).flatMap((part) => [
      ...strip([all.minX, left], part),
      ...strip([right, all.maxX], part),
    ]),
  ]
}
