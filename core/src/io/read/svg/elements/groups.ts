// Names that a person gave to parts of a drawing.
import type { SvgElement } from '../document'
import { NOT_DRAWN } from './not-drawn'

/** What stands at the top of a drawing: a lone wrapper is no layer, what is in it is looked at. */
export function topLevelOf(root: SvgElement): readonly SvgElement[] {
  let holder = root
  for (;;) {
    const drawn = holder.children.filter((child) => !NOT_DRAWN.has(child.name))
    if (drawn.length !== 1 || drawn[0]!.name !== 'g') return holder.children
    holder = drawn[0]!
  }
}

/** Names of the groups at the top, where two or more of them bear one that a person gave. */
export function nameGroups(topLevel: readonly SvgElement[]): Map<SvgElement, string> {
  const names = new Map<SvgElement, string>()
  for (const child of topLevel) {
    if (child.name !== 'g') continue
    const { label, id, 'data-name': dataName } = child.attributes
    const given =
      label ?? dataName ?? (id && !/^(g|group|path|svg)?[-_]?\d+([-_]\d+)*$/i.test(id) ? id : undefined)
    if (given)
      names.set(
        child,
        given
          .replace(/_x([0-9A-F]{2})_/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)))
          .replace(/[_\s]+/g, ' ')
          .trim()
          .slice(0, 60),
      )
  }
  return names.size >= 2 ? names : new Map()
}
