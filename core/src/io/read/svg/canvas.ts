// What is painted so far, in paint order, and what was left out.
import {
  boxesMeet,
  growBox,
  intersect,
  regionArea,
  regionBox,
  subtract,
  type Point,
  type Region,
} from '../../../base/geometry'
import { BadInput } from '../../../base'
import type { Drawing, FoldLine, PaintedShape } from './drawing'
import { mixOver } from './paint'

const WHITE = '#ffffff'
const MAX_SHAPES = 60_000
const MAX_POINTS = 4_000_000
/** Smallest area (mm²) that counts as painted. */
const SPECK_MM2 = 0.005
/** Fainter than this is not seen; more solid than this hides what is below. */
const FAINT = 0.01
const SOLID = 0.985
/** Of more shapes than these, what is half clear is mixed with white alone. */
const MOST_MIXED = 3000
/** Lines to fold along that are kept. */
const MOST_FOLDS = 2000
/** Places of what is left out that are kept. */
const MOST_PLACES = 500

/** A colour to paint with, and how solid it is. */
export interface Ink {
  /** #rrggbb */
  colour: string
  alpha: number
}

/** Where a shape stands in the drawing. */
export type Standing = Pick<PaintedShape, 'group' | 'part'> & {
  drawnBy?: PaintedShape['drawnBy']
  /** Nothing is painted outside of it; null where nothing is clipped. */
  clip: Region | null
}

/** Whether an ink shows at all. */
export const isSeen = ({ alpha }: Ink): boolean => alpha >= FAINT

/** Takes what is painted, in mm of the page, one colour a shape. */
export class Canvas {
  readonly shapes: PaintedShape[] = []
  readonly leftAt: Drawing['leftAt'] = []
  readonly folds: Drawing['folds'] = []
  private readonly left = new Map<string, number>()
  private points = 0

  get leftOut(): Drawing['leftOut'] {
    return [...this.left].map(([what, count]) => ({ what, count }))
  }

  /** Notes what is not drawn, and where. */
  leave(what: string, at?: Point): void {
    this.left.set(what, (this.left.get(what) ?? 0) + 1)
    if (at && this.leftAt.length < MOST_PLACES) this.leftAt.push({ what, at })
  }

  /** Keeps lines to fold along; of more than anyone folds the rest is left out. */
  fold(lines: readonly FoldLine[]): void {
    for (const line of lines)
      if (this.folds.length < MOST_FOLDS) this.folds.push(line)
      else this.leave('fold line')
  }

  /** Counts points that are to be painted. Throws BadInput where they are too many. */
  countPoints(count: number): void {
    this.points += count
    if (this.points > MAX_POINTS)
      throw new BadInput(`the drawing has more than ${MAX_POINTS.toLocaleString('en')} points`)
  }

  /** Paints a region, mm of the page. Throws BadInput where shapes are too many. */
  paint(whole: Region, ink: Ink, standing: Standing): void {
    const region = standing.clip ? intersect(whole, standing.clip) : whole
    if (!isSeen(ink) || Math.abs(regionArea(region)) < SPECK_MM2) return
    if (this.shapes.length >= MAX_SHAPES)
      throw new BadInput(`the drawing has more than ${MAX_SHAPES.toLocaleString('en')} shapes`)
    if (ink.alpha > SOLID) this.add(region, ink.colour, standing)
    else this.paintThrough(region, ink, standing)
  }

  /** Card is never half clear: where a shape lets others through, it becomes pieces of the colours then seen. */
  private paintThrough(region: Region, { colour, alpha }: Ink, standing: Standing): void {
    let rest = region
    let restBox = regionBox(rest)
    const seen = this.shapes.length
    for (let i = seen - 1; i >= 0 && rest.length > 0 && seen < MOST_MIXED; i--) {
      const below = this.shapes[i]!
      if (!boxesMeet(below.box, restBox)) continue
      const common = intersect(rest, below.region)
      if (regionArea(common) < SPECK_MM2) continue
      this.add(common, mixOver(colour, below.colour, alpha), standing)
      rest = subtract(rest, below.region)
      restBox = regionBox(rest)
    }
    if (regionArea(rest) >= SPECK_MM2) this.add(rest, mixOver(colour, WHITE, alpha), standing)
  }

  private add(region: Region, colour: string, { group, part, drawnBy = 'fill' }: Standing): void {
    this.shapes.push({ region, box: growBox(regionBox(region), 1e-4), colour, group, part, drawnBy })
  }
}
