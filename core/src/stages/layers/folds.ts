// What folds make of a piece: the body that lies flat, and flaps that stand up from it or hang down. Lengths in mm.
import {
  boxesMeet,
  boxHeight,
  boxWidth,
  ellipse,
  intersect,
  polygonArea,
  polygonBox,
  polygonContains,
  polygonRings,
  regionArea,
  regionBox,
  regionContains,
  strokeRegion,
  subtract,
  union,
  type Point,
  type Polygon,
  type Region,
} from '../../base/geometry'
import type { Fold, Layer } from '../../project'

/** A part of a piece that leaves its plane: beside a fold, or curled round the middle. */
export interface Flap {
  region: Region
  /** How far its farthest edge comes to stand over the body's plane; under 0 where it hangs below. */
  riseMm: number
}

/** A piece as it is folded: what is glued, and what turns out of its plane. */
export interface Folded {
  body: Region
  flaps: Flap[]
}

type FoldedLayer = Pick<Layer, 'folds' | 'shaping' | 'blanks' | 'slits'>

/** A fold parts card by a line this wide; what is on either side of it is this far away. */
const SLIT_MM = 0.02
const ASIDE_MM = 0.05
/** Ends of a fold that stop this short of the edge still part the card. */
const SHORT_MM = 0.6
/** Parts as equal as this both turn, each by half: a leaf along its middle. */
const EVEN = 0.8

/**
 * A piece of a layer with its folds. The largest part is the body, or the one between equal wings; each other one turns about the
 * fold that joins it to what is nearer to the body. Two parts of about one size, parted by a single fold, both turn by half; so do those beside a
 * fold that ends within the card, beyond which it lies flat. Needs the geometry loaded where there are folds.
 */
export function folded(region: Region, { folds, shaping, blanks, slits }: FoldedLayer): Folded {
  // Rolled it stands on all of what is seen of it.
  if (shaping.how === 'roll') return { body: region, flaps: [{ region, riseMm: shaping.riseMm }] }
  // Folds of a blank lie on the blank, not on what it becomes.
  if (blanks.length > 0 && shaping.how === 'flat') return { body: region, flaps: [] }
  if (shaping.how === 'cup' && shaping.riseMm > 0 && slits.length > 0)
    return cupped(region, { ...shaping, slits })
  if (shaping.how !== 'flat' && shaping.riseMm > 0) return shaped(region, shaping)
  const own = folds.filter((fold) => fold.deg > 0 && crosses(region, fold))
  if (own.length === 0) return { body: region, flaps: [] }
  const halfway = own.length === 1 ? halfwayIn(region, own[0]!) : null
  if (halfway) return halfway
  const parts = partedBy(region, own)
  if (parts.length < 2) return { body: region, flaps: [] }
  const bySize = parts.toSorted((a, b) => polygonArea(b) - polygonArea(a))
  const [first, second] = bySize
  if (own.length === 1 && parts.length === 2 && polygonArea(second!) > EVEN * polygonArea(first!)) {
    // Neither half lies flat: what is glued is a strip along the fold.
    return { body: region, flaps: halvesOf(parts, own[0]!) }
  }
  const joins = joinsOf(parts, own)
  const body = bodyOf(parts, joins)
  return { body: [parts[body]!], flaps: turned(parts, body, joins) }
}

/** What lines of folds part card into. */
function partedBy(region: Region, folds: readonly Fold[]): Polygon[] {
  const lines = folds.flatMap(({ line }) =>
    strokeRegion([{ points: lengthened(line, SHORT_MM), closed: false }], { widthMm: SLIT_MM }),
  )
  return subtract(region, lines).filter((part) => polygonArea(part) > SLIT_MM)
}

/** Parts beside a fold that each turn by half of it. */
function halvesOf(parts: readonly Polygon[], fold: Fold): Flap[] {
  const half = { ...fold, deg: fold.deg / 2 }
  return parts.map((part) => ({
    region: [part],
    riseMm: rise(part, half, { startMm: 0, deg: signed(half) }),
  }))
}

