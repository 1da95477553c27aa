// Copies of one shape in rows: in each row all turned alike, or every other one by half a turn, and each row moved against the one before
// (lattices and double lattices: Kuperberg and Kuperberg 1990). What is left between them is as little as they allow.
import {
  boxHeight,
  boxWidth,
  joinBoxes,
  mapPolygon,
  polygonArea,
  polygonBox,
  rotation,
  translation,
  type Box,
  type Polygon,
} from '../../../../base/geometry'
import { wayTo, type Placed } from '../exact/slide'
import { behind, profileOf, type Profile } from './profile'

/** One that comes again and again in a row: where, and at what turn. */
export interface Member {
  x: number
  y: number
  /** Degrees. */
  turn: number
  /** The box that it takes about its own origin, mm. */
  box: Box
}

/** Rows that go on for ever: every `period` along x the same again, every `pitch` along y the next row, moved by `shift`. All mm. */
export interface Rows {
  members: readonly Member[]
  period: number
  pitch: number
  shift: number
}

/** What rows of a shape are made by: its turn (degrees), and by how much the other of two lies lower (mm); null where all are turned alike. */
export interface Design {
  turn: number
  lower: number | null
}

/** Rows are looked at for this many shifts; of the best one the neighbours too. */
const SHIFTS = 24
/** Roughly, a row reaches into no more than so many others. */
const ROWS_AROUND = 12

/** A shape at one turn, and turned by half: outlines grown by half the gap as profiles, and boxes without it. */
export class Turned {
  readonly height: number
  private readonly sides: readonly [Profile, Profile]
  private readonly ends: readonly [Profile, Profile]
  private readonly boxes: readonly [Box, Box]

  /** @param grown the shape grown by half the gap */
  constructor(
    { shape, grown }: { shape: Polygon; grown: Polygon },
    private readonly turn: number,
    private readonly stripMm: number,
  ) {
    const both = [turn, turn + 180].map((deg) => rotation(deg))
    const rings = both.map((map) => mapPolygon(map, { outer: grown.outer, holes: [] }).outer)
    this.sides = [profileOf(rings[0]!, 'x', stripMm), profileOf(rings[1]!, 'x', stripMm)]
    this.ends = [profileOf(rings[0]!, 'y', stripMm), profileOf(rings[1]!, 'y', stripMm)]
    const boxes = both.map((map) => polygonBox(mapPolygon(map, shape)))
    this.boxes = [boxes[0]!, boxes[1]!]
    this.height = this.sides[0].far.length * stripMm
  }

  /** Rows of it as close as profiles tell; null where two would pass each other, or where a copy would take more than so many mm². */
  rows(lower: number | null, most = Infinity): Rows | null {
    const { turn, stripMm, sides, boxes } = this
    const alone: Member = { x: 0, y: 0, turn, box: boxes[0] }
    if (lower === null) return this.stacked([alone], behind(sides[0], sides[0], 0), most)
    const strips = Math.round(lower / stripMm)
    const there = behind(sides[0], sides[1], strips)
    const back = behind(sides[1], sides[0], -strips)
    if (there === -Infinity || back === -Infinity) return null
    const period = Math.max(there + back, behind(sides[0], sides[0], 0), behind(sides[1], sides[1], 0))
    const other: Member = { x: there, y: strips * stripMm, turn: turn + 180, box: boxes[1] }
    return this.stacked([alone, other], period, most)
  }

