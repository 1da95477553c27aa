// Local heights. A piece's underside lies its gap above the highest top under it; where what is beneath differs in
// height, pads of another build carry the lower parts, and what no build can match is a tilt.
import {
  boxesMeet,
  cellsOf,
  convexHull,
  frameOver,
  intersect,
  polygonBox,
  regionArea,
  regionBox,
  regionCentroid,
  ringContains,
  subtract,
  surelyCommonMm2,
  takesDisc,
  type Box,
  type Region,
} from '../../base/geometry'
import {
  foamUnder,
  isGluedFlat,
  isOnPane,
  hasBoardBehind,
  pieceRegion,
  thicknessOf,
  type Foam,
  type Layer,
  type Project,
} from '../../project'
import { fresh, type Memo } from '../../base'
import { folded, type Flap } from '../layers'
import { footprints, nearestBuild } from './foam'
import { Lifts } from './lifts'

/** Card (or the board) that lies under a part of a piece. */
export interface Support {
  /** Where the two lie over each other, mm in the project's frame. */
  region: Region
  /** Upper side of what is beneath. */
  topMm: number
  /** From there to the underside of the piece. */
  needMm: number
}

/** A piece where it comes to lie, mm over the board. */
export interface PieceHeight extends Lifted {
  layer: Layer
  /** How much out of level the piece lies, from one side of its support to the other. */
  tiltMm: number
  /** Nothing at all lies beneath: neither card nor board. */
  floats: boolean
  supports: Support[]
  /** It is the hindmost of a part that was built apart: what lies on it does not let it come down by itself. */
  stiff?: true
}

/** A contact of so little of a piece's area carries nothing. */
export const SLIVER = 0.03
/** Over a sliver card bends by so much (mm). */
export const BENDS_MM = 0.6
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
  /** By how much the foam under it gives under a press, mm. */
  givesMm: number
}

/** A piece at its height, before it is known what carries each part of it. */
export interface Lifted {
  pieceId: string
  /** Of what is folded the body: what lies flat, and is padded or glued. */
  region: Region
  /** Body and flaps with the height that each of them reaches. */
  parts: readonly { region: Region; topMm: number }[]
  bottomMm: number
  topMm: number
  /** By how much all foam beneath gives under a press, mm. */
  givesMm: number
}

/** A layer's pieces at their heights, and all card up to them, highest first. */
export interface Level {
  pieces: readonly Lifted[]
  placed: readonly Placed[]
}

/** A layer and what it is laid on. Of the project the mount and the foams are asked. */
export interface On {
  project: Project
  layer: Layer
  /** Null for the backmost layer. */
  below: Level | null
  memo?: Memo
}

/** Lifts each piece of a layer its gap above the highest card under it. Needs the geometry loaded. */
export function liftOnto({ project, layer, below, memo = fresh }: On): Lifted[] {
  const thickness = thicknessOf(project, layer)
  const lifts = new Lifts(project, memo)
  return layer.pieces.map((piece): Lifted => {
    const whole = pieceRegion(piece)
    const { body, flaps } = isFlat(layer) ? { body: whole, flaps: NO_FLAPS } : memo('folded', [whole, layer.folds, layer.slits, layer.shaping, layer.blanks.length], () => folded(whole, layer)) // prettier-ignore
    // What is folded does not rest on what is under it: only the body does.
    const under = nearUnder(body, below)
    // What lies straight on the board is glued to it: that is none of the stack.
    const gap =
      (below?.placed.length ?? 0) > 0 || foamUnder(layer, piece.id) > 0 ? lifts.between(layer, piece.id) : 0
    const rests = stands(layer) ? null : restsAt(body, { under, gap }, memo)
    const bottomMm = rests ? even(rests.bottomMm) : standsAt(project, layer, thickness)
    const givesMm = rests ? even(rests.givesMm + (gap > 0 ? lifts.gives(layer, piece.id) : 0)) : 0
    const flatMm = even(bottomMm + thickness)
    const topMm = Math.max(flatMm, ...flaps.map(({ riseMm }) => even(flatMm + riseMm)))
    return {
      pieceId: piece.id,
      region: body,
      bottomMm,
      topMm,
      givesMm,
      parts: partsOf({ whole, body }, flaps, flatMm),
    }
  })
}

/**
 * Height of the underside of a piece: its gap over the highest card that carries it. What touches it in a sliver carries nothing: card
 * bends over it, unless it stands far higher than the foam.
 */
