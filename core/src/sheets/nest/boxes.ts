// Cards, strips and mats: pieces that fill their boxes are laid by exact lengths along a skyline, thousands of orders a
// second. No grid takes anything away, so that what fits to the last hair is found to fit.
import { boxHeight, boxWidth, mapPolygon, polygonArea, polygonBox, rotation } from '../../geometry'
import type { NestInstance, NestLayout, Placement } from './instance'
import { summarise } from './summary'
import { turnsOf } from './turns'

/** A piece counts as a box from this share of its box on. */
const FILLS = 0.97
const ORDERS_A_STEP = 400
/** How much worse an order may be and still be gone on from (score): falling, and now and then begun anew. */
const FIRST_HEAT = 0.03
const LEAST_HEAT = 0.0005
const COOLING = 0.99995
/** Room is given this much, mm, so that sums of lengths that are equal on paper are equal here. */
const HAIR = 1e-7
/** Lengths that differ by less than this count as a fit. */
const FLUSH_MM = 0.3

/** One way up of a box: its turn, its size, and where its corner lies from the piece's origin. */
interface Side {
  rotation: number
  w: number
  h: number
  minX: number
  minY: number
}

interface Box {
  piece: number
  copy: number
  sides: Side[]
  area: number
}

interface Spot {
  box: number
  sheet: number
  x: number
  y: number
  side: Side
}

interface Order {
  boxes: number[]
  /** Which way up each box (by its number) lies. */
  ups: Uint8Array
  cost: number
}

interface Sky {
  xs: number[]
  ys: number[]
  ws: number[]
}

export class BoxSearch {
  private readonly boxes: Box[] = []
  private readonly w: number
  private readonly h: number
  /** Of each box both ways up, gap included; one that cannot be is larger than any sheet. */
  private readonly widths: Float64Array
  private readonly heights: Float64Array
  private readonly next: Int32Array
  /** The least width of any box. */
  private readonly slimmest: number
  private current: Order | null = null
  private heat = FIRST_HEAT

  constructor(
    private readonly instance: NestInstance,
    private readonly random: () => number,
  ) {
    const { sheet, gap, pieces } = instance
    this.w = sheet.w - 2 * sheet.margin + gap
    this.h = sheet.h - 2 * sheet.margin + gap
    pieces.forEach((piece, k) => {
      const sides = sidesOf(instance, k).filter((side) => side.w <= this.w + HAIR && side.h <= this.h + HAIR)
      for (let copy = 0; copy < piece.qty; copy++) this.boxes.push({ piece: k, copy, sides, area: polygonArea(piece.shape) })
    })
    const lengths = (pick: 'w' | 'h') => Float64Array.from(this.boxes.flatMap(({ sides }) => [sides[0]?.[pick] ?? Infinity, sides[1]?.[pick] ?? Infinity]))
    this.widths = lengths('w')
    this.heights = lengths('h')
    this.slimmest = Math.min(...this.widths)
    this.next = new Int32Array(this.boxes.length + 1)
  }

  /** Whether all pieces are boxes, none is pinned, and there are whole sheets only. */
  static suits(instance: NestInstance): boolean {
    if ((instance.pinned ?? []).length > 0 || (instance.offCuts ?? []).length > 0) return false
    return instance.pieces.every((piece) => {
      const b = polygonBox(mapPolygon(rotation(turnsOf(piece)[0]!), piece.shape))
      return polygonArea(piece.shape) >= FILLS * boxWidth(b) * boxHeight(b)
    })
  }

  /** Tries some orders; gives a layout where one is better than `best`. */
  step(best: NestLayout): NestLayout | null {
    if (this.boxes.some((box) => box.sides.length === 0)) return null
    let least = best.score
    let found: Spot[] | null = null
    for (let k = 0; k < ORDERS_A_STEP; k++) {
      const order = this.changed()
      const spots = this.lay(order)
      const { score, areaLast } = this.measure(spots)
      // What is left on the last sheet guides the search between layouts of one score.
      order.cost = score + areaLast / (this.w * this.h)
      if (!this.current || order.cost <= this.current.cost + this.heat * this.random()) this.current = order
      if (score < least - 1e-9) {
        least = score
        found = spots
      }
      this.heat = this.heat < LEAST_HEAT ? FIRST_HEAT : this.heat * COOLING
    }
    return (
      found &&
      summarise(
        this.instance,
        found.map((spot) => this.placementOf(spot)),
      )
    )
  }

  private measure(spots: readonly Spot[]): { score: number; areaLast: number } {
    const { gap } = this.instance
    let last = 0
    for (const spot of spots) if (spot.sheet > last) last = spot.sheet
    let [reachX, reachY, areaLast] = [0, 0, 0]
    for (const { sheet, x, y, side, box } of spots) {
      if (sheet < last) continue
      areaLast += this.boxes[box]!.area
      reachX = Math.max(reachX, x + side.w - gap)
      reachY = Math.max(reachY, y + side.h - gap)
    }
    return { score: last + Math.min(reachX / (this.w - gap), reachY / (this.h - gap)), areaLast }
  }

  private placementOf({ box, sheet, x, y, side }: Spot): Placement {
    const { piece, copy } = this.boxes[box]!
    const { margin } = this.instance.sheet
    return { id: this.instance.pieces[piece]!.id, copy, sheet, x: margin + x - side.minX, y: margin + y - side.minY, rotation: side.rotation }
  }

