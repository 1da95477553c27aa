// Strokes: the card that a pen covers along lines, and hairlines, which are lines for the blade.
import {
  compose,
  mapRegion,
  meanScale,
  scaling,
  strokeRegion,
  type Affine,
  type Cap,
  type Join,
  type Region,
} from '../../../../base/geometry'
import { groupBy } from '../../../../base'
import { isSeen, type Canvas, type Ink } from '../canvas'
import { foldLines, HAIRLINE_MM } from '../drawing'
import { parseNumbers, parseSvgLength } from '../lengths'
import { outlined } from '../../outlined'
import { dashLines, flattenPath, type Line } from '../outline'
import { clamp01, resolvePaint } from '../paint'
import type { Context, Reading } from './context'

/** A pen wider than this (mm) is a slip of the file. */
const WIDEST_MM = 10_000
const CAPS: Record<string, Cap> = { round: 'round', square: 'square' }
const JOINS: Record<string, Join> = { round: 'round', bevel: 'bevel' }

/** An outline that a pen follows. */
export interface Followed {
  /** In mm of the page. */
  lines: Line[]
  /** The same as path data, in the element's own coordinates. */
  d: string
  context: Context
  /** Whether what lies inside is painted. */
  filled: boolean
}

interface Hairline {
  followed: Followed
  ink: Ink
  widthMm: number
}

/** Paints strokes, and keeps hairlines until it is known what they mean. */
export class Strokes {
  private readonly hairlines: Hairline[] = []
  /** The widest pen that painted, mm. */
  widestMm = 0

  get areThere(): boolean {
    return this.hairlines.length > 0
  }

  /** Paints the stroke of an outline; hairlines wait until all is read. */
  read({ doc, canvas, options }: Reading, followed: Followed): void {
    const { style, map, alpha, port } = followed.context
    const paint = resolvePaint(style['stroke'] ?? 'none', style, doc)
    if (paint.kind === 'none') return
    if (paint.kind === 'pattern') {
      canvas.leave('pattern')
      return
    }
    const width = parseSvgLength(style['stroke-width'], diagonalOf(port)) ?? 1
    const widthMm = Math.min(WIDEST_MM, width * meanScale(map))
    const ink: Ink = {
      colour: paint.hex,
      alpha: paint.alpha * clamp01(style['stroke-opacity']) * alpha,
    }
    if (!(widthMm > 0) || !isSeen(ink)) return
    if (widthMm < (options.hairlineMm ?? HAIRLINE_MM)) {
      // Round a filled shape a hairline only says where the blade goes, which the shape's own edge says already.
      if (!followed.filled) this.hairlines.push({ followed, ink, widthMm })
      return
    }
    this.widestMm = Math.max(this.widestMm, widthMm)
    if (paint.from === 'gradient') canvas.leave('gradient')
    canvas.paint(covered(followed, widthMm), ink, { ...followed.context, drawnBy: 'pen' })
  }

  /** Hairlines without fill: in a drawing made of nothing else they are the outlines of its pieces. */
  settle(canvas: Canvas, outlines: 'pieces' | 'lines'): void {
    const alone = canvas.shapes.length === 0
    // Where there is card, a dashed line says where it is folded.
    const [folds, cuts] = this.parted(
      ({ followed }) => isDashed(followed) && !(alone && outlines === 'lines'),
    )
    for (const { followed } of folds)
      for (const { points, closed } of followed.lines)
        canvas.fold(foldLines(points, closed, followed.context.group))
    if (!alone) cuts.forEach(() => canvas.leave('cut line'))
    else if (outlines === 'lines')
      for (const { followed, ink, widthMm } of cuts)
        canvas.paint(covered(followed, widthMm), ink, { ...followed.context, drawnBy: 'pen' })
    else for (const set of setsOf(cuts)) paintOutlined(canvas, set)
  }

  private parted(isFirst: (one: Hairline) => boolean): [Hairline[], Hairline[]] {
    return [this.hairlines.filter(isFirst), this.hairlines.filter((one) => !isFirst(one))]
  }
}

/**
 * Hairlines that may be outlines of one sheet: those of one colour in a group at the top of the drawing; those that stand there by
 * themselves together.
 */
function setsOf(cuts: readonly Hairline[]): Hairline[][] {
  const inPart = groupBy(cuts, ({ followed }) => followed.context.part)
  const sets = groupBy(cuts, ({ followed, ink }) => {
    const { group, part } = followed.context
    return `${group ?? ''}|${ink.colour}|${inPart.get(part)!.length > 1 ? part : ''}`
  })
  return [...sets.values()]
}

function paintOutlined(canvas: Canvas, set: readonly Hairline[]): void {
  const { pieces, open } = outlined(set.map(({ followed }) => followed.lines))
  for (const { region, element } of pieces) {
    const { followed, ink } = set[element]!
    canvas.paint(region, { colour: ink.colour, alpha: 1 }, { ...followed.context, drawnBy: 'outline' })
  }
  for (let k = 0; k < open; k++) canvas.leave('cut line')
}

const isDashed = ({ context }: Followed): boolean =>
  parseNumbers(context.style['stroke-dasharray']).some((v) => v > 0)

/** What lengths in per cent of a stroke refer to. */
const diagonalOf = ({ w, h }: Context['port']): number => Math.hypot(w, h) / Math.SQRT2

/** The card that a pen of a width (mm) covers. */
function covered({ lines, d, context: { style, map, port } }: Followed, widthMm: number): Region {
  const scale = meanScale(map)
  const dashes = parseNumbers(style['stroke-dasharray']).map((v) => v * scale)
  const dashOffset = (parseSvgLength(style['stroke-dashoffset'], diagonalOf(port)) ?? 0) * scale
  // A pen keeps its round nib only under even scaling: otherwise draw in a space of true widths and map from there.
  const even = scalesEvenly(map, scale)
  const drawn = strokeRegion(dashLines(even ? lines : flattenPath(d, scaling(scale)), dashes, dashOffset), {
    widthMm,
    cap: CAPS[style['stroke-linecap'] ?? ''] ?? 'butt',
    join: JOINS[style['stroke-linejoin'] ?? ''] ?? 'miter',
    miterLimit: parseFloat(style['stroke-miterlimit'] ?? '4') || 4,
  })
  return even ? drawn : mapRegion(compose(map, scaling(1 / scale)), drawn)
}

const scalesEvenly = ([a, b, c, d]: Affine, scale: number): boolean =>
  Math.abs(a * a + b * b - (c * c + d * d)) < 0.02 * scale * scale &&
  Math.abs(a * c + b * d) < 0.02 * scale * scale
