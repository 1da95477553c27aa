// Shapes and path data to lines of points in mm.
import svgpath from 'svgpath'
import { flattenCubic, type Affine, type Ring } from '../../../base/geometry'
import type { SvgElement } from './document'
import { parseNumbers, parseSvgLength, type Viewport } from './lengths'

/** How far a chord may stray from its curve, in mm. */
const TOLERANCE_MM = 0.02

/** A line of points in mm of the page; closed where the path says so. */
export interface Line {
  points: Ring
  closed: boolean
}

/** Path data of a shape element in its own units; null for elements that draw nothing. */
export function pathDataOf({ name, attributes: a }: SvgElement, port: Viewport): string | null {
  const diagonal = Math.hypot(port.w, port.h) / Math.SQRT2
  const x = (key: string, other = 0) => parseSvgLength(a[key], port.w) ?? other
  const y = (key: string, other = 0) => parseSvgLength(a[key], port.h) ?? other
  switch (name) {
    case 'path':
      return a['d'] ?? null
    case 'rect': {
      const [w, h] = [x('width'), y('height')]
      if (!(w > 0 && h > 0)) return null
      const rawX = parseSvgLength(a['rx'], port.w)
      const rawY = parseSvgLength(a['ry'], port.h)
      const rx = Math.min(Math.max(0, rawX ?? rawY ?? 0), w / 2)
      const ry = Math.min(Math.max(0, rawY ?? rawX ?? 0), h / 2)
      const [l, t] = [x('x'), y('y')]
      if (rx === 0 || ry === 0) return `M${l} ${t}h${w}v${h}h${-w}z`
      const arc = (dx: number, dy: number) => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`
      return `M${l + rx} ${t}h${w - 2 * rx}${arc(rx, ry)}v${h - 2 * ry}${arc(-rx, ry)}h${2 * rx - w}${arc(-rx, -ry)}v${2 * ry - h}${arc(rx, -ry)}z`
    }
    case 'circle':
    case 'ellipse': {
      const r = parseSvgLength(a['r'], diagonal)
      const rx =
        name === 'circle'
          ? (r ?? 0)
          : (parseSvgLength(a['rx'], port.w) ?? parseSvgLength(a['ry'], port.h) ?? 0)
      const ry = name === 'circle' ? (r ?? 0) : (parseSvgLength(a['ry'], port.h) ?? rx)
      if (!(rx > 0 && ry > 0)) return null
      return `M${x('cx') - rx} ${y('cy')}a${rx} ${ry} 0 1 1 ${2 * rx} 0a${rx} ${ry} 0 1 1 ${-2 * rx} 0z`
    }
    case 'line':
      return `M${x('x1')} ${y('y1')}L${x('x2')} ${y('y2')}`
    case 'polyline':
    case 'polygon': {
      const n = parseNumbers(a['points'])
      if (n.length < 4) return null
      let d = ''
      for (let i = 0; i + 1 < n.length; i += 2) d += `${i === 0 ? 'M' : 'L'}${n[i]} ${n[i + 1]}`
      return name === 'polygon' ? d + 'z' : d
    }
    default:
      return null
  }
}

/**
 * The subpaths of path data under a map into mm, curves as chords. What follows a mistake in the data is dropped, as
 * the SVG rules say; points that are not finite are passed over.
 */
export function flattenPath(d: string, [a, b, c, dd, e, f]: Affine): Line[] {
  const lines: Line[] = []
  let points: number[] = []
  const end = (closed: boolean) => {
    if (points.length >= 4 && points.every(Number.isFinite))
      lines.push({ points: Float64Array.from(points), closed })
    points = []
  }
  const X = (x: number, y: number) => a * x + c * y + e
  const Y = (x: number, y: number) => b * x + dd * y + f
  let startX = 0
  let startY = 0
  svgpath(d)
    .abs()
    .unshort()
    .unarc()
    .iterate((segment, _index, x, y) => {
      const [command] = segment
      const n = segment as unknown as number[]
      if (command !== 'M' && command !== 'Z' && points.length === 0) points.push(X(x, y), Y(x, y))
      switch (command) {
        case 'M':
          end(false)
          startX = n[1]!
          startY = n[2]!
          points.push(X(startX, startY), Y(startX, startY))
          break
        case 'L':
          points.push(X(n[1]!, n[2]!), Y(n[1]!, n[2]!))
          break
        case 'H':
          points.push(X(n[1]!, y), Y(n[1]!, y))
          break
        case 'V':
          points.push(X(x, n[1]!), Y(x, n[1]!))
          break
        case 'Q':
        case 'C': {
          const quad = command === 'Q'
          const [qx, qy] = [n[1]!, n[2]!]
          const ex = quad ? n[3]! : n[5]!
          const ey = quad ? n[4]! : n[6]!
          const x1 = quad ? x + (2 / 3) * (qx - x) : qx
          const y1 = quad ? y + (2 / 3) * (qy - y) : qy
          const x2 = quad ? ex + (2 / 3) * (qx - ex) : n[3]!
          const y2 = quad ? ey + (2 / 3) * (qy - ey) : n[4]!
          flattenCubic(
            points,
            [
              [X(x, y), Y(x, y)],
              [X(x1, y1), Y(x1, y1)],
              [X(x2, y2), Y(x2, y2)],
              [X(ex, ey), Y(ex, ey)],
            ],
            TOLERANCE_MM,
          )
          break
        }
        case 'Z':
          end(true)
          break
      }
    })
  end(false)
  return lines
}

/** Cuts lines into dashes (lengths in mm, on and off in turn). */
export function dashLines(lines: readonly Line[], pattern: readonly number[], offsetMm: number): Line[] {
  const total = pattern.reduce((sum, v) => sum + v, 0)
  if (pattern.length === 0 || !(total > 0.01) || pattern.some((v) => v < 0)) return [...lines]
  const dashes = pattern.length % 2 ? [...pattern, ...pattern] : pattern
  const cycle = dashes.reduce((sum, v) => sum + v, 0)
  const out: Line[] = []
  for (const { points, closed } of lines) {
    const n = points.length / 2
    let k = 0
    let left = ((offsetMm % cycle) + cycle) % cycle
    while (left >= dashes[k]! && left > 0) {
      left -= dashes[k]!
      k = (k + 1) % dashes.length
    }
    left = dashes[k]! - left
    let current: number[] = k % 2 === 0 ? [points[0]!, points[1]!] : []
    for (let i = 1; i <= (closed ? n : n - 1); i++) {
      let x = points[(i - 1) * 2]!
      let y = points[(i - 1) * 2 + 1]!
      const ex = points[(i % n) * 2]!
      const ey = points[(i % n) * 2 + 1]!
      let rest = Math.hypot(ex - x, ey - y)
      while (rest > left) {
        x += ((ex - x) * left) / rest
        y += ((ey - y) * left) / rest
        rest -= left
        if (k % 2 === 0) {
          current.push(x, y)
          if (current.length >= 4) out.push({ points: Float64Array.from(current), closed: false })
          current = []
        } else current = [x, y]
        k = (k + 1) % dashes.length
        left = dashes[k]!
        if (out.length > 20_000) return [...lines]
      }
      left -= rest
      if (k % 2 === 0) current.push(ex, ey)
    }
    if (current.length >= 4) out.push({ points: Float64Array.from(current), closed: false })
  }
  return out
}
