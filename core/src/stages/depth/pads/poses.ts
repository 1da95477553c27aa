// Poses in which a pad could lie under a piece: on an even grid, along the inner edge of where it may lie, bent along it too; and, round
// those that were chosen, places between them.
import Flatbush from 'flatbush'
import {
  offset,
  regionArea,
  regionBox,
  regionCentroid,
  regionContains,
  regionRings,
  type Point,
} from '../../../base/geometry'
import { groupBy } from '../../../base'
import type { Footprint } from '../foam'
import type { PieceHeight } from '../heights'
import { padChords, TIGHTEST, type Lie } from './lie'
import type { Place } from './places'

/** One pad under a piece, its middle in the project's frame; stacked foams count as one. */
export interface Pad extends Lie {
  layerId: string
  pieceId: string
  thicknessMm: number
  /** Foams stacked for it, thickest first. */
  foamIds: string[]
  /** The maker put it there; its id among those. */
  handId?: string
}

/** About so many places are tried for the pads of one piece; then, round those that were chosen, places between them. */
const MOST_TRIED = 240
const BETWEEN_TURNS = 8
const BETWEEN_STEPS = [0.5] as const
/** On large card they are no farther apart than this part of the span. */
const STEP_SHARE = 0.6

/** From place to place that is tried, mm. */
export function stepFor(places: readonly Place[], spanMm: number): number {
  const regions = [...new Set(places.map(({ region }) => region))]
  const area = regions.reduce((sum, region) => sum + regionArea(region), 0)
  return Math.max(1.2, Math.min(Math.sqrt(area / (MOST_TRIED * 0.6)), spanMm * STEP_SHARE))
}

/** Places round pads, between those that were tried before. */
export function between(
  piece: PieceHeight,
  { places, pads, stepMm }: { places: readonly Place[]; pads: readonly Pad[]; stepMm: number },
): Pad[] {
  return pads.flatMap(({ x, y, rotation, bendMm }) =>
    BETWEEN_STEPS.flatMap((share) =>
      Array.from({ length: BETWEEN_TURNS }, (_, k) => (k * 2 * Math.PI) / BETWEEN_TURNS).flatMap((turn) => {
        const at = { x: x + Math.cos(turn) * stepMm * share, y: y + Math.sin(turn) * stepMm * share }
        const bend = bendMm === undefined ? null : { deg: rotation, radiusFor: () => bendMm }
        return poseAt(piece, places, { ...at, deg: rotation, bend }) ?? []
      }),
    ),
  )
}

/** Where pads could lie under a piece: on an even grid, along the inner edge of where they may, in the middle of each part, at the centre of mass. */
export function posesFor(piece: PieceHeight, places: readonly Place[], step: number): Pad[] {
  const regions = [...new Set(places.map(({ region }) => region))]
  const out: Pad[] = []
  const seen = new Set<string>()
  const mayBend = places.some(({ footprint }) => footprint.bends)
  const tryAt = ([x, y]: readonly [number, number], deg: number, bend: Bend | null = null) => {
    const key = `${Math.round(x * 4)} ${Math.round(y * 4)}`
    if (seen.has(key)) return
    seen.add(key)
    const pad = poseAt(piece, places, { x, y, deg, bend })
    if (pad) out.push(pad)
  }
  const centre = regionCentroid(piece.region)
  tryAt([centre.x, centre.y], 0)
  for (const region of regions) {
    const halves = new Set(
      places
        .filter((place) => place.region === region)
        .map(({ footprint }) => Math.min(footprint.widthMm, footprint.heightMm) / 2),
    )
    const least = Math.min(...halves)
    for (const face of region) {
      const b = regionBox([face])
      tryAt([(b.minX + b.maxX) / 2, (b.minY + b.maxY) / 2], 0)
    }
    const b = regionBox(region)
    for (let y = b.minY + step / 2; y < b.maxY; y += step)
      for (let x = b.minX + step / 2; x < b.maxX; x += step)
        if (regionContains(region, x, y)) tryAt([x, y], 0)
    // As near to the edge as a pad goes: there it holds rims and tips.
    const rings = [...halves]
      .filter((half) => half <= least * 1.01 || halves.size <= 2)
      .flatMap((half) => regionRings(offset(region, -half - (mayBend ? ROOM_TO_BEND_MM : 0.03), 'miter')))
    const total = rings.reduce((sum, ring) => sum + lengthOf(ring), 0)
    const along = Math.max(step * 0.75, total / (MOST_TRIED * 0.5))
    for (const ring of rings)
      for (const { x, y, deg, onRing } of stationsOf(ring, along))
        tryAt([x, y], deg, mayBend ? bendAlong(ring, onRing) : null)
  }
  return out
}

