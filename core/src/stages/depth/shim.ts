// What fills the depth that is left: pads behind the backmost sheet, or pads or the sheets of a ring before the work.
import { intersect, rectangle, regionBox, regionToPath, type Region } from '../../base/geometry'
import { builtLayers, isStandOff, paperOf, thicknessOf, type Project } from '../../project'
import { builds, footprints, wholeOf } from './foam'
import type { PieceHeight } from './heights'
import { lipShapes, type LipPads } from './lip'
import { Edges } from './pads/edges'

/** Pads of one build behind the backmost sheet. Lengths in mm. */
export interface Shim {
  mm: number
  partsMm: number[]
  /** Foams of one pad, thickest first. */
  foamIds: string[]
  /** Middles of the pads, in the project's frame. */
  at: [number, number][]
  widthMm: number
  heightMm: number
}

/** From one pad of a shim to the next, at the most; and how far they keep from the edge, mm. */
const SHIM_EVERY_MM = 90
const SHIM_IN_MM = 4

/**
 * The thickest foam build that goes into what is left, as pads along the edge of the backmost sheet and over its middle; behind a sheet
 * that lets light through only where they stay hidden.
 */
export function shimFor(
  project: Project,
  leftMm: number,
  { card, hidden }: { card: Region; hidden: Region | null },
): Shim | null {
  const all = footprints(project.drawer.foams).flatMap((size) =>
    builds(size).map((build) => ({ size, build })),
  )
  const best = all
    .filter(({ build }) => build.totalMm <= leftMm + 1e-9)
    // Of equals few pads on each other, and large ones.
    .toSorted(
      (a, b) =>
        b.build.totalMm - a.build.totalMm ||
        a.build.foams.length - b.build.foams.length ||
        b.size.widthMm * b.size.heightMm - a.size.widthMm * a.size.heightMm,
    )[0]
  if (!best || card.length === 0) return null
  const { widthMm, heightMm } = best.size
  const at = shimPlaces(card, hidden, { widthMm, heightMm })
  // Pads that would all be seen are none.
  if (at.length === 0) return null
  return {
    mm: best.build.totalMm,
    partsMm: best.build.foams.map((foam) => foam.thicknessMm),
    foamIds: best.build.foams.map((foam) => foam.id),
    at,
    widthMm,
    heightMm,
  }
}

/** Places on an even grid from edge to edge, where card is over all of the pad. */
function shimPlaces(
  card: Region,
  hidden: Region | null,
  { widthMm, heightMm }: { widthMm: number; heightMm: number },
): [number, number][] {
  const { minX, minY, maxX, maxY } = regionBox(card)
  const along = (from: number, to: number, size: number): number[] => {
    const [first, last] = [from + SHIM_IN_MM + size / 2, to - SHIM_IN_MM - size / 2]
    if (last <= first) return [(from + to) / 2]
    const steps = Math.max(1, Math.ceil((last - first) / SHIM_EVERY_MM))
    return Array.from({ length: steps + 1 }, (_, k) => first + ((last - first) * k) / steps)
  }
  const room = hidden ? intersect(card, hidden) : card
  if (room.length === 0) return []
  const edges = new Edges(room)
  return along(minY, maxY, heightMm).flatMap((y) =>
    along(minX, maxX, widthMm).flatMap((x): [number, number][] =>
      edges.holds({ x, y, widthMm, heightMm, rotation: 0 }) ? [[x, y]] : [],
    ),
  )
}

/** What fills the depth that is left. */
export interface Filled {
  where: 'behind' | 'front'
  /** Outlines of the pads or of the sheet, path data in the project's frame. */
  path: string
  thicknessMm: number
  /** The foam's or paper's name. */
  material: string
}

/** What fills a frame before and behind the work, and where all pieces lie. */
export interface Filling {
  shim: Shim | null
  lip: LipPads | null
  pieces: readonly PieceHeight[]
}

/** Shims behind the work, one a foam of the build, and the sheets of the ring before it. */
export function shimsOf(project: Project, { shim, lip, pieces }: Filling): Filled[] {
  const foams = new Map(project.drawer.foams.map((foam) => [foam.id, foam]))
  const behind = (shim?.foamIds ?? []).map((id, k): Filled => ({
    where: 'behind',
    path: regionToPath(
      shim!.at.map(([x, y]) =>
        rectangle([x - shim!.widthMm / 2, y - shim!.heightMm / 2], shim!.widthMm, shim!.heightMm),
      ),
    ),
    thicknessMm: shim!.partsMm[k]!,
    material: foams.get(wholeOf(id).foamId)?.name ?? id,
  }))
  const under = (lip?.foamIds ?? []).map((id, k): Filled => ({
    where: 'front',
    path: regionToPath(lipShapes(lip!)),
    thicknessMm: lip!.partsMm[k]!,
    material: foams.get(wholeOf(id).foamId)?.name ?? id,
  }))
  const rings = builtLayers(project).filter(isStandOff)
  return [
    ...behind,
    ...under,
    ...rings.map((layer): Filled => ({
      where: 'front',
      path: regionToPath(
        pieces.filter((piece) => piece.layer.id === layer.id).flatMap(({ region }) => region),
      ),
      thicknessMm: thicknessOf(project, layer),
      material: paperOf(project, layer)?.name ?? layer.name,
    })),
  ]
}
