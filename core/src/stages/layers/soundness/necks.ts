/**
 * Where a layer is narrower than its paper survives. A strip is judged by its width alone, however short it is and whether or
 * not the piece falls apart without it: card is narrow between two points of its outlines that face each other across it, each
 * the other's nearest (the local minima of the medial axis). What a disc of the safe strip cannot reach (the residue of an
 * opening, as in mathematical morphology: Serra 1982) tells how far such a place goes, and finds tails and pieces that are
 * narrow all over.
 */
import Flatbush from 'flatbush'
import {
  boxesMeet,
  boxHeight,
  boxWidth,
  clipToBox,
  ellipse,
  interiorPoint,
  intersect,
  offset,
  perimeter,
  polygonArea,
  polygonBox,
  polygonContains,
  simplify,
  strokeRegion,
  subtract,
  union,
  type Box,
  type Point,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import { Walls, type Facing } from './walls'

/** A place where card is narrower than its paper survives. Lengths in mm. */
export interface Neck {
  /** Where it is narrowest, mm. */
  at: Point
  /** Narrowest width, mm. */
  widthMm: number
  /** The narrow part itself; null where another neck of the same mesh has it. */
  region: Polygon | null
  /** Area that would fall off with it: the smaller of what it joins, 0 where all still holds by other ways. */
  hangingMm2: number
  /** A tip is narrow towards an end, as the point of a leaf is: no mistake. */
  kind: 'neck' | 'tip'
}

/** How much outlines are smoothed before, mm: far less than widths are told to. */
const SLACK_MM = 0.01
/** A strip this little narrower than the safe one is as wide as it (mm): what files and curves round away. */
const AS_GOOD_MM = 0.03
/** Round a narrow place so many safe strips are looked at, to tell a strip from a small bump. */
const SURROUNDINGS = 3
/** A tail or a thin piece is at least so many safe strips long. */
const TAIL_LONG = 4
/** Share of length by width that a tail fills: the point of a leaf fills half. */
const TAIL_FULL = 0.65
/** Of more places than these, what hangs on them is not worked out. */
const MOST_WEIGHED = 12

/** Narrow places of a region against a safe strip (mm), the narrowest first. Needs the geometry loaded. */
export function weakNecks(layer: Region, safeMm: number): Neck[] {
  const region = simplify(layer, SLACK_MM)
  const walls = new Walls(region)
  const residue = new Residue(region, safeMm)
  const places = placesOf(
    nearby(walls.facing(safeMm - AS_GOOD_MM), safeMm).filter((pair) => isStrip(region, pair, safeMm)),
    residue,
  )
  const taken = new Set<number>()
  const necks = places.map(({ pair, face }): Neck => {
    const at = middleOf(pair)
    const own = face !== null && !taken.has(face)
    if (own) taken.add(face)
    return {
      at,
      widthMm: pair.widthMm,
      region: own ? residue.faces[face]! : face === null ? ellipse([at.x, at.y], safeMm / 2) : null,
      hangingMm2: 0,
      kind: 'neck',
    }
  })
  const more = residue.faces.flatMap((face, k) =>
    taken.has(k) ? [] : slender(region, { face, walls, safeMm }),
  )
  necks.slice(0, MOST_WEIGHED).forEach((neck, i) => {
    neck.hangingMm2 = hanging(region, places[i]!.pair)
  })
  return [...necks, ...more].toSorted((a, b) => a.widthMm - b.widthMm)
}

/** Width of the narrowest strip of a region, mm, looked for up to a width; null where all is wider. Needs the geometry loaded. */
export function narrowestStrip(layer: Region, safeMm: number, mostMm: number): number | null {
  const region = simplify(layer, SLACK_MM)
  const walls = new Walls(region)
  for (let limit = safeMm; ; limit = Math.min(mostMm, limit * 2)) {
    // They come in the order of their widths: the first that is a strip is the narrowest.
    const strip = nearby(walls.facing(limit), safeMm).find((pair) => isStrip(region, pair, safeMm))
    if (strip) return strip.widthMm
    if (limit === mostMm) return null
  }
}

const middleOf = ({ from, to }: Facing): Point => ({ x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 })

/** The narrowest of those that lie side by side between the same outlines. */
function nearby(pairs: readonly Facing[], safeMm: number): Facing[] {
  const sorted = pairs.toSorted((a, b) => a.widthMm - b.widthMm)
  if (sorted.length < 2) return sorted
  const index = new Flatbush(sorted.length)
  for (const pair of sorted) {
    const { x, y } = middleOf(pair)
    index.add(x, y, x, y)
  }
  index.finish()
  const reach = safeMm / 2
  const group = new Int32Array(sorted.length).fill(-1)
  const kept: Facing[] = []
  sorted.forEach((pair, i) => {
    if (group[i]! >= 0) return
    kept.push(pair)
    const open = [i]
    group[i] = i
    for (let k = open.pop(); k !== undefined; k = open.pop()) {
      const { x, y } = middleOf(sorted[k]!)
      for (const other of index.search(x - reach, y - reach, x + reach, y + reach))
        if (group[other]! < 0 && sameRings(sorted[other]!, pair)) {
          group[other] = i
          open.push(other)
        }
    }
  })
  return kept
}

const sameRings = (a: Facing, b: Facing): boolean => a.rings[0] === b.rings[0] && a.rings[1] === b.rings[1]

/** Whether card goes on at both sides of a narrow place, and not only in a bump that is too small to matter. */
function isStrip(region: Region, pair: Facing, safeMm: number): boolean {
  // Between two outlines card always goes on: a cut from one to the other takes nothing off.
  if (pair.rings[0] !== pair.rings[1]) return true
  const { x, y } = middleOf(pair)
  const half = safeMm * SURROUNDINGS + pair.widthMm / 2
  const box: Box = { minX: x - half, minY: y - half, maxX: x + half, maxY: y + half }
  const near = clipToBox(
    region.filter((body) => boxesMeet(polygonBox(body), box)),
    box,
  )
  const { rest, sides } = cutAcross(near, pair)
  const [a, b] = sides.map((side) => rest.findIndex((part) => polygonContains(part, side.x, side.y)))
  return [a!, b!].every((k) => {
    const part = rest[k]
    // Where the card is so small that the cut takes all of it, nothing hangs on it.
    if (!part) return false
    const own = polygonBox(part)
    const goesOn =
      own.minX < box.minX + 1e-3 || own.minY < box.minY + 1e-3 || own.maxX > box.maxX - 1e-3 || own.maxY > box.maxY - 1e-3 // prettier-ignore
    return goesOn || offset([part], -(safeMm - AS_GOOD_MM) / 2).length > 0
  })
}

/** A region with a thin cut from outline to outline, and a point at either side of it. */
function cutAcross(
  region: Region,
  { from, to, widthMm }: Facing,
): { rest: Polygon[]; sides: [Point, Point] } {
  const [ux, uy] = [(to.x - from.x) / widthMm, (to.y - from.y) / widthMm]
  const [x, y] = [(from.x + to.x) / 2, (from.y + to.y) / 2]
  const beyond = 0.02
  const line = Float64Array.of(
    from.x - ux * beyond,
    from.y - uy * beyond,
    to.x + ux * beyond,
    to.y + uy * beyond,
  )
  const cut = strokeRegion([{ points: line, closed: false }], { widthMm: 0.02 })
  const aside = 0.015
  return {
    rest: subtract(region, cut),
    sides: [
      { x: x - uy * aside, y: y + ux * aside },
      { x: x + uy * aside, y: y - ux * aside },
    ],
  }
}

/** What would fall off if a place gave way (mm²). */
function hanging(region: Region, pair: Facing): number {
  if (pair.rings[0] !== pair.rings[1]) return 0
  const at = middleOf(pair)
  const body = region.filter((face) => polygonContains(face, at.x, at.y))
  const { rest, sides } = cutAcross(body, pair)
  const parts = sides.map((side) => rest.find((part) => polygonContains(part, side.x, side.y)))
  return parts[0] && parts[1] && parts[0] !== parts[1]
    ? Math.min(...parts.map((part) => polygonArea(part!)))
    : 0
}

/** What of a region no disc of the safe strip covers. */
class Residue {
  readonly faces: Polygon[]
  private readonly index: Flatbush | null
  private readonly walls: Walls[]

  constructor(
    region: Region,
    private readonly safeMm: number,
  ) {
    const opened = offset(offset(region, -safeMm / 2), safeMm / 2 + 0.02)
    // Rounded corners are left over too: they are small, and no strip passes through them.
    this.faces = subtract(region, opened).filter((face) => polygonArea(face) > 1e-3)
    this.walls = this.faces.map((face) => new Walls([face]))
    this.index = this.faces.length > 0 ? new Flatbush(this.faces.length) : null
    for (const { minX, minY, maxX, maxY } of this.faces.map(polygonBox))
      this.index!.add(minX, minY, maxX, maxY)
    this.index?.finish()
  }

  /** The face that a point lies in or is nearest to, within half a safe strip. */
  at({ x, y }: Point): number | null {
    let best: number | null = null
    let least = this.safeMm / 2
    const reach = least
    for (const k of this.index?.search(x - reach, y - reach, x + reach, y + reach) ?? []) {
      if (polygonContains(this.faces[k]!, x, y)) return k
      const mm = this.walls[k]!.nearest(x, y, least)?.mm ?? Infinity
      if (mm < least) [best, least] = [k, mm]
    }
    return best
  }
}

/** One place for each strip: what faces each other between the same outlines in the same narrow part, the narrowest of them. */
function placesOf(pairs: readonly Facing[], residue: Residue): { pair: Facing; face: number | null }[] {
  const places = new Map<string, { pair: Facing; face: number | null }>()
  pairs.forEach((pair, i) => {
    const face = residue.at(middleOf(pair))
    const key = face === null ? `alone ${i}` : `${face} ${pair.rings.join(' ')}`
    const known = places.get(key)
    if (!known || known.pair.widthMm > pair.widthMm) places.set(key, { pair, face })
  })
  return [...places.values()].toSorted((a, b) => a.pair.widthMm - b.pair.widthMm)
}

/** A narrow part that ends: a tail or a thin piece where it is long and even, the point of a leaf where it tapers off. */
function slender(
  region: Region,
  { face, walls, safeMm }: { face: Polygon; walls: Walls; safeMm: number },
): Neck[] {
  const area = polygonArea(face)
  const box = polygonBox(face)
  if (Math.max(boxWidth(box), boxHeight(box)) < safeMm * TAIL_LONG * 0.6) return []
  const body = region.find((part) => boxesMeet(polygonBox(part), box) && area > polygonArea(part) * 0.9)
  const { open, along } = edgesOf(face, walls)
  const length = (along - (body ? 0 : open)) / 2
  const width = area / length
  const even = body !== undefined || area > TAIL_FULL * length * Math.min(safeMm, open)
  const isTail = length > safeMm * TAIL_LONG && width < safeMm - AS_GOOD_MM && even
  if (!isTail && area < safeMm * safeMm * 2.5) return []
  const widthMm = isTail ? widest([face], safeMm) : width
  // As wide as it is to be: by area and edge the ends of a strip make it look narrower.
  if (isTail && widthMm >= safeMm - AS_GOOD_MM) return []
  return [
    {
      at: interiorPoint(face.outer),
      widthMm,
      region: face,
      hangingMm2: isTail && !body ? area : 0,
      kind: isTail ? 'neck' : 'tip',
    },
  ]
}

/** How much of a face's outline lies inside the region, where the wider card begins, and its whole length (mm). */
function edgesOf(face: Polygon, walls: Walls): { open: number; along: number } {
  let open = 0
  const { outer } = face
  for (let i = 0, j = outer.length - 2; i < outer.length; j = i, i += 2) {
    const [ax, ay, bx, by] = [outer[j]!, outer[j + 1]!, outer[i]!, outer[i + 1]!]
    if (!walls.nearest((ax + bx) / 2, (ay + by) / 2, 0.004)) open += Math.hypot(bx - ax, by - ay)
  }
  return { open, along: perimeter(outer) }
}

/** Diameter of the largest disc in a part, mm. */
function widest(part: Region, mostMm: number): number {
  let [low, high] = [0, mostMm]
  for (let k = 0; k < 7; k++) {
    const mid = (low + high) / 2
    if (offset(part, -mid / 2).length > 0) low = mid
    else high = mid
  }
  return (low + high) / 2
}

/** Once mended, a place may still be narrow a little farther on: then more is laid on. */
const ROUNDS = 4

/**
 * The region with its necks as wide as the safe strip; all else stays. Needs the geometry loaded.
 * @param within where card may be laid on; anywhere without it
 */
export function thickened(region: Region, safeMm: number, within: Region | null = null): Polygon[] {
  let out = union(region)
  const inside = (part: Polygon) => (within ? intersect([part], within) : [part])
  /** By so much on both sides, or on one side by all where the other is at the edge. */
  const growthOf = (part: Polygon, mm: number) => {
    const both = offset([part], mm)
    return within && subtract(both, within).length > 0 ? offset([part], 2 * mm).flatMap(inside) : both
  }
  for (let round = 0; round < ROUNDS; round++) {
    const necks = weakNecks(out, safeMm).filter((neck) => neck.kind === 'neck')
    if (necks.length === 0) break
    const grown = necks.flatMap(({ region: part, at, widthMm }) => [
      inside(ellipse([at.x, at.y], (safeMm / 2) * (1.05 + 0.5 * round))),
      ...(part ? [growthOf(part, Math.max(0.05, (safeMm - widthMm) / 2 + 0.03))] : []),
    ])
    out = union(out, ...grown)
  }
  return out
}