/** Card with a fold along its middle from its edge to within it: flat beyond that end; null where the fold is another. */
function halfwayIn(region: Region, fold: Fold): Folded | null {
  const [x1, y1, x2, y2] = fold.line
  const isWithin = ([x, y, fromX, fromY]: Fold['line']) => {
    const by = SHORT_MM / (Math.hypot(x - fromX, y - fromY) || 1)
    return regionContains(region, x + (x - fromX) * by, y + (y - fromY) * by)
  }
  const [start, end] = [isWithin([x1, y1, x2, y2]), isWithin([x2, y2, x1, y1])]
  if (start === end) return null
  const [from, to] = start
    ? [
        { x: x2, y: y2 },
        { x: x1, y: y1 },
      ]
    : [
        { x: x1, y: y1 },
        { x: x2, y: y2 },
      ]
  const box = regionBox(region)
  const far = boxWidth(box) + boxHeight(box)
  const long = Math.hypot(to.x - from.x, to.y - from.y) || 1
  const [ux, uy] = [((to.x - from.x) / long) * far, ((to.y - from.y) / long) * far]
  // All card on the far side of the fold's end.
  const beyond = {
    outer: Float64Array.of(to.x - uy, to.y + ux, to.x + uy, to.y - ux, to.x + uy + ux, to.y - ux + uy, to.x - uy + ux, to.y + ux + uy), // prettier-ignore
    holes: [],
  }
  const body = intersect(region, union([beyond]))
  const parts = partedBy(subtract(region, union([beyond])), [fold])
  const [less, more] = parts.map(polygonArea).toSorted((a, b) => a - b)
  const areHalves = parts.length === 2 && less! > EVEN * more!
  return body.length > 0 && areHalves ? { body, flaps: halvesOf(parts, fold) } : null
}

/** Two parts that a fold joins, by their places. */
interface Join {
  fold: Fold
  parts: readonly [number, number]
}

function joinsOf(parts: readonly Polygon[], folds: readonly Fold[]): Join[] {
  const holding = (points: readonly Point[]) =>
    parts.findIndex((part) => points.some((p) => polygonContains(part, p.x, p.y)))
  return folds.flatMap((fold): Join[] => {
    const [one, other] = sidesOf(fold).map(holding) as [number, number]
    return one >= 0 && other >= 0 && one !== other ? [{ fold, parts: [one, other] }] : []
  })
}

/**
 * The part that lies flat: the one between equal parts, as a body between its wings, however small it is; else the largest.
 */
function bodyOf(parts: readonly Polygon[], joins: readonly Join[]): number {
  const beside = parts.map((_, k) =>
    joins.flatMap(({ parts: [a, b] }) => (a === k ? [b] : b === k ? [a] : [])),
  )
  const between = parts.findIndex((_, k) => {
    const areas = beside[k]!.map((n) => polygonArea(parts[n]!))
    return (
      areas.length > 1 &&
      Math.min(...areas) > EVEN * Math.max(...areas) &&
      beside[k]!.every((n) => beside[n]!.length === 1)
    )
  })
  if (between >= 0) return between
  return parts.reduce((most, part, k) => (polygonArea(part) > polygonArea(parts[most]!) ? k : most), 0)
}

/** A piece that hands curl, cup or roll: round its middle it stays flat, and the rest rises. */
function shaped(region: Region, { flatMm, riseMm }: Layer['shaping']): Folded {
  const { minX, minY, maxX, maxY } = regionBox(region)
  const middle = [ellipse([(minX + maxX) / 2, (minY + maxY) / 2], Math.max(flatMm, 0.1) / 2)]
  const body = intersect(region, middle)
  const rest = subtract(region, middle)
  // What is open in its middle rests where it is.
  if (regionArea(body) < 1 || rest.length === 0) return { body: region, flaps: [{ region, riseMm }] }
  return { body, flaps: [{ region: rest, riseMm }] }
}

/** A piece whose slit is drawn together: so far round where the slit starts it is glued flat, and the rest rises. */
function cupped(
  region: Region,
  { flatMm, riseMm, slits }: { flatMm: number; riseMm: number; slits: Layer['slits'] },
): Folded {
  const ends = union(slits.map(([x, y]) => ellipse([x!, y!], Math.max(flatMm, 0.1))))
  const body = intersect(region, ends)
  const rest = subtract(region, ends)
  if (regionArea(body) < 1 || rest.length === 0) return { body: region, flaps: [{ region, riseMm }] }
  return { body, flaps: [{ region: rest, riseMm }] }
}

