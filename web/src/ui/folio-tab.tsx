import { wcagContrast } from 'culori'

/** The clipped tab in a sheet's colour with a layer's number from the back: a layer's sign everywhere. */
export function FolioTab({
  folio,
  colour,
  size = 26,
}: {
  folio: number | string | null
  colour: string
  size?: number
}) {
  return (
    <span
      aria-hidden
      className="inline-grid shrink-0 place-items-center font-semibold"
      style={{
        width: size,
        height: size,
        fontSize: size * 0.5,
        background: colour,
        color: inkOn(colour),
        clipPath: 'polygon(0 0, 68% 0, 100% 32%, 100% 100%, 0 100%)',
        boxShadow: 'inset 0 0 0 1px rgb(0 0 0 / 0.12)',
      }}
    >
      {folio ?? '–'}
    </span>
  )
}

/** Ink or white, whichever reads better on a colour; black where neither reaches a contrast of 4.5 (WCAG). */
export function inkOn(hex: string): string {
  let ink = inks.get(hex)
  if (!ink) inks.set(hex, (ink = findInk(hex)))
  return ink
}

const inks = new Map<string, string>()

function findInk(hex: string): string {
  const best = ['#1e2126', '#ffffff'].toSorted((a, b) => wcagContrast(hex, b) - wcagContrast(hex, a))[0]!
  return wcagContrast(hex, best) >= 4.5 ? best : '#000000'
}
