// <text>: words set in the maker's font.
import { compose, mapRegion, scaling, translation } from '../../../../base/geometry'
import type { SvgElement } from '../document'
import { parseNumbers, parseSvgLength } from '../lengths'
import { clamp01, resolvePaint } from '../paint'
import { computeStyle, type Style } from '../style'
import type { Context, Reading } from './context'

const DEFAULT_SIZE = 16

/** Paints words; each run with a place of its own is anchored by itself. */
export function readText(reading: Reading, element: SvgElement, context: Context): void {
  let [x, y] = [0, 0]
  const set = (words: string, style: Style) => {
    const size = parseSvgLength(style['font-size'], DEFAULT_SIZE) ?? DEFAULT_SIZE
    const { region, advance } = reading.options.outlineText!(words)
    const width = (advance * size) / 1000
    const anchor = style['text-anchor']
    const from = x - (anchor === 'middle' ? width / 2 : anchor === 'end' ? width : 0)
    const fill = resolvePaint(style['fill'] ?? 'black', style, reading.doc)
    if (fill.kind === 'colour') {
      const map = compose(context.map, compose(translation(from, y), scaling(size / 1000)))
      const alpha = fill.alpha * clamp01(style['fill-opacity']) * context.alpha
      reading.canvas.paint(mapRegion(map, region), { colour: fill.hex, alpha }, context)
    }
    x = from + width
  }
  const walk = (part: SvgElement, outer: Style) => {
    const style = part === element ? outer : computeStyle(part, outer, reading.rules)
    if (style['display'] === 'none') return
    const { attributes } = part
    if (attributes['x'] !== undefined) x = parseNumbers(attributes['x'])[0] ?? x
    if (attributes['y'] !== undefined) y = parseNumbers(attributes['y'])[0] ?? y
    x += parseNumbers(attributes['dx'])[0] ?? 0
    y += parseNumbers(attributes['dy'])[0] ?? 0
    for (const item of part.content) {
      if (typeof item !== 'string') {
        walk(item, style)
        continue
      }
      const words = item.replace(/\s+/g, ' ').trim()
      if (words !== '') set(words, style)
    }
  }
  walk(element, context.style)
}