/** The parts that are joined to a body by folds, one after the other outwards. */
function turned(parts: readonly Polygon[], body: number, joins: readonly Join[]): Flap[] {
  const flaps: Flap[] = []
  const rest = new Set(parts.keys())
  rest.delete(body)
  const open: { k: number; deg: number; heightAt: (p: Point) => number }[] = [
    { k: body, deg: 0, heightAt: () => 0 },
  ]
  for (let from = open.pop(); from; from = open.pop())
    for (const { fold, parts: pair } of joins) {
      const k = pair[0] === from.k ? pair[1] : pair[1] === from.k ? pair[0] : -1
      if (!rest.delete(k)) continue
      const start = from.heightAt(middleOf(fold))
      const deg = from.deg + signed(fold)
      flaps.push({ region: [parts[k]!], riseMm: rise(parts[k]!, fold, { startMm: start, deg }) })
      open.push({ k, deg, heightAt: (p) => start + away(fold, p) * Math.sin((deg * Math.PI) / 180) })
    }
  return flaps
}

/** How far the farthest corner of a part comes to stand, turned by degrees about a fold that is at a height. */
function rise(part: Polygon, fold: Fold, { startMm, deg }: { startMm: number; deg: number }): number {
  const farthest = Math.max(
    0,
    ...polygonRings(part).map((ring) => {
      let most = 0
      for (let i = 0; i < ring.length; i += 2)
        most = Math.max(most, away(fold, { x: ring[i]!, y: ring[i + 1]! }))
      return most
    }),
  )
  return startMm + farthest * Math.sin((deg * Math.PI) / 180)
}

const signed = ({ way, deg }: Fold): number => (way === 'up' ? deg : -deg)

const middleOf = ({ line: [x1, y1, x2, y2] }: Fold): Point => ({ x: (x1 + x2) / 2, y: (y1 + y2) / 2 })

/** Distance of a point from the line of a fold. */
function away({ line: [x1, y1, x2, y2] }: Fold, { x, y }: Point): number {
  const length = Math.hypot(x2 - x1, y2 - y1) || 1
  return Math.abs((x - x1) * (y2 - y1) - (y - y1) * (x2 - x1)) / length
}

/** Places close to a fold on its one side, and on its other. */
function sidesOf({ line: [x1, y1, x2, y2] }: Fold): [Point[], Point[]] {
  const length = Math.hypot(x2 - x1, y2 - y1) || 1
  const [nx, ny] = [(-(y2 - y1) / length) * ASIDE_MM, ((x2 - x1) / length) * ASIDE_MM]
  const along = [0.5, 0.3, 0.7, 0.15, 0.85].map((t) => ({ x: x1 + (x2 - x1) * t, y: y1 + (y2 - y1) * t }))
  return [
    along.map(({ x, y }) => ({ x: x + nx, y: y + ny })),
    along.map(({ x, y }) => ({ x: x - nx, y: y - ny })),
  ]
}

function lengthened([x1, y1, x2, y2]: Fold['line'], by: number): Float64Array {
  const length = Math.hypot(x2 - x1, y2 - y1) || 1
  const [ux, uy] = [((x2 - x1) / length) * by, ((y2 - y1) / length) * by]
  return Float64Array.of(x1 - ux, y1 - uy, x2 + ux, y2 + uy)
}

function crosses(region: Region, { line: [x1, y1, x2, y2] }: Fold): boolean {
  const box = {
    minX: Math.min(x1, x2),
    maxX: Math.max(x1, x2),
    minY: Math.min(y1, y2),
    maxY: Math.max(y1, y2),
  }
  if (!region.some((face) => boxesMeet(polygonBox(face), box))) return false
  const stroke = strokeRegion([{ points: Float64Array.of(x1, y1, x2, y2), closed: false }], {
    widthMm: SLIT_MM,
  })
  return regionArea(intersect(region, stroke)) > 0
}

/** The face of a fold that is scored: the one on the outside of the bend. */
export const scoredFace = ({ way }: Fold): 'front' | 'back' => (way === 'up' ? 'back' : 'front')
