import { converter, parse } from 'culori'

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
