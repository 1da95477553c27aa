// What comes onto or over what, told by the shapes: what lies beside something need not wait for it.
import {
  boxesMeet,
  intersect,
  joinBoxes,
  polygonBox,
  regionArea,
  ringContains,
  type Box,
  type Point,
  type Ring,
} from '../../../base/geometry'
import { pieceRegion, type Layer } from '../../../project'

/** Outlines that share less are beside each other (mm²). */
const SLIVER_MM2 = 0.01

/** Something that lies there, with its outlines. */
interface Laid<T> {
  what: T
  outlines: Outlines
  /** What it comes onto or over, of what lies on each other only the uppermost. */
  onto: readonly Laid<T>[]
  /** All that it comes onto or over, and what these do. */
  under: ReadonlySet<Laid<T>>
}

/** A pile: what lies in it, in the order in which it was laid. `T` names what is laid. */
export class Lying<T> {
  private readonly laid: Laid<T>[] = []

  /**
   * Lays layers in one. Openings count as filled: through one, what lies deeper could be reached later, but not put true. Needs the
   * geometry loaded.
   */
  lay(what: T, layers: readonly Layer[]): void {
    const outlines = outlinesOf(layers)
    const onto: Laid<T>[] = []
    const under = new Set<Laid<T>>()
    for (const below of this.laid.toReversed()) {
      if (under.has(below) || !meet(outlines, below.outlines)) continue
      onto.push(below)
      for (const one of [below, ...below.under]) under.add(one)
    }
    this.laid.push({ what, outlines, onto, under })
  }

  /** What something that was laid came onto or over, the topmost first; of what lies on each other only the uppermost. */
  onto(what: T): T[] {
    return this.of(what)?.onto.map((one) => one.what) ?? []
  }

  /** All that must lie there before something that was laid, in the order in which it was. */
  under(what: T): T[] {
    const under = this.of(what)?.under
    return this.laid.flatMap((one) => (under?.has(one) ? [one.what] : []))
  }

  /** Whether two that were laid lie over each other, whatever is between them. */
  isOver(a: T, b: T): boolean {
    const [one, other] = [this.of(a), this.of(b)]
    return one !== undefined && other !== undefined && meet(one.outlines, other.outlines)
  }

  /** What nothing lies on yet. */
  tops(): T[] {
    const covered = new Set(this.laid.flatMap(({ onto }) => onto))
    return this.laid.filter((one) => !covered.has(one)).map((one) => one.what)
  }

  private of(what: T): Laid<T> | undefined {
    return this.laid.find((one) => one.what === what)
  }
}

/** An outer ring with the box round it and a point in it. */
interface Outline {
  ring: Ring
  box: Box
  inside: Point
}

/** The outer rings of layers, with the box round all. */
interface Outlines {
  box: Box
  rings: readonly Outline[]
}

function outlinesOf(layers: readonly Layer[]): Outlines {
  const rings = layers
    .flatMap(({ pieces }) => pieces.flatMap(pieceRegion))
    .map((polygon): Outline => {
      const box = polygonBox(polygon)
      return { ring: polygon.outer, box, inside: pointIn(polygon.outer, box) }
    })
  return { box: joinBoxes(rings.map((one) => one.box)), rings }
}

/** Whether outlines share more than a sliver. */
function meet(a: Outlines, b: Outlines): boolean {
  if (!boxesMeet(a.box, b.box)) return false
  const near = (of: Outlines, other: Outlines) => of.rings.filter(({ box }) => boxesMeet(box, other.box))
  const theirs = near(b, a)
  return near(a, b).some((own) => {
    const met = theirs.filter(({ box }) => boxesMeet(box, own.box))
    // Mostly a point tells, without the rings being cut.
    if (met.some((other) => contains(other, own.inside) || contains(own, other.inside))) return true
    return met.length > 0 && regionArea(intersect([filled(own)], met.map(filled))) > SLIVER_MM2
  })
}

/** The middle of the widest stretch of a ring on one line across it; a little off its middle, where drawings like to have corners. */
function pointIn(ring: Ring, { minY, maxY }: Box): Point {
  const y = minY + 0.487 * (maxY - minY)
  const xs: number[] = []
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [yi, yj] = [ring[i + 1]!, ring[j + 1]!]
    if (yi > y !== yj > y) xs.push(((ring[j]! - ring[i]!) * (y - yi)) / (yj - yi) + ring[i]!)
  }
  xs.sort((a, b) => a - b)
  let best = { x: Infinity, width: -1 }
  for (let k = 0; k + 1 < xs.length; k += 2) {
    const width = xs[k + 1]! - xs[k]!
    if (width > best.width) best = { x: (xs[k]! + xs[k + 1]!) / 2, width }
  }
  return { x: best.x, y }
}

const contains = ({ ring }: Outline, { x, y }: Point): boolean => ringContains(ring, x, y)

const filled = ({ ring }: Outline) => ({ outer: ring, holes: [] })