function restsAt(
  body: Region,
  { under, gap }: { under: readonly Placed[]; gap: number },
  memo: Memo,
): { bottomMm: number; givesMm: number } {
  const slivers = regionArea(body) * SLIVER
  const least = leastContact(body)
  // Highest first: how much has touched so far.
  let touching = 0
  let bump = 0
  let bumpGives = 0
  for (const one of under) {
    const surely = surelyTouching(body, one.region, memo)
    // How much it is in all matters no more once it is enough.
    const isEnough = surely > least && touching + surely > slivers
    const common = isEnough ? surely : touchingMm2(body, one.region, memo)
    if (common <= least) continue
    touching += common
    if (touching <= slivers) {
      if (one.topMm > bump) [bump, bumpGives] = [one.topMm, one.givesMm]
      continue
    }
    const restsMm = one.topMm + gap
    return gap > 0 && bump > restsMm + BENDS_MM
      ? { bottomMm: bump, givesMm: bumpGives }
      : { bottomMm: restsMm, givesMm: one.givesMm }
  }
  // Nothing but slivers: they are all there is.
  return { bottomMm: bump > 0 ? bump + gap : gap, givesMm: bumpGives }
}

/** How much of two regions lies over each other, mm². */
const touchingMm2 = (region: Region, other: Region, memo: Memo): number =>
  regionArea(memo('common', [region, other], () => commonOf(region, other)))

/** Cells along the longer side of a piece, to tell at a glance that it lies on what is under it. */
const CELLS = 48

/** How much of two regions lies over each other at the least, mm²: told without cutting outlines. */
function surelyTouching(region: Region, other: Region, memo: Memo): number {
  const frame = frameOver(regionBox(region), CELLS)
  const cells = (of: Region) => memo('cells', [of, { ...frame }], () => cellsOf(of, frame))
  return surelyCommonMm2(cells(region), cells(other), frame)
}

/** The highest card under a piece that is not glued or padded to it; null where nothing is. Needs the geometry loaded. */
export function restingOn(
  { region }: Lifted,
  below: Level | null,
  memo: Memo,
): Pick<Placed, 'topMm' | 'givesMm'> | null {
  const first = firstContact(region, nearUnder(region, below), memo)
  return first && nearUnder(region, below)[first.index]!
}

/** A piece so much higher, with what carries it; the foam under it gives so much more. */
export const shifted = (piece: PieceHeight, byMm: number, givesMm: number): PieceHeight => ({
  ...piece,
  bottomMm: even(piece.bottomMm + byMm),
  topMm: even(piece.topMm + byMm),
  givesMm: even(piece.givesMm + givesMm),
  parts: piece.parts.map((part) => ({ ...part, topMm: even(part.topMm + byMm) })),
  supports: piece.supports.map((one) => ({ ...one, topMm: even(one.topMm + byMm) })),
})

/** A layer's pieces where they come to lie, with all card beneath them. */
export function levelOf(layer: Layer, pieces: readonly Lifted[], below: Level | null): Level {
  // What the frame or the pane holds carries nothing.
  const own = (stands(layer) ? [] : pieces).flatMap(({ parts, givesMm }) =>
    parts.map(({ region, topMm }) => ({ region, box: regionBox(region), topMm, givesMm })),
  )
  // Highest first, so that what is met first is what is seen from above.
  const placed = [...(below?.placed ?? []), ...own].sort((a, b) => b.topMm - a.topMm)
  return { pieces, placed }
}

/** Held by the frame or the pane, it rests on nothing, and nothing on it. */
const stands = (layer: Layer): boolean => layer.joint.kind === 'tab' || isOnPane(layer)

/** Height over the back of what the frame or the pane holds. */
function standsAt({ mount }: Project, layer: Layer, thickness: number): number {
  if (!isOnPane(layer)) return layer.joint.gapMm
  const paneAt = mount.kind === 'frame' ? mount.depthMm : layer.joint.gapMm
  const paneMm = mount.kind === 'frame' && mount.pane.kind !== 'none' ? mount.pane.thicknessMm : 0
  return even(layer.lives === 'behind-pane' ? paneAt - thickness : paneAt + paneMm)
}

const NO_FLAPS: readonly Flap[] = []
/** Whether nothing of a layer is folded, curled or rolled. */
export const isFlat = ({ folds, shaping }: Layer): boolean => folds.length === 0 && shaping.how === 'flat'

/** The body at its height and each flap that rises at its own; one that hangs down is no higher than the body. */
function partsOf(
  { whole, body }: { whole: Region; body: Region },
  flaps: readonly Flap[],
  flatMm: number,
): Lifted['parts'] {
  if (flaps.length === 0) return [{ region: whole, topMm: flatMm }]
  const rising = flaps.map(({ region, riseMm }) => ({ region, topMm: even(flatMm + Math.max(0, riseMm)) }))
  return body === whole ? rising : [{ region: body, topMm: flatMm }, ...rising]
}