  /** Rows of these members, as close as they go. */
  private stacked(members: readonly Member[], period: number, most: number): Rows | null {
    const { stripMm } = this
    const count = Math.round(period / stripMm)
    if (count < 2) return null
    const [top, bottom] = [new Float64Array(count).fill(Infinity), new Float64Array(count).fill(-Infinity)]
    members.forEach(({ x, y }, k) => {
      const { first, near, far } = this.ends[k]!
      const start = first + Math.round(x / stripMm)
      for (let i = 0; i < near.length; i++) {
        const at = (((start + i) % count) + count) % count
        top[at] = Math.min(top[at]!, near[i]! + y)
        bottom[at] = Math.max(bottom[at]!, far[i]! + y)
      }
    })
    const height = Math.max(...bottom) - Math.min(...top)
    const step = Math.max(1, Math.floor(count / SHIFTS))
    let best = { shift: 0, pitch: (most * members.length) / period }
    const atMost = best.pitch
    const look = (shift: number) => {
      const pitch = pitchOf({ top, bottom, height }, shift, best.pitch)
      if (pitch < best.pitch) best = { shift, pitch }
    }
    for (let shift = 0; shift < count; shift += step) look(shift)
    if (best.pitch === atMost) return null
    const middle = best.shift
    for (let by = 1 - step; by < step; by++) if (by !== 0) look((middle + by + count) % count)
    return { members, period, pitch: best.pitch, shift: (best.shift * period) / count }
  }
}

/** The least pitch of rows that reach from top to bottom, strip by strip, each moved by so many strips against the one before; `limit` where it is no less. */
function pitchOf(
  { top, bottom, height }: { top: Float64Array; bottom: Float64Array; height: number },
  shift: number,
  limit: number,
): number {
  const count = top.length
  let pitch = 0
  for (let rows = 1; rows <= ROWS_AROUND && pitch * rows < height; rows++) {
    const moved = (shift * rows) % count
    let way = 0
    for (let c = moved, from = 0; c < count; c++, from++) way = Math.max(way, bottom[c]! - top[from]!)
    for (let c = 0, from = count - moved; c < moved; c++, from++) way = Math.max(way, bottom[c]! - top[from]!)
    pitch = Math.max(pitch, way / rows)
    if (pitch >= limit) return limit
  }
  return pitch
}

/** The same rows as close as exact distances let them be: `gap` mm apart. */
export function closed(rows: Rows, shape: Polygon, gap: number): Rows {
  const [one, other] = rows.members
  const shapes = rows.members.map(({ turn }) => mapPolygon(rotation(turn), shape))
  const at = (k: number, x: number, y: number): Placed => {
    const placed = mapPolygon(translation(x, y), shapes[k]!)
    return { shape: placed, box: polygonBox(placed) }
  }
  /** How far along x one member must be moved, at this height, to lie behind another at the origin. */
  const beside = (a: number, b: number, y = 0) => {
    const [to, from] = [rows.members[a]!.box, rows.members[b]!.box]
    const start = to.maxX - from.minX + gap
    const most = boxWidth(to) + boxWidth(from) + 2 * gap
    return start - wayTo(at(b, start, y), [at(a, 0, 0)], { dx: -1, dy: 0, gap, most })
  }
  const members = [...rows.members]
  let period = beside(0, 0)
  if (other) {
    const x = beside(0, 1, other.y)
    members[1] = { ...other, x }
    period = Math.max(period, beside(1, 1), x + beside(1, 0, -other.y))
  }
  const shift = (rows.shift / rows.period) * period
  const height = heightOf(members) + gap
  const around = 1 + Math.ceil((boxWidth(one!.box) + gap) / period) + (other ? 1 : 0)
  // There is no less of it than card.
  let pitch = (members.length * polygonArea({ outer: shape.outer, holes: [] })) / period
  for (let away = 1; pitch * away < height; away++) {
    const moved = (shift * away) % period
    const above: Placed[] = []
    for (let n = -around; n <= around; n++)
      members.forEach(({ x, y }, k) => above.push(at(k, x + n * period, y)))
    const course = { dx: 0, dy: -1, gap, most: height }
    const way = Math.min(...members.map(({ x, y }, k) => wayTo(at(k, x + moved, y + height), above, course)))
    pitch = Math.max(pitch, (height - way) / away)
  }
  return { members, period, pitch, shift }
}

/** From the highest to the lowest of a row, mm. */
export function heightOf(members: readonly Member[]): number {
  return boxHeight(
    joinBoxes(members.map(({ y, box }) => ({ ...box, minY: box.minY + y, maxY: box.maxY + y }))),
  )
}
