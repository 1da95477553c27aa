// <clipPath>: what of an element is painted at all.
import { compose, fillRings, intersect, union, type Region } from '../../../../base/geometry'
import type { SvgElement } from '../document'
import { parseTransform } from '../lengths'
import { flattenPath, pathDataOf } from '../outline'
import { computeStyle } from '../style'
import type { Context, Reading } from './context'
import { usedAt, usedElement } from './use'

/** The context of an element with the clip path that it names; unchanged where there is none. */
export function clippedBy(reading: Reading, context: Context, value: string | undefined): Context {
  const link = /^url\(\s*["']?#([^"')]+)["']?\s*\)/.exec(value ?? '')
  const target = link && reading.doc.byId.get(link[1]!)
  if (!target || target.name !== 'clipPath' || context.trail.includes(target)) return context
  if (target.attributes['clipPathUnits'] === 'objectBoundingBox') return context
  const base: Context = {
    ...context,
    map: compose(context.map, parseTransform(target.attributes['transform'])),
    trail: [...context.trail, target],
  }
  const style = computeStyle(target, {}, reading.rules)
  const region = union(...shapesOf(reading, target, { ...base, style }))
  const nested = clippedBy(reading, { ...base, clip: null }, target.attributes['clip-path'])
  const own = nested.clip ? intersect(region, nested.clip) : region
  return { ...context, clip: context.clip ? intersect(context.clip, own) : own }
}

function shapesOf(reading: Reading, element: SvgElement, context: Context): Region[] {
  return element.children.flatMap((child): Region[] => {
    const style = computeStyle(child, context.style, reading.rules)
    if (style['display'] === 'none') return []
    const map = compose(context.map, parseTransform(child.attributes['transform']))
    if (child.name === 'use') {
      const target = usedElement(reading.doc, child, context.trail)
      if (!target) return []
      const holder: SvgElement = { ...child, name: 'g', children: [target] }
      return shapesOf(reading, holder, {
        ...context,
        style,
        map: compose(map, usedAt(child, { w: 0, h: 0 })),
        trail: [...context.trail, target],
      })
    }
    const d = pathDataOf(child, context.port)
    if (!d) return []
    const rings = flattenPath(d, map).map((line) => line.points)
    return [fillRings(rings, style['clip-rule'] === 'evenodd' ? 'evenodd' : 'nonzero')]
  })
}
