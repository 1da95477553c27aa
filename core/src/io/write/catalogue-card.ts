// The card that lies beside a piece: its picture, what it is, care and caution, the price.
import { PDFDocument, rgb } from '@cantoo/pdf-lib'
import { PT_PER_MM } from './pdf-parts'
import { drawPicture, type SmallPicture } from './pictures'
import { INK, Typeface, type Faces } from './typeface'

/** What stands on a card. */
export interface CatalogueCard {
  title: string
  picture: SmallPicture | null
  /** JPEG in place of the picture; null where there is none. */
  photo: Uint8Array | null
  /** Size, layers, papers: a line each. */
  facts: readonly string[]
  care: readonly string[]
  cautions: readonly string[]
  credit: string
  price: string | null
}

/** A6 upright, points. */
const PAGE = { w: 105 * PT_PER_MM, h: 148 * PT_PER_MM }
const MARGIN = 20
const PICTURE_H = 190
const PRICE_SIZE = 15
const SOFT = rgb(0.35, 0.36, 0.38)

/** A page of A6. */
export async function writeCatalogueCard(card: CatalogueCard, faces: Faces): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  const { title, facts, care, cautions, credit, price } = card
  const type = await Typeface.in(pdf, faces, [title, ...facts, ...care, ...cautions, credit, price ?? ''])
  const page = pdf.addPage([PAGE.w, PAGE.h])
  const wide = PAGE.w - 2 * MARGIN
  const place = { x: MARGIN, y: PAGE.h - MARGIN, width: wide, height: PICTURE_H }
  if (card.photo) {
    const image = await pdf.embedJpg(card.photo)
    const { width, height } = image.scaleToFit(place.width, place.height)
    page.drawImage(image, {
      x: place.x + (place.width - width) / 2,
      y: place.y - (place.height + height) / 2,
      width,
      height,
    })
  } else if (card.picture) drawPicture(page, card.picture, place)
  let y = PAGE.h - MARGIN - PICTURE_H - 10
  // Nothing is written over the price.
  const bottom = MARGIN + (price ? PRICE_SIZE * 1.4 : 0)
  const write = (text: string, size: number, { bold = false, soft = false } = {}) => {
    for (const line of type.wrap(text, size, wide)) {
      if (y < bottom + size) return
      type.draw(page, line, { x: MARGIN, y: y - size, size, bold, colour: soft ? SOFT : INK })
      y -= size * 1.35
    }
  }
  write(title, 15, { bold: true })
  y -= 3
  for (const fact of facts) write(fact, 8.5)
  y -= 5
  for (const line of care) write(line, 7.5, { soft: true })
  for (const line of cautions) write(line, 7.5)
  if (credit) {
    y -= 3
    write(credit, 7.5, { soft: true })
  }
  if (price) {
    type.draw(page, price, {
      x: PAGE.w - MARGIN - type.width(price, PRICE_SIZE, true),
      y: MARGIN,
      size: PRICE_SIZE,
      bold: true,
    })
  }
  return pdf.save()
}
