// Local heights. A piece's underside lies its gap above the highest top under it; where what is beneath differs in
// height, pads of another build carry the lower parts, and what no build can match is a tilt.
import {
  boxesMeet,
  convexHull,
  intersect,
  polygonBox,
  regionArea,
  regionBox,
  regionCentroid,
  ringContains,
  subtract,
  type Box,
  type Region,
} from '../../base/geometry'
import { builtLayers, pieceRegion, thicknessOf, type Layer, type Project } from '../../project'
import { footprints, nearestBuild } from './foam'

/** Card (or the board) that lies under a part of a piece. */
export interface Support {
  /** Where the two lie over each other, mm in the project's frame. */
  region: Region
  /** Upper side of what is beneath. */
  topMm: number
  /** From there to the underside of the piece. */
  needMm: number
}

export interface PieceHeight {
  layer: Layer
  pieceId: string
  region: Region
  bottomMm: number
  topMm: number
  /** How much out of level the piece lies, from one side of its support to the other. */
  tiltMm: number
  /** Nothing at all lies beneath: neither card nor board. */
  floats: boolean
  supports: Support[]
}

/** Contacts smaller than this (mm²) carry nothing, unless the piece itself is hardly larger. */
const TOUCH_MM2 = 0.5
const TOUCH_SHARE = 0.3
/** A pad whose height is off by no more than this sits as if it fitted. */
const LEVEL_MM = 0.15

interface Placed {
  region: Region
  box: Box
  topMm: number
}

/** Heights of every piece, back to front. Needs the geometry loaded. */
export function pieceHeights(project: Project): PieceHeight[] {
  const hasBoard = project.mount.kind === 'frame' || project.mount.kind === 'card'
  const placed: Placed[] = []
  const out: PieceHeight[] = []
  builtLayers(project).forEach((layer, index) => {
    const thickness = thicknessOf(project, layer)
    const gap = layer.joint.kind === 'foam' ? layer.joint.gapMm : 0
    const own: Placed[] = []
    for (const piece of layer.pieces) {
      const region = pieceRegion(piece)
      const { contacts, rest } = contactsUnder(region, placed)
      if (hasBoard && rest.length > 0) contacts.push({ region: rest, topMm: 0 })
      const highest = Math.max(0, ...contacts.map((c) => c.topMm))
      const bottomMm = highest + gap
      const supports = contacts.map((c) => ({ ...c, needMm: bottomMm - c.topMm }))
      out.push({
        layer,
        pieceId: piece.id,
        region,
        bottomMm,
        topMm: bottomMm + thickness,
        tiltMm: tiltOf(project, region, supports, gap),
        floats: contacts.length === 0 && index > 0,
        supports,
      })
      own.push({ region, box: regionBox(region), topMm: bottomMm + thickness })
    }
    placed.push(...own)
    // Highest first, so that what is met first is what is seen from above.
    placed.sort((a, b) => b.topMm - a.topMm)
  })
  return out
}

/** What lies directly under a region, grouped by height, highest first; and the part with nothing under it. */
function contactsUnder(
  region: Region,
  placed: readonly Placed[],
): { contacts: { region: Region; topMm: number }[]; rest: Region } {
  const contacts: { region: Region; topMm: number }[] = []
  const least = Math.min(TOUCH_MM2, regionArea(region) * TOUCH_SHARE)
  let rest: Region = region
  let box = regionBox(rest)
  for (const below of placed) {
    if (rest.length === 0) break
    if (!boxesMeet(box, below.box)) continue
    const near = below.region.filter((face) => boxesMeet(polygonBox(face), box))
    const common = intersect(rest, near)
    if (regionArea(common) <= least) continue
    const last = contacts.at(-1)
    if (last && Math.abs(last.topMm - below.topMm) < 1e-6) last.region = [...last.region, ...common]
    else contacts.push({ region: common, topMm: below.topMm })
    rest = subtract(rest, near)
    box = regionBox(rest)
  }
  return { contacts, rest: rest.length > 0 && regionArea(rest) > least ? rest : [] }
}

/**
 * The piece lies level once supports that fit surround its centre of mass. Supports are taken in the order of how well
 * foam matches them; the mismatch of the last one needed is the tilt.
 */
function tiltOf(project: Project, region: Region, supports: readonly Support[], gap: number): number {
  if (supports.length === 0) return 0
  const centre = regionCentroid(region)
  const sizes = footprints(project.drawer.foams)
  const errors = supports
    .map((support) => ({ support, error: mismatch(support.needMm, gap, sizes) }))
    .toSorted((a, b) => a.error - b.error)
  const points: number[] = []
  for (const { support, error } of errors) {
    for (const face of support.region) points.push(...face.outer)
    const hull = convexHull(points)
    if (hull.length >= 6 && ringContains(hull, centre.x, centre.y)) return error <= LEVEL_MM ? 0 : error
  }
  // Card reaches out over nothing: as far as anything holds it, the worst support decides.
  return errors.at(-1)!.error <= LEVEL_MM ? 0 : errors.at(-1)!.error
}

function mismatch(needMm: number, gap: number, sizes: ReturnType<typeof footprints>): number {
  // Where the joint itself is made, its gap is the foam or glue that was chosen for it.
  if (Math.abs(needMm - gap) < 1e-6) return 0
  const builds = sizes.map((size) => nearestBuild(size, needMm)).filter((b) => b !== undefined)
  return Math.min(needMm, ...builds.map((b) => Math.abs(b.totalMm - needMm)))
}
