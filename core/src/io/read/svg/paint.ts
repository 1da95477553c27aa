// What colour a fill or stroke has; gradients become their mean colour.
import { formatHex, interpolate, parse } from 'culori'
import type { SvgDocument } from './document'
import { computeStyle, type Style, StyleSheet } from './style'

const NO_RULES = new StyleSheet([])

/** What a fill or stroke paints with. */
export type Paint =
  | { kind: 'none' }
  | { kind: 'colour'; hex: string; alpha: number; from: 'plain' | 'gradient' }
  | { kind: 'pattern' }

const NONE: Paint = { kind: 'none' }

function plainColour(value: string, style: Style): Paint {
  const word = value.trim().replace(/\s+icc-color\(.*$/i, '')
  if (word === '' || word === 'none' || word === 'transparent') return NONE
  const resolved = /^currentcolor$/i.test(word) ? (style['color'] ?? 'black') : word
  const colour = parse(resolved)
  if (!colour) return { kind: 'colour', hex: '#000000', alpha: 1, from: 'plain' }
  return { kind: 'colour', hex: formatHex(colour), alpha: colour.alpha ?? 1, from: 'plain' }
}

/** Resolves a fill or stroke value; links are followed inside the document only. */
export function resolvePaint(value: string, style: Style, doc: SvgDocument): Paint {
  const link = /^url\(\s*["']?#([^"')]+)["']?\s*\)\s*(.*)$/.exec(value.trim())
  if (!link) return plainColour(value, style)
  const target = doc.byId.get(link[1]!)
  if (!target) return link[2] ? plainColour(link[2], style) : NONE
  if (target.name === 'pattern') return { kind: 'pattern' }
  return meanOfGradient(link[1]!, doc)
}

/** The mean of a gradient's stops, each weighed by the stretch it colours. */
function meanOfGradient(id: string, doc: SvgDocument): Paint {
  let element = doc.byId.get(id)
  for (let hops = 0; element && hops < 20; hops++) {
    const stops = element.children.filter((child) => child.name === 'stop')
    if (stops.length > 0) {
      const list = stops.map((stop) => {
        const style = computeStyle(stop, {}, NO_RULES)
        const paint = plainColour(style['stop-color'] ?? 'black', style)
        const raw = stop.attributes['offset'] ?? '0'
        const at = Math.min(1, Math.max(0, parseFloat(raw) / (raw.includes('%') ? 100 : 1) || 0))
        const alpha = (paint.kind === 'colour' ? paint.alpha : 0) * clamp01(style['stop-opacity'])
        return { at, hex: paint.kind === 'colour' ? paint.hex : '#000000', alpha }
      })
      let r = 0
      let g = 0
      let b = 0
      let alpha = 0
      let weights = 0
      list.forEach((stop, i) => {
        const before = i === 0 ? 0 : (list[i - 1]!.at + stop.at) / 2
        const after = i === list.length - 1 ? 1 : (stop.at + list[i + 1]!.at) / 2
        const weight = Math.max(1e-6, after - before)
        const c = parse(stop.hex) as { r: number; g: number; b: number }
        r += c.r * weight * stop.alpha
        g += c.g * weight * stop.alpha
        b += c.b * weight * stop.alpha
        alpha += stop.alpha * weight
        weights += weight
      })
      if (alpha < 1e-6) return NONE
      return {
        kind: 'colour',
        hex: formatHex({ mode: 'rgb', r: r / alpha, g: g / alpha, b: b / alpha }),
        alpha: alpha / weights,
        from: 'gradient',
      }
    }
    element = doc.byId.get((element.attributes['href'] ?? '').replace(/^#/, ''))
  }
  return NONE
}

/** An opacity value between 0 and 1; 1 where it is missing. */
export function clamp01(text: string | undefined): number {
  if (text === undefined) return 1
  const value = parseFloat(text) / (text.trim().endsWith('%') ? 100 : 1)
  return Number.isFinite(value) ? Math.min(1, Math.max(0, value)) : 1
}

/** The colour (#rrggbb) seen where `top` of an opacity (alpha, 0 to 1) lies over `below`. */
export const mixOver = (top: string, below: string, alpha: number): string =>
  formatHex(interpolate([below, top], 'rgb')(alpha))
