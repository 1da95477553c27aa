// <path>, <rect>, <circle>, <ellipse>, <line>, <polyline>, <polygon>: what their fill paints, then their stroke.
import { fillRings } from '../../../../base/geometry'
import type { SvgElement } from '../document'
import { flattenPath, pathDataOf } from '../outline'
import { clamp01, resolvePaint } from '../paint'
import type { Context, Reading } from './context'
import type { Strokes } from './stroke'

/** Paints the fill of an outline, then its stroke. */
export function readShape(
  reading: Reading,
  strokes: Strokes,
  at: { element: SvgElement; context: Context },
): void {
  const { element, context } = at
  const { canvas } = reading
  const d = pathDataOf(element, context.port)
  if (!d) return
  const { style } = context
  const isHidden = style['visibility'] === 'hidden' || style['visibility'] === 'collapse'
  if (isHidden && !reading.showsHidden()) return
  const lines = flattenPath(d, context.map)
  canvas.countPoints(lines.reduce((sum, line) => sum + line.points.length / 2, 0))
  const fill =
    element.name === 'line'
      ? { kind: 'none' as const }
      : resolvePaint(style['fill'] ?? 'black', style, reading.doc)
  if (fill.kind === 'pattern')
    canvas.leave('pattern', lines[0] && { x: lines[0].points[0]!, y: lines[0].points[1]! })
  if (fill.kind === 'colour') {
    if (fill.from === 'gradient') canvas.leave('gradient')
    const rings = lines.map((line) => line.points)
    const region = fillRings(rings, style['fill-rule'] === 'evenodd' ? 'evenodd' : 'nonzero')
    const alpha = fill.alpha * clamp01(style['fill-opacity']) * context.alpha
    canvas.paint(region, { colour: fill.hex, alpha }, context)
  }
  strokes.read(reading, { lines, d, context, filled: fill.kind !== 'none' })
}