/** What carries each part of a layer's pieces, and how level they lie. Needs the geometry loaded. */
export function standOn(
  { project, layer, below, memo = fresh }: On,
  pieces: readonly Lifted[],
): PieceHeight[] {
  const hasBoard = hasBoardBehind(project.mount)
  // Flags hang from their twine.
  const hangs = project.mount.kind === 'garland' && layer.joint.kind === 'none'
  if (stands(layer))
    return pieces.map((piece) => ({ ...piece, layer, tiltMm: 0, floats: false, supports: [] }))
  const lifts = new Lifts(project, memo)
  return pieces.map((piece): PieceHeight => {
    const { region, bottomMm } = piece
    // Glue fills no gap: what is glued lies on the highest card under it, and leans to what is lower.
    const foams = foamUnder(layer, piece.pieceId) > 0 ? project.drawer.foams : NO_FOAMS
    const gap = lifts.between(layer, piece.pieceId)
    const { contacts, rest } = contactsUnder(region, nearUnder(region, below), memo)
    if (hasBoard && rest.length > 0) contacts.push({ region: rest, topMm: 0 })
    const supports = contacts
      .map((contact) => ({ ...contact, needMm: even(bottomMm - contact.topMm) }))
      // A sliver that stands higher than the piece bends it, and holds no pad.
      .filter(({ needMm }) => needMm >= 0)
    const bearing = supports.filter(({ region: on }) => bears({ region, on }, foams, memo))
    const named = bearing.map((support) => [support.region, support.needMm])
    return {
      ...piece,
      layer,
      tiltMm: memo('tilt', [region, named, gap, foams], () =>
        tiltOf({ foams, region, supports: bearing, gap }),
      ),
      floats: contacts.length === 0 && below !== null && !hangs,
      supports,
    }
  })
}

/** Whether what lies under a piece bears it: a pad finds room on it, or with glue it is no sliver. */
function bears({ region, on }: { region: Region; on: Region }, foams: readonly Foam[], memo: Memo): boolean {
  if (foams.length === 0) return regionArea(on) > regionArea(region) * SLIVER
  const half = foams.reduce((least, foam) => Math.min(least, foam.widthMm, foam.heightMm), Infinity) / 2
  return memo('bears', [on, half], () => takesDisc(on, half))
}

/** The height of a piece that goes on with glue, since no pad fits or by choice: it comes to lie on the highest card under it. */
export function loweredTo<P extends Lifted>(lifts: Lifts, layer: Layer, piece: P): P {
  const dropMm = lifts.drop(layer, piece.pieceId)
  if (dropMm === 0) return piece
  return {
    ...piece,
    givesMm: even(piece.givesMm - lifts.gives(layer, piece.pieceId)),
    bottomMm: even(piece.bottomMm - dropMm),
    topMm: even(piece.topMm - dropMm),
    parts: piece.parts.map((part) => ({ ...part, topMm: even(part.topMm - dropMm) })),
  }
}

/** The same with what carries it there. Needs the geometry loaded. */
export function lowered(lifts: Lifts, piece: PieceHeight): PieceHeight {
  const { layer, pieceId, region } = piece
  const dropMm = lifts.drop(layer, pieceId)
  if (dropMm === 0) return piece
  const supports = piece.supports.map((one) => ({ ...one, needMm: even(one.needMm - dropMm) }))
  const gap = lifts.ofGlue(layer, pieceId)
  return {
    ...loweredTo(lifts, layer, piece),
    supports,
    tiltMm: tiltOf({ foams: NO_FOAMS, region, supports, gap }),
  }
}

const NO_FOAMS: readonly Foam[] = []

/** Heights add up in steps far under any that could be measured, so that equal ones are equal. */
export const even = (mm: number): number => Math.round(mm * 1e6) / 1e6

interface Contact {
  region: Region
  topMm: number
}

/** Card that may lie under a region, highest first. */
export function nearUnder(region: Region, below: Level | null): readonly Placed[] {
  const box = regionBox(region)
  return (below?.placed ?? []).filter((one) => boxesMeet(box, one.box))
}

/** Contacts of no more than this carry nothing, mm². */
export const leastContact = (region: Region): number => Math.min(TOUCH_MM2, regionArea(region) * TOUCH_SHARE)