  private changed(): Order {
    if (!this.current) {
      const boxes = [...this.boxes.keys()].sort((a, b) => this.longest(b) - this.longest(a))
      return { boxes, ups: new Uint8Array(this.boxes.length), cost: Infinity }
    }
    const boxes = [...this.current.boxes]
    const ups = this.current.ups.slice()
    const pick = () => Math.floor(this.random() * boxes.length)
    const kind = this.random()
    if (kind < 0.4) {
      const [i, j] = [pick(), pick()]
      ;[boxes[i], boxes[j]] = [boxes[j]!, boxes[i]!]
    } else if (kind < 0.75) {
      const [box] = boxes.splice(pick(), 1)
      boxes.splice(Math.floor(this.random() * (boxes.length + 1)), 0, box!)
    } else {
      const box = boxes[pick()]!
      ups[box] = 1 - ups[box]!
    }
    return { boxes, ups, cost: Infinity }
  }

  private longest(k: number): number {
    return Math.max(...this.boxes[k]!.sides.flatMap(({ w, h }) => [w, h]))
  }

  /** Fills the lowest niche of the skyline, sheet by sheet: what fits it best goes in, the order decides between equals. */
  private lay({ boxes, ups }: Order): Spot[] {
    const { widths, heights, next } = this
    const n = boxes.length
    // What is left, as a chain that starts behind the last box.
    for (let i = 0; i < n; i++) next[boxes[i]!] = boxes[i + 1] ?? -1
    next[n] = boxes[0] ?? -1
    const spots: Spot[] = []
    for (let sheet = 0; next[n]! >= 0; sheet++) {
      const sky: Sky = { xs: [0], ys: [0], ws: [this.w] }
      for (;;) {
        const niche = lowestNiche(sky)
        const x = sky.xs[niche]!
        const y = sky.ys[niche]!
        const wide = sky.ws[niche]!
        const wallLeft = (niche > 0 ? sky.ys[niche - 1]! : this.h) - y
        const wallRight = (niche + 1 < sky.xs.length ? sky.ys[niche + 1]! : this.h) - y
        const room = this.h - y
        if (wide < this.slimmest - HAIR) {
          if (!fillNiche(sky, niche)) break
          continue
        }
        let pick = -1
        let pickSide = 0
        let before = -1
        let most = -1
        for (let at = -1, k = next[n]!; k >= 0 && most < 3; at = k, k = next[k]!)
          for (let u = 0; u < 2; u++) {
            const side = k * 2 + (u ^ ups[k]!)
            const [w, h] = [widths[side]!, heights[side]!]
            if (w > wide + HAIR || h > room + HAIR) continue
            const fit = (wide - w < FLUSH_MM ? 2 : 0) + (Math.abs(h - wallLeft) < FLUSH_MM || Math.abs(h - wallRight) < FLUSH_MM ? 1 : 0)
            if (fit <= most) continue
            most = fit
            pick = k
            pickSide = side
            before = at
          }
        if (pick < 0) {
          if (!fillNiche(sky, niche)) break
          continue
        }
        next[before < 0 ? n : before] = next[pick]!
        const w = widths[pickSide]!
        // Against the higher wall, so that the niche that stays is one.
        const atRight = wallRight > wallLeft
        spots.push({ box: pick, sheet, x: atRight ? x + wide - w : x, y, side: this.boxes[pick]!.sides[pickSide % 2]! })
        raise(sky, niche, w, y + heights[pickSide]!, atRight)
      }
    }
    return spots
  }
}

/** The ways up of a piece, gap included. */
function sidesOf(instance: NestInstance, k: number): Side[] {
  const piece = instance.pieces[k]!
  const tight = turnsOf(piece)[0]!
  const turns = piece.turns === 'fixed' ? [0] : [tight, tight + 90]
  return turns.map((rotated) => {
    const b = polygonBox(mapPolygon(rotation(rotated), piece.shape))
    return { rotation: rotated, w: boxWidth(b) + instance.gap, h: boxHeight(b) + instance.gap, minX: b.minX, minY: b.minY }
  })
}

function lowestNiche({ ys }: Sky): number {
  let niche = 0
  for (let i = 1; i < ys.length; i++) if (ys[i]! < ys[niche]! - HAIR) niche = i
  return niche
}

/** Gives a niche that nothing fits up, as high as its lower wall. False where it is the whole width. */
function fillNiche(sky: Sky, niche: number): boolean {
  const { ys } = sky
  if (ys.length === 1) return false
  ys[niche] = Math.min(ys[niche - 1] ?? Infinity, ys[niche + 1] ?? Infinity)
  join(sky)
  return true
}

/** Lifts one end of a niche over a width to a height. */
function raise(sky: Sky, niche: number, w: number, top: number, atRight: boolean): void {
  const { xs, ys, ws } = sky
  const rest = ws[niche]! - w
  if (rest <= HAIR) ys[niche] = top
  else if (atRight) {
    ws[niche] = rest
    xs.splice(niche + 1, 0, xs[niche]! + rest)
    ys.splice(niche + 1, 0, top)
    ws.splice(niche + 1, 0, w)
  } else {
    xs.splice(niche + 1, 0, xs[niche]! + w)
    ys.splice(niche + 1, 0, ys[niche]!)
    ws.splice(niche + 1, 0, rest)
    ws[niche] = w
    ys[niche] = top
  }
  join(sky)
}

/** Neighbours of one height are one stretch. */
function join({ xs, ys, ws }: Sky): void {
  for (let m = xs.length - 1; m > 0; m--)
    if (Math.abs(ys[m]! - ys[m - 1]!) < HAIR) {
      ws[m - 1] = ws[m - 1]! + ws[m]!
      xs.splice(m, 1)
      ys.splice(m, 1)
      ws.splice(m, 1)
    }
}
