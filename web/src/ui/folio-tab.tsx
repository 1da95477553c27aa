/** The clipped tab in a sheet's colour with a layer's number from the back: a layer's sign everywhere. */
export function FolioTab({ folio, colour, size = 26 }: { folio: number | null; colour: string; size?: number }) {
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

/** Black or white, whichever reads better on a colour (relative luminance after WCAG). */
export function inkOn(hex: string): string {
  const [r, g, b] = [1, 3, 5].map((i) => {
    const v = parseInt(hex.slice(i, i + 2), 16) / 255
    return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4
  }) as [number, number, number]
  return 0.2126 * r + 0.7152 * g + 0.0722 * b > 0.18 ? '#1e2126' : '#ffffff'
}