/** The first of the shapes below that a region touches, and where. */
function firstContact(
  region: Region,
  below: readonly Placed[],
  memo: Memo,
): { index: number; common: Region } | null {
  const least = leastContact(region)
  for (const [index, one] of below.entries()) {
    const common = memo('common', [region, one.region], () => commonOf(region, one.region))
    if (regionArea(common) > least) return { index, common }
  }
  return null
}

/** Where two regions lie over each other; faces whose boxes do not meet are left out of the work. */
function commonOf(region: Region, other: Region): Region {
  const box = regionBox(region)
  return intersect(
    region,
    other.filter((face) => boxesMeet(polygonBox(face), box)),
  )
}

/** What lies directly under a region, grouped by height, highest first; and the part with nothing under it. */
function contactsUnder(
  region: Region,
  near: readonly Placed[],
  memo: Memo,
): { contacts: Contact[]; rest: Region } {
  // Which parts touch follows from the shapes and the order of their heights alone: it stays while gaps change.
  const { parts, rest } = memo('contacts', [region, near.map((below) => below.region)], () =>
    cutApart(region, near, memo),
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
  memo: Memo,
): { parts: { index: number; common: Region }[]; rest: Region } {
  const least = leastContact(region)
  const first = firstContact(region, below, memo)
  const parts = first ? [first] : []
  let rest = first ? subtract(region, below[first.index]!.region) : region
  let box = regionBox(rest)
  const next = first ? first.index + 1 : below.length
  for (let index = next; index < below.length && rest.length > 0; index++) {
    const one = below[index]!
    if (!boxesMeet(box, one.box)) continue
    const common = commonOf(rest, one.region)
    if (regionArea(common) <= least) continue
    parts.push({ index, common })
    rest = subtract(
      rest,
      one.region.filter((face) => boxesMeet(polygonBox(face), box)),
    )
    box = regionBox(rest)
  }
  return { parts, rest: rest.length > 0 && regionArea(rest) > least ? rest : [] }
}

interface Resting {
  foams: readonly Foam[]
  region: Region
  supports: readonly Support[]
  /** Foam that was chosen for the joint, mm. */
  gap: number
}

/**
 * The piece lies level once supports that fit surround its centre of mass. Supports are taken in the order of how well
 * foam matches them; the mismatch of the last one needed is the tilt.
 */
function tiltOf({ foams, region, supports, gap }: Resting): number {
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

/** Eight ways to lean, clockwise from the right. */
const WAYS = [
  'right',
  'lower right',
  'bottom',
  'lower left',
  'left',
  'upper left',
  'top',
  'upper right',
] as const

/** Which way a piece that is out of level comes to lean, and how steeply. */
export interface Lean {
  towards: (typeof WAYS)[number]
  deg: number
}

/**
 * The way a piece leans: down to where foam or glue falls short of what is beneath, or away from where no foam is thin enough. Null where
 * it is level, or rests on one thing only.
 */
export function leanOf(lifts: Lifts, piece: PieceHeight): Lean | null {
  if (piece.tiltMm === 0) return null
  const { layer, pieceId } = piece
  const isFlat = isGluedFlat(layer, pieceId)
  const foams = foamUnder(layer, pieceId) > 0 && !isFlat ? lifts.foams : NO_FOAMS
  const gap = isFlat ? lifts.ofGlue(layer, pieceId) : lifts.between(layer, pieceId)
  const sizes = footprints(foams)
  const judged = piece.supports.map((support) => ({ support, error: mismatch(support.needMm, gap, sizes) }))
  const fits = judged.filter(({ error }) => error <= LEVEL_MM)
  const worst = judged.toSorted((a, b) => b.error - a.error)[0]
  if (!worst || worst.error <= LEVEL_MM || fits.length === 0) return null
  const held = regionCentroid(fits.flatMap(({ support }) => support.region))
  const off = regionCentroid(worst.support.region)
  // Too little under it and it sinks there; pads that are too thick lift it.
  const builds = sizes.flatMap((size) => nearestBuild(size, worst.support.needMm)?.totalMm ?? [])
  const isLifted = builds.length > 0 && Math.min(...builds) > worst.support.needMm
  const [dx, dy] = isLifted ? [held.x - off.x, held.y - off.y] : [off.x - held.x, off.y - held.y]
  const far = Math.hypot(dx, dy)
  if (far < 1) return null
  const eighth = Math.round((Math.atan2(dy, dx) * 4) / Math.PI)
  return { towards: WAYS[(eighth + 8) % 8]!, deg: (Math.atan2(piece.tiltMm, far) * 180) / Math.PI }
}
