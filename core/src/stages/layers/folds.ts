// What folds make of a piece: the body that lies flat, and flaps that stand up from it or hang down. Lengths in mm.
import {
  boxesMeet,
  ellipse,
  intersect,
  polygonArea,
  polygonBox,
  polygonContains,
  polygonRings,
  regionArea,
  regionBox,
  strokeRegion,
  subtract,
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

type FoldedLayer = Pick<Layer, 'folds' | 'shaping' | 'blanks'>

/** A fold parts card by a line this wide; what is on either side of it is this far away. */
const SLIT_MM = 0.02
const ASIDE_MM = 0.05
/** Ends of a fold that stop this short of the edge still part the card. */
const SHORT_MM = 0.6
/** Parts as equal as this both turn, each by half: a leaf along its middle. */
const EVEN = 0.8

/**
 * A piece of a layer with its folds. The largest part is the body, or the one between equal wings; each other one turns about the
 * fold that joins it to what is nearer to the body. Two parts of about one size, parted by a single fold, both turn by half. Needs the geometry loaded where
 * there are folds.
 */
export function folded(region: Region, { folds, shaping, blanks }: FoldedLayer): Folded {
  // Rolled it stands on all of what is seen of it.
  if (shaping.how === 'roll') return { body: region, flaps: [{ region, riseMm: shaping.riseMm }] }
  // Folds of a blank lie on the blank, not on what it becomes.
  if (blanks.length > 0 && shaping.how === 'flat') return { body: region, flaps: [] }
  if (shaping.how !== 'flat' && shaping.riseMm > 0) return shaped(region, shaping)
  const own = folds.filter((fold) => fold.deg > 0 && crosses(region, fold))
  if (own.length === 0) return { body: region, flaps: [] }
  const slits = own.flatMap(({ line }) =>
    strokeRegion([{ points: lengthened(line, SHORT_MM), closed: false }], { widthMm: SLIT_MM }),
  )
  const parts = subtract(region, slits).filter((part) => polygonArea(part) > SLIT_MM)
  if (parts.length < 2) return { body: region, flaps: [] }
  const bySize = parts.toSorted((a, b) => polygonArea(b) - polygonArea(a))
  const [first, second] = bySize
  if (own.length === 1 && parts.length === 2 && polygonArea(second!) > EVEN * polygonArea(first!)) {
    const fold = { ...own[0]!, deg: own[0]!.deg / 2 }
    // Neither half lies flat: what is glued is a strip along the fold.
    const flaps = parts.map((part) => ({
      region: [part],
      riseMm: rise(part, fold, { startMm: 0, deg: signed(fold) }),
    }))
    return { body: region, flaps }
  }
  const joins = joinsOf(parts, own)
  const body = bodyOf(parts, joins)
  return { body: [parts[body]!], flaps: turned(parts, body, joins) }
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
  return region.some((face) => boxesMeet(polygonBox(face), box)) && regionArea(region) > 0
}

/** The face of a fold that is scored: the one on the outside of the bend. */
export const scoredFace = ({ way }: Fold): 'front' | 'back' => (way === 'up' ? 'back' : 'front')
