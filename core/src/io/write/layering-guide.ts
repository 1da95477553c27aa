// One page on which all layers lie in their order, each over the one below it, to be read while hands are busy.
import { PDFDocument } from '@cantoo/pdf-lib'
import { A4 } from './pdf-parts'
import { drawPicture, type SmallPicture } from './pictures'
import { Typeface, type Faces } from './typeface'

/** A layer of the guide, back to front. */
export interface GuideLayer {
  number: string
  name: string
  /** Its paper, and what holds it. */
  about: string
  picture: SmallPicture | null
}

const MARGIN = 34
const HEAD = 40
const TEXT = 34

/** A page of A4, as many layers as there are in an even grid. */
export async function writeLayeringGuide(
  title: string,
  layers: readonly GuideLayer[],
  faces: Faces,
): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  const type = await Typeface.in(pdf, faces, [
    title,
    ...layers.flatMap(({ number, name, about }) => [number, name, about]),
  ])
  const page = pdf.addPage([A4.w, A4.h])
  type.draw(page, title, { x: MARGIN, y: A4.h - MARGIN - 12, size: 16, bold: true })
  const [wide, high] = [A4.w - 2 * MARGIN, A4.h - 2 * MARGIN - HEAD]
  const { columns, rows } = gridFor(layers.length, wide, high)
  const [cellW, cellH] = [wide / columns, high / rows]
  const size = Math.min(9, cellW / 14)
  layers.forEach(({ number, name, about, picture }, k) => {
    const x = MARGIN + (k % columns) * cellW
    const top = A4.h - MARGIN - HEAD - Math.floor(k / columns) * cellH
    if (picture) drawPicture(page, picture, { x: x + 4, y: top, width: cellW - 8, height: cellH - TEXT })
    const line = (text: string, down: number, bold: boolean) => {
      const [first = ''] = type.wrap(text, size, cellW - 8)
      type.draw(page, first, { x: x + 4, y: top - cellH + TEXT - down, size, bold })
    }
    line(`${number}  ${name}`, size + 2, true)
    line(about, 2 * size + 5, false)
  })
  return pdf.save()
}

/** Columns and rows that give each of n cells the largest square; `wide` and `high` in one unit. */
export function gridFor(n: number, wide: number, high: number): { columns: number; rows: number } {
  let best = { columns: 1, rows: Math.max(1, n) }
  let most = 0
  for (let columns = 1; columns <= Math.max(1, n); columns++) {
    const rows = Math.max(1, Math.ceil(n / columns))
    const side = Math.min(wide / columns, high / rows - TEXT)
    if (side > most) [best, most] = [{ columns, rows }, side]
  }
  return best
}