/** A finer search goes in steps of so many mm, at so many turns within a quarter. */
const FINE_MM = 1.6
const FINE_TURNS = Array.from({ length: 6 }, (_, k) => k * 15)

/** Where pads could lie within so many mm of some spots: in finer steps and at more turns than elsewhere, the largest pad at each place. */
export function posesNear(
  piece: PieceHeight,
  places: readonly Place[],
  { spots, reachMm }: { spots: readonly Point[]; reachMm: number },
): Pad[] {
  const index = new Flatbush(spots.length)
  for (const { x, y } of spots) index.add(x, y, x, y)
  index.finish()
  const isNear = ({ x, y }: Point) => index.neighbors(x, y, 1, reachMm).length > 0
  const sizeOf = ({ widthMm, heightMm }: Footprint | Pad) => widthMm * heightMm
  /** The largest that fits at any turn. */
  const largestAt = (own: readonly Place[], at: Point): Pad | null => {
    const most = Math.max(...own.map(({ footprint }) => sizeOf(footprint)))
    let best: Pad | null = null
    for (const deg of FINE_TURNS) {
      const pad = poseAt(piece, own, { ...at, deg, bend: null })
      if (pad && (!best || sizeOf(pad) > sizeOf(best))) best = pad
      if (best && sizeOf(best) === most) break
    }
    return best
  }
  const byRegion = groupBy(places, ({ region }) => region)
  return [...byRegion].flatMap(([region, own]) => {
    const least = Math.min(
      ...own.map(({ footprint: { widthMm, heightMm } }) => Math.min(widthMm, heightMm) / 2),
    )
    // No pad's middle lies nearer to the edge than half of the narrowest.
    const middles = offset(region, -least - 0.03, 'miter')
    const b = regionBox(middles)
    const out: (Pad | null)[] = []
    for (let y = b.minY + FINE_MM / 2; y < b.maxY; y += FINE_MM)
      for (let x = b.minX + FINE_MM / 2; x < b.maxX; x += FINE_MM)
        if (isNear({ x, y }) && regionContains(middles, x, y)) out.push(largestAt(own, { x, y }))
    for (const ring of regionRings(middles))
      for (const { x, y, deg } of stationsOf(ring, FINE_MM))
        if (isNear({ x, y })) out.push(poseAt(piece, own, { x, y, deg, bend: null }))
    return out.filter((pad) => pad !== null)
  })
}

/** How a strip could follow a curve at a place: the way of the curve there, and the radius that a strip of a length is bent to. */
interface Bend {
  deg: number
  radiusFor: (lengthMm: number) => number | null
}

/** The largest pad that lies inside at a place; turned as asked for, or a quarter more, or bent along a curve. */
function poseAt(
  piece: PieceHeight,
  places: readonly Place[],
  { x, y, deg, bend }: Point & { deg: number; bend: Bend | null },
): Pad | null {
  for (const { edges, footprint, build } of places) {
    const { widthMm, heightMm } = footprint
    const pad = (how: Pick<Pad, 'rotation' | 'bendMm'>): Pad => ({
      layerId: piece.layer.id,
      pieceId: piece.pieceId,
      x,
      y,
      ...how,
      widthMm,
      heightMm,
      thicknessMm: build.totalMm,
      foamIds: build.foams.map((foam) => foam.id),
    })
    for (const rotation of widthMm === heightMm ? [deg] : [deg, deg + 90])
      if (edges.holds({ x, y, widthMm, heightMm, rotation })) return pad({ rotation })
    const bendMm = footprint.bends ? bend?.radiusFor(Math.max(widthMm, heightMm)) : null
    if (!bend || !bendMm || Math.abs(bendMm) < TIGHTEST * Math.min(widthMm, heightMm)) continue
    const curved = pad({ rotation: widthMm >= heightMm ? bend.deg : bend.deg - 90, bendMm })
    if (edges.holdsAll(padChords(curved))) return curved
  }
  return null
}

