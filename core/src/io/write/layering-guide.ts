// One page on which all layers lie in their order, each over the one below it, to be read while hands are busy.
import { PDFDocument } from '@cantoo/pdf-lib'
import { A4 } from './pdf-parts'
import { boxHeight, boxWidth } from '../../base/geometry'
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
/** Lines of words under a picture, and the height they take. */
const LINES = 3
const TEXT = 40

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
  const shape = Math.max(
    ...layers.map(({ picture }) => (picture ? boxWidth(picture.box) / boxHeight(picture.box) : 0)),
  )
  const { columns, rows } = gridFor(layers.length, { wide, high, shape: shape || 1 })
  const [cellW, cellH] = [wide / columns, high / rows]
  const size = Math.min(9, cellW / 14)
  layers.forEach(({ number, name, about, picture }, k) => {
    const x = MARGIN + (k % columns) * cellW
    const top = A4.h - MARGIN - HEAD - Math.floor(k / columns) * cellH
    if (picture) drawPicture(page, picture, { x: x + 4, y: top, width: cellW - 8, height: cellH - TEXT })
    const lines = [
      ...type
        .wrap(`${number}  ${name}`, size, cellW - 8)
        .slice(0, LINES - 1)
        .map((text) => ({ text, bold: true })),
      ...type.wrap(about, size, cellW - 8).map((text) => ({ text, bold: false })),
    ]
    lines
      .slice(0, LINES)
      .forEach(({ text, bold }, i) =>
        type.draw(page, text, { x: x + 4, y: top - cellH + TEXT - (i + 1) * (size + 2.5), size, bold }),
      )
  })
  return pdf.save()
}

/** Columns and rows in which n pictures, `shape` times as wide as high, come out largest; `wide` and `high` in one unit. */
export function gridFor(
  n: number,
  { wide, high, shape }: { wide: number; high: number; shape: number },
): { columns: number; rows: number } {
  let best = { columns: 1, rows: Math.max(1, n) }
  let most = 0
  for (let columns = 1; columns <= Math.max(1, n); columns++) {
    const rows = Math.max(1, Math.ceil(n / columns))
    const height = Math.min(wide / columns / shape, high / rows - TEXT)
    if (height > most) [best, most] = [{ columns, rows }, height]
  }
  return best
}
