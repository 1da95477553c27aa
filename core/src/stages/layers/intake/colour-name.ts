import { converter, parse } from 'culori'
import { groupBy } from '../../../base'

const toLch = converter('oklch')

/** A plain name for a colour, for layers that come without one: “dark blue”, “pale pink”, “grey”. */
export function colourName(hex: string): string {
  const c = toLch(parse(hex) ?? parse('#808080')!)
  const { l, c: chroma } = c
  const h = c.h ?? 0
  if (l > 0.97 && chroma < 0.02) return 'White'
  if (l < 0.2 && chroma < 0.05) return 'Black'
  let hue: string
  if (chroma < 0.03) hue = 'grey'
  else if (h < 15 || h >= 350) hue = l > 0.7 ? 'pink' : 'crimson'
  else if (h < 40) hue = l > 0.75 ? 'rose' : 'red'
  else if (h < 70) hue = l < 0.55 ? 'brown' : 'orange'
  else if (h < 85) hue = l < 0.6 ? 'brown' : 'amber'
  else if (h < 112) hue = l < 0.6 ? 'olive' : 'yellow'
  else if (h < 165) hue = 'green'
  else if (h < 205) hue = 'teal'
  else if (h < 235) hue = 'sky blue'
  else if (h < 280) hue = 'blue'
  else if (h < 310) hue = 'violet'
  else hue = l < 0.5 ? 'plum' : 'mauve'
  const shade =
    l > 0.85
      ? 'pale '
      : l > 0.7 && hue !== 'pink' && hue !== 'rose' && hue !== 'amber' && hue !== 'yellow'
        ? 'light '
        : l < 0.42 && hue !== 'brown' && hue !== 'olive'
          ? 'dark '
          : ''
  const name = shade + hue
  return name.charAt(0).toUpperCase() + name.slice(1)
}

/** From light to dark, as many as are wanted. */
const SHADES = ['lightest', 'lighter', 'light', 'middle', 'deep', 'deeper', 'deepest']
const BY_COUNT: Record<number, readonly number[]> = {
  2: [1, 5],
  3: [1, 3, 5],
  4: [1, 2, 4, 5],
  5: [0, 1, 3, 5, 6],
  6: [0, 1, 2, 4, 5, 6],
  7: [0, 1, 2, 3, 4, 5, 6],
}

/** Names for colours by which each can be told from the others: those that a plain name does not tell apart are ranked by their light. */
export function colourNames(colours: readonly string[]): Map<string, string> {
  const distinct = [...new Set(colours)]
  const names = new Map<string, string>()
  for (const [name, alike] of groupBy(distinct, colourName)) {
    const ranked = alike.toSorted((a, b) => light(b) - light(a))
    const places = BY_COUNT[ranked.length]
    ranked.forEach((hex, k) =>
      names.set(
        hex,
        ranked.length === 1
          ? name
          : places
            ? `${name}, ${SHADES[places[k]!]}`
            : `${name}, shade ${k + 1} of ${ranked.length}`,
      ),
    )
  }
  return names
}

const light = (hex: string): number => toLch(parse(hex) ?? parse('#808080')!).l
