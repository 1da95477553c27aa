// Lengths, transforms and viewports of SVG.
import { compose, identity, rotation, scaling, translation, type Affine } from '../../../base/geometry'

/** One CSS pixel in mm. */
export const PX_MM = 25.4 / 96

const UNITS: Record<string, number> = {
  '': 1,
  px: 1,
  mm: 96 / 25.4,
  cm: 960 / 25.4,
  in: 96,
  pt: 96 / 72,
  pc: 16,
  q: 24 / 25.4,
  em: 16,
  rem: 16,
  ex: 8,
}

/** A length in user units; percentages of `whole`, which is in user units too. Undefined where it is missing or cannot be read. */
export function parseSvgLength(text: string | undefined, whole: number): number | undefined {
  const m = /^\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)\s*([a-z%]*)/i.exec(text ?? '')
  if (!m) return undefined
  const unit = m[2]!.toLowerCase()
  const factor = unit === '%' ? whole / 100 : UNITS[unit]
  const value = Number(m[1]) * (factor ?? 1)
  return Number.isFinite(value) ? value : undefined
}

/** Whether a length says how large it is, on any paper. A pixel does not: programs have 72, 90 or 96 of them to the inch. */
export const isTrueLength = (text: string | undefined): boolean =>
  /\d\s*(?:mm|cm|in|pt|pc|q)\s*$/i.test(text ?? '')

/** Numbers of a list, parted by commas or spaces; none where there is no list. */
export const parseNumbers = (text: string | undefined): number[] =>
  (text?.match(/[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?/gi) ?? []).map(Number).filter(Number.isFinite)

/** A transform attribute as one map. Unknown functions end the list, as renderers do. */
export function parseTransform(text: string | undefined): Affine {
  let map: Affine = identity
  for (const m of (text ?? '').matchAll(/([a-zA-Z]+)\s*\(([^)]*)\)/g)) {
    const n = parseNumbers(m[2])
    let next: Affine
    switch (m[1]) {
      case 'matrix':
        if (n.length < 6) return map
        next = [n[0]!, n[1]!, n[2]!, n[3]!, n[4]!, n[5]!]
        break
      case 'translate':
        next = translation(n[0] ?? 0, n[1] ?? 0)
        break
      case 'scale':
        next = scaling(n[0] ?? 1, n[1] ?? n[0] ?? 1)
        break
      case 'rotate':
        next = compose(
          translation(n[1] ?? 0, n[2] ?? 0),
          compose(rotation(n[0] ?? 0), translation(-(n[1] ?? 0), -(n[2] ?? 0))),
        )
        break
      case 'skewX':
        next = [1, 0, Math.tan(((n[0] ?? 0) * Math.PI) / 180), 1, 0, 0]
        break
      case 'skewY':
        next = [1, Math.tan(((n[0] ?? 0) * Math.PI) / 180), 0, 1, 0, 0]
        break
      default:
        return map
    }
    map = compose(map, next)
  }
  return map
}

/** A rectangle in units of the drawing. */
export interface Viewport {
  x: number
  y: number
  w: number
  h: number
}

/** A viewBox of four numbers with a size; none where it is anything else. */
export function parseViewBox(text: string | undefined): Viewport | undefined {
  const [x, y, w, h] = parseNumbers(text)
  return h !== undefined && w! > 0 && h > 0 ? { x: x!, y: y!, w: w!, h } : undefined
}

/** The map from viewBox units into a viewport, by preserveAspectRatio. */
export function viewBoxMap(view: Viewport, port: Viewport, preserve: string | undefined): Affine {
  const sx = port.w / view.w
  const sy = port.h / view.h
  const words = (preserve ?? 'xMidYMid meet').trim().split(/\s+/)
  if (words[0] === 'none') return [sx, 0, 0, sy, port.x - view.x * sx, port.y - view.y * sy]
  const s = words[1] === 'slice' ? Math.max(sx, sy) : Math.min(sx, sy)
  const place = (word: string) => (word === 'Min' ? 0 : word === 'Max' ? 1 : 0.5)
  const align = /x(Min|Mid|Max)Y(Min|Mid|Max)/.exec(words[0] ?? '')
  const ax = place(align?.[1] ?? 'Mid')
  const ay = place(align?.[2] ?? 'Mid')
  return [
    s,
    0,
    0,
    s,
    port.x + (port.w - view.w * s) * ax - view.x * s,
    port.y + (port.h - view.h * s) * ay - view.y * s,
  ]
}
