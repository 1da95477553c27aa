// <use>: another element once more, in another place.
import { compose, translation, type Affine } from '../../../../base/geometry'
import { BadInput } from '../../../../base'
import type { SvgDocument, SvgElement } from '../document'
import { parseSvgLength, type Viewport } from '../lengths'
import { computeStyle } from '../style'
import type { Context, Reading } from './context'
import { readViewport } from './viewport'

/** Deeper than this, or more often, is damage rather than drawing. */
const MOST_DEEP = 30
const MOST_USES = 20_000

/** What an element refers to; null where it is not there, or being followed already. */
export function usedElement(
  doc: SvgDocument,
  element: SvgElement,
  trail: Context['trail'],
): SvgElement | null {
  const target = doc.byId.get((element.attributes['href'] ?? '').replace(/^#/, ''))
  return target && !trail.includes(target) ? target : null
}

/** Whether an element, or one within it, is there to be shown elsewhere. */
export const isReferredTo = (element: SvgElement, doc: SvgDocument): boolean =>
  doc.referredTo.has(element.attributes['id'] ?? '') ||
  element.children.some((child) => isReferredTo(child, doc))

/** Where it is put. */
export const usedAt = ({ attributes }: SvgElement, port: Pick<Viewport, 'w' | 'h'>): Affine =>
  translation(parseSvgLength(attributes['x'], port.w) ?? 0, parseSvgLength(attributes['y'], port.h) ?? 0)

/** Throws BadInput where parts are repeated too often. */
export class Uses {
  private count = 0

  read(reading: Reading, element: SvgElement, context: Context): void {
    const target = usedElement(reading.doc, element, context.trail)
    if (!target) return
    if (context.trail.length > MOST_DEEP || ++this.count > MOST_USES)
      throw new BadInput('the drawing repeats parts of itself too often')
    for (let up: SvgElement | null = element; up; up = up.parent) if (up === target) return
    const moved: Context = {
      ...context,
      map: compose(context.map, usedAt(element, context.port)),
      trail: [...context.trail, target],
    }
    if (target.name !== 'symbol' && target.name !== 'svg') {
      reading.element(target, moved)
      return
    }
    const style = computeStyle(target, moved.style, reading.rules)
    const [own, inner] = [element.attributes, target.attributes]
    const size = { width: own['width'] ?? inner['width'], height: own['height'] ?? inner['height'] }
    readViewport(reading, target, { ...moved, style, size })
  }
}