/** A bent strip keeps so far from the edge of where it may lie: outlines are drawn in chords, mm. */
const ROOM_TO_BEND_MM = 0.12
/** A strip whose ends lie off a straight one by less than this is laid straight, mm. */
const STRAIGHT_MM = 0.15

/** How strips may follow a ring at a place on it: along the circle through that place and those half a strip to either side. */
function bendAlong(ring: Float64Array, { edge, x, y }: OnRing): Bend {
  const n = ring.length
  /** The place so far along the ring from here, forward or back. */
  const walk = (mm: number): [number, number] => {
    let [px, py] = [x, y]
    let left = Math.abs(mm)
    const step = mm > 0 ? 2 : -2
    for (let i = mm > 0 ? (edge + 2) % n : edge, k = 0; k < n; i = (i + step + n) % n, k += 2) {
      const far = Math.hypot(ring[i]! - px, ring[i + 1]! - py)
      if (far >= left)
        return [px + ((ring[i]! - px) * left) / (far || 1), py + ((ring[i + 1]! - py) * left) / (far || 1)]
      left -= far
      ;[px, py] = [ring[i]!, ring[i + 1]!]
    }
    return [px, py]
  }
  const [ax, ay] = walk(-1)
  const [bx, by] = walk(1)
  const way = Math.atan2(by - ay, bx - ax)
  return {
    deg: (way * 180) / Math.PI,
    radiusFor: (lengthMm) => {
      const [from, to] = [walk(-lengthMm / 2), walk(lengthMm / 2)]
      // Half the chord, and how far this place lies off it; the side is that of the chord as seen from here.
      const half = Math.hypot(to[0] - from[0], to[1] - from[1]) / 2
      const off = ((from[0] + to[0]) / 2 - x) * -Math.sin(way) + ((from[1] + to[1]) / 2 - y) * Math.cos(way)
      if (Math.abs(off) < STRAIGHT_MM) return null
      return Math.sign(off) * ((half * half + off * off) / (2 * Math.abs(off)))
    },
  }
}

const lengthOf = (ring: Float64Array): number => {
  let sum = 0
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
    sum += Math.hypot(ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!)
  return sum
}

/** A place on a ring: the corner before it, by its place among the ring's numbers. */
interface OnRing extends Point {
  edge: number
}

/** Corners of a ring, and even steps between them, each with the turn of the edge there (a square looks the same every quarter: −45° to 45°). */
function stationsOf(ring: Float64Array, step: number): (Point & { deg: number; onRing: OnRing })[] {
  const out: (Point & { deg: number; onRing: OnRing })[] = []
  let since = Infinity
  for (let i = 0; i < ring.length; i += 2) {
    const k = (i + 2) % ring.length
    const [x, y, qx, qy] = [ring[i]!, ring[i + 1]!, ring[k]!, ring[k + 1]!]
    const length = Math.hypot(qx - x, qy - y)
    if (length === 0) continue
    const free = (Math.atan2(qy - y, qx - x) * 180) / Math.PI
    const deg = Math.round(((((free + 45) % 90) + 90) % 90) * 10) / 10 - 45
    for (let at = Math.max(0, step - since); at < length; at += step) {
      const place = { x: x + ((qx - x) * at) / length, y: y + ((qy - y) * at) / length }
      out.push({ ...place, deg, onRing: { edge: i, ...place } })
      since = -at
    }
    since += length
  }
  return out
}
