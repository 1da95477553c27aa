// Elements that draw nothing by themselves, and those that cannot be cut.
import type { Affine, Point } from '../../../../base/geometry'
import type { SvgElement } from '../document'
import { parseSvgLength } from '../lengths'

/** Names of elements that draw nothing where they stand. */
export const NOT_DRAWN = new Set([
  'defs',
  'symbol',
  'clipPath',
  'mask',
  'marker',
  'pattern',
  'linearGradient',
  'radialGradient',
  'filter',
  'metadata',
  'title',
  'desc',
  'style',
  'script',
  'namedview',
])

/** What a maker calls those that are left out. */
export const LEFT_OUT: Record<string, string> = {
  text: 'text',
  flowRoot: 'text',
  image: 'picture',
  foreignObject: 'foreign content',
}

/** Where an element that is not drawn would have begun, or its middle where it has a size. */
export function placeOf({ attributes, content }: SvgElement, map: Affine): Point {
  const inner = content.find((item): item is SvgElement => typeof item !== 'string')
  const [x, y, w, h] = ['x', 'y', 'width', 'height'].map(
    (name) => parseSvgLength(attributes[name] ?? inner?.attributes[name], 0) ?? 0,
  ) as [number, number, number, number]
  const [px, py] = [x + w / 2, y + h / 2]
  return { x: map[0] * px + map[2] * py + map[4], y: map[1] * px + map[3] * py + map[5] }
}
