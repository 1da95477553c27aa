// Layers and papers that a note names.
import type { Project } from '../../project'

/** Something that a note names, by the name it bears now. */
export interface Mention {
  kind: 'layer' | 'paper'
  id: string
  name: string
}

/** Names of fewer letters are met in any text. */
const LEAST_LETTERS = 3

/** What a note names, in whole words and whatever their case, the first mention first; a longer name wins over one within it. */
export function mentionsOf(note: string, project: Project): Mention[] {
  const text = note.toLowerCase()
  const known: Mention[] = [
    ...project.layers.map(({ id, name }): Mention => ({ kind: 'layer', id, name })),
    ...project.drawer.papers.map(({ id, name }): Mention => ({ kind: 'paper', id, name })),
  ]
    .filter(({ name }) => name.trim().length >= LEAST_LETTERS)
    .toSorted((a, b) => b.name.length - a.name.length)
  const taken: [number, number][] = []
  const found: { at: number; mention: Mention }[] = []
  for (const mention of known) {
    const name = mention.name.trim().toLowerCase()
    for (let at = text.indexOf(name); at >= 0; at = text.indexOf(name, at + 1)) {
      const end = at + name.length
      const isWord = !/[\p{L}\p{N}]/u.test(text[at - 1] ?? ' ') && !/[\p{L}\p{N}]/u.test(text[end] ?? ' ')
      // Inside a longer name it is not meant; two that bear one name are both.
      if (!isWord || taken.some(([from, to]) => at >= from && end <= to && to - from > name.length)) continue
      taken.push([at, end])
      found.push({ at, mention })
      break
    }
  }
  return found.toSorted((a, b) => a.at - b.at).map(({ mention }) => mention)
}
