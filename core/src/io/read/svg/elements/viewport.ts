// <svg> within a drawing, and <symbol> where it is used: a window with coordinates of its own.
import { compose, intersect, mapRegion, rectangle, translation } from '../../../../base/geometry'
import type { SvgElement } from '../document'
import { parseSvgLength, parseViewBox, viewBoxMap, type Viewport } from '../lengths'
import type { Context, Reading } from './context'

/** A size that is given from outside goes before the element's own. */
export interface Size {
  width: string | undefined
  height: string | undefined
}

/** Reads what a viewport holds, clipped to it unless its overflow shows. */
export function readViewport(reading: Reading, element: SvgElement, context: Context & { size: Size }): void {
  const { attributes } = element
  const { size, ...outer } = context
  const view = parseViewBox(attributes['viewBox'])
  const port: Viewport = {
    x: parseSvgLength(attributes['x'], outer.port.w) ?? 0,
    y: parseSvgLength(attributes['y'], outer.port.h) ?? 0,
    w: parseSvgLength(size.width ?? '100%', outer.port.w) ?? outer.port.w,
    h: parseSvgLength(size.height ?? '100%', outer.port.h) ?? outer.port.h,
  }
  if (!(port.w > 0 && port.h > 0)) return
  const inner = view ? viewBoxMap(view, port, attributes['preserveAspectRatio']) : translation(port.x, port.y)
  const overflow = outer.style['overflow']
  let { clip } = outer
  if (overflow !== 'visible' && overflow !== 'auto') {
    const window = mapRegion(outer.map, [rectangle([port.x, port.y], port.w, port.h)])
    clip = clip ? intersect(clip, window) : window
  }
  reading.children(element, {
    ...outer,
    map: compose(outer.map, inner),
    port: view ?? { ...port, x: 0, y: 0 },
    clip,
  })
}
