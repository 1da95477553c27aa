// Names that a person gave to parts of a drawing.
import type { SvgElement } from '../document'
import { NOT_DRAWN } from './not-drawn'

/** Names of the top-level groups, where two or more of them bear one that a person gave. */
export function nameGroups(root: SvgElement): Map<SvgElement, string> {
  let holder = root
  // A lone wrapper is not a layer: look inside it.
  for (;;) {
    const drawn = holder.children.filter((child) => !NOT_DRAWN.has(child.name))
    if (drawn.length !== 1 || drawn[0]!.name !== 'g') break
    holder = drawn[0]!
  }
  const names = new Map<SvgElement, string>()
  for (const child of holder.children) {
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
