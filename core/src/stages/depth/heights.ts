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
import { builtLayers, pieceRegion, thicknessOf, type Foam, type Layer, type Project } from '../../project'
import { fresh, type Memo } from '../../base'
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

/** Card that lies on the stack: what the next layer may rest on. */
export interface Placed {
  region: Region
  box: Box
  topMm: number
}

/** A layer's pieces where they come to lie, and all card up to them, highest first. */
export interface Standing {
  pieces: PieceHeight[]
  placed: readonly Placed[]
}

/** Heights of every piece, back to front. Needs the geometry loaded. */
export function pieceHeights(project: Project): PieceHeight[] {
  const out: PieceHeight[] = []
  let below: Standing | null = null
  for (const layer of builtLayers(project)) {
    below = standOn(project, layer, below)
    out.push(...below.pieces)
  }
  return out
}

/**
 * Lays one layer on those below it: each piece its gap above the highest top under it. Of the project the mount and the
 * foams are asked. Needs the geometry loaded.
 * @param below null for the backmost layer
 */
export function standOn(
  project: Project,
  layer: Layer,
  below: Standing | null,
  memo: Memo = fresh,
): Standing {
  const hasBoard = project.mount.kind === 'frame' || project.mount.kind === 'card'
  const { foams } = project.drawer
  const thickness = thicknessOf(project, layer)
  const gap = layer.joint.kind === 'foam' ? layer.joint.gapMm : 0
  const pieces = layer.pieces.map((piece): PieceHeight => {
    const region = pieceRegion(piece)
    const { contacts, rest } = contactsUnder(region, below?.placed ?? [], memo)
    if (hasBoard && rest.length > 0) contacts.push({ region: rest, topMm: 0 })
    const highest = contacts.reduce((most, c) => Math.max(most, c.topMm), 0)
    const bottomMm = even(highest + gap)
    const supports = contacts.map((c) => ({ ...c, needMm: even(bottomMm - c.topMm) }))
    return {
      layer,
      pieceId: piece.id,
      region,
      bottomMm,
      topMm: even(bottomMm + thickness),
      tiltMm: memo('tilt', [region, supports.map((s) => [s.region, s.needMm]), gap, foams], () =>
        tiltOf(foams, region, supports, gap),
      ),
      floats: contacts.length === 0 && below !== null,
      supports,
    }
  })
  const own = pieces.map(({ region, topMm }) => ({ region, box: regionBox(region), topMm }))
  // Highest first, so that what is met first is what is seen from above.
  const placed = [...(below?.placed ?? []), ...own].sort((a, b) => b.topMm - a.topMm)
  return { pieces, placed }
}

/** Heights add up in steps far under any that could be measured, so that equal ones are equal. */
const even = (mm: number): number => Math.round(mm * 1e6) / 1e6

interface Contact {
  region: Region
  topMm: number
}

/** What lies directly under a region, grouped by height, highest first; and the part with nothing under it. */
function contactsUnder(
  region: Region,
  placed: readonly Placed[],
  memo: Memo,
): { contacts: Contact[]; rest: Region } {
  const box = regionBox(region)
  const near = placed.filter((below) => boxesMeet(box, below.box))
  // Which parts touch follows from the shapes and the order of their heights alone: it stays while gaps change.
  const { parts, rest } = memo('contacts', [region, near.map((below) => below.region)], () =>
    cutApart(region, near),
  )
  const contacts: Contact[] = []
  for (const { index, common } of parts) {
    const { topMm } = near[index]!
    const last = contacts.at(-1)
    if (last && Math.abs(last.topMm - topMm) < 1e-6) last.region = [...last.region, ...common]
    else contacts.push({ region: common, topMm })
  }
  return { contacts, rest }
}

/** Cuts a region into what lies on each of the shapes below it, the first first, and what lies on none. */
function cutApart(
  region: Region,
  below: readonly Placed[],
): { parts: { index: number; common: Region }[]; rest: Region } {
  const parts: { index: number; common: Region }[] = []
  const least = Math.min(TOUCH_MM2, regionArea(region) * TOUCH_SHARE)
  let rest: Region = region
  let box = regionBox(rest)
  for (const [index, one] of below.entries()) {
    if (rest.length === 0) break
    if (!boxesMeet(box, one.box)) continue
    const near = one.region.filter((face) => boxesMeet(polygonBox(face), box))
    const common = intersect(rest, near)
    if (regionArea(common) <= least) continue
    parts.push({ index, common })
    rest = subtract(rest, near)
    box = regionBox(rest)
  }
  return { parts, rest: rest.length > 0 && regionArea(rest) > least ? rest : [] }
}

/**
 * The piece lies level once supports that fit surround its centre of mass. Supports are taken in the order of how well
 * foam matches them; the mismatch of the last one needed is the tilt.
 */
function tiltOf(foams: readonly Foam[], region: Region, supports: readonly Support[], gap: number): number {
  if (supports.length === 0) return 0
  const centre = regionCentroid(region)
  const sizes = footprints(foams)
  const errors = supports
    .map((support) => ({ support, error: mismatch(support.needMm, gap, sizes) }))
    .toSorted((a, b) => a.error - b.error)
  const points: number[] = []
  for (const { support, error } of errors) {
    for (const face of support.region) for (const value of face.outer) points.push(value)
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
