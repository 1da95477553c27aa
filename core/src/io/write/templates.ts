// PDFs of 1:1 templates to cut by knife: a page as large as each sheet, or tiled over the pages that a printer takes.
import {
  clip,
  endPath,
  PDFDocument,
  popGraphicsState,
  pushGraphicsState,
  rectangle as box,
  type PDFPage,
} from '@cantoo/pdf-lib'
import { polygonBox } from '../../base/geometry'
import { cuttingRings, lineToPath, type CutSheet } from './cut-sheet'
import { formatSize, type Unit } from '../../base/units'
import { barFor, PT_PER_MM, type Bar } from './pdf-parts'
import { INK, Typeface, type Faces } from './typeface'

/** Pages of printers, mm. */
export const PAGES = {
  a4: { name: 'A4', widthMm: 210, heightMm: 297 },
  letter: { name: 'Letter', widthMm: 215.9, heightMm: 279.4 },
} as const

/** Printers leave this free at each edge, mm. */
export const MARGIN_MM = 8
/** So wide is the strip that neighbouring pages share, to be laid over each other, mm. */
export const OVERLAP_MM = 10
/** Room for the caption under a tile, mm. */
const CAPTION_MM = 7
/** Arm of the marks that are laid over each other, mm. */
const ARM_MM = 4

/** A part of a sheet that goes on one page: its place in the sheet, mm. */
export interface Tile {
  row: number
  column: number
  x: number
  y: number
  w: number
  h: number
}

/** A sheet in tiles, row by row: each as large as a page prints, neighbours sharing the overlap. */
export function tilesOf(
  { widthMm, heightMm }: Pick<CutSheet, 'widthMm' | 'heightMm'>,
  page: (typeof PAGES)[keyof typeof PAGES],
): Tile[] {
  const wide = page.widthMm - 2 * MARGIN_MM
  const high = page.heightMm - 2 * MARGIN_MM - CAPTION_MM
  const along = (whole: number, one: number) =>
    whole <= one ? 1 : 1 + Math.ceil((whole - one) / (one - OVERLAP_MM) - 1e-9)
  const [columns, rows] = [along(widthMm, wide), along(heightMm, high)]
  return Array.from({ length: columns * rows }, (_, k): Tile => {
    const [row, column] = [Math.floor(k / columns), k % columns]
    const [x, y] = [column * (wide - OVERLAP_MM), row * (high - OVERLAP_MM)]
    return { row, column, x, y, w: Math.min(wide, widthMm - x), h: Math.min(high, heightMm - y) }
  })
}

/** A sheet as it comes onto the back of the card: left and right exchanged. */
const mirror = (sheet: CutSheet): CutSheet => {
  const turned = (ring: Float64Array) => ring.map((v, i) => (i % 2 === 0 ? sheet.widthMm - v : v))
  return {
    ...sheet,
    pieces: sheet.pieces.map((piece) => ({
      ...piece,
      shape: { outer: turned(piece.shape.outer), holes: piece.shape.holes.map(turned) },
      lines: piece.lines.map(({ kind, line }) => ({ kind, line: turned(line) })),
    })),
  }
}

/** Outlines and lines of a sheet; what is folded is dashed. */
function drawSheet(page: PDFPage, sheet: CutSheet, at: { x: number; y: number }): void {
  for (const piece of sheet.pieces) {
    const d = cuttingRings(piece.shape)
      .map((ring) => `${lineToPath(ring)}Z`)
      .join('')
    page.drawSvgPath(d, { ...at, scale: PT_PER_MM, borderColor: INK, borderWidth: 0.2 })
    for (const { kind, line } of piece.lines) {
      const dash = kind === 'fold' ? { borderDashArray: [2 * PT_PER_MM, PT_PER_MM] } : {}
      page.drawSvgPath(lineToPath(line), {
        ...at,
        scale: PT_PER_MM,
        borderColor: INK,
        borderWidth: 0.25,
        ...dash,
      })
    }
  }
}

/** A caption with the bar that a ruler is held to. */
function drawCaption(
  page: PDFPage,
  type: Typeface,
  { text, bar, at }: { text: string; bar: Bar; at: { x: number; y: number } },
): void {
  type.draw(page, text, { ...at, size: 6 })
  const barX = at.x + type.width(text, 6) + 6
  page.drawLine({
    start: { x: barX, y: at.y + 2 },
    end: { x: barX + bar.mm * PT_PER_MM, y: at.y + 2 },
    thickness: 0.6,
    color: INK,
  })
}

/** The size that the card itself is trimmed to: where the template lies edge on edge. */
const trimmed = ({ widthMm, heightMm }: CutSheet, unit: Unit): string =>
  `card ${formatSize(widthMm, heightMm, unit)}`

/** A page per sheet at true size: mirrored so that the lines end up on the back of the card, or as it is seen. */
export async function writeTemplates(
  sheets: readonly CutSheet[],
  faces: Faces,
  { mirrored, unit }: { mirrored: boolean; unit: Unit },
): Promise<Uint8Array> {
  const bar = barFor(unit)
  const pdf = await PDFDocument.create()
  const side = mirrored ? 'mirrored: lines go on the back' : 'as seen: lines go on the front'
  const captions = sheets.map(
    (sheet) => `${sheet.title}, ${trimmed(sheet, unit)} – ${side}. Check: this bar is ${bar.words}`,
  )
  const type = await Typeface.in(pdf, faces, captions)
  for (const [i, sheet] of sheets.entries()) {
    const page = pdf.addPage([sheet.widthMm * PT_PER_MM, sheet.heightMm * PT_PER_MM])
    drawSheet(page, mirrored ? mirror(sheet) : sheet, { x: 0, y: page.getHeight() })
    drawCaption(page, type, { text: captions[i]!, bar, at: { x: 12, y: 6 } })
  }
  return pdf.save()
}

/**
 * The same over pages that a printer takes: tiles that overlap, with marks to lay over each other and a row and column on each.
 * Tiles that hold nothing of any piece are left out.
 */
export async function writeTiledTemplates(
  sheets: readonly CutSheet[],
  faces: Faces,
  { paper, unit }: { paper: keyof typeof PAGES; unit: Unit },
): Promise<Uint8Array> {
  const bar = barFor(unit)
  const pdf = await PDFDocument.create()
  const size = PAGES[paper]
  const parts = sheets.map(mirror).flatMap((sheet) => {
    const all = tilesOf(sheet, size)
    const used = all.filter((tile) => holdsCard(sheet, tile))
    const [rows, columns] = [all.at(-1)!.row + 1, all.at(-1)!.column + 1]
    return used.map((tile) => ({
      sheet,
      tile,
      caption: `${sheet.title}, ${trimmed(sheet, unit)} – row ${tile.row + 1} of ${rows}, column ${tile.column + 1} of ${columns}. Mirrored; print at 100 %. This bar is ${bar.words}`,
    }))
  })
  const type = await Typeface.in(
    pdf,
    faces,
    parts.map(({ caption }) => caption),
  )
  for (const { sheet, tile, caption } of parts) {
    const page = pdf.addPage([size.widthMm * PT_PER_MM, size.heightMm * PT_PER_MM])
    const top = page.getHeight() - MARGIN_MM * PT_PER_MM
    const left = MARGIN_MM * PT_PER_MM
    page.pushOperators(
      pushGraphicsState(),
      box(left, top - tile.h * PT_PER_MM, tile.w * PT_PER_MM, tile.h * PT_PER_MM),
      clip(),
      endPath(),
    )
    drawSheet(page, sheet, { x: left - tile.x * PT_PER_MM, y: top + tile.y * PT_PER_MM })
    page.pushOperators(popGraphicsState())
    for (const [x, y] of joinMarks(tile, sheet))
      page.drawSvgPath(`M${x - ARM_MM} ${y}h${2 * ARM_MM}M${x} ${y - ARM_MM}v${2 * ARM_MM}`, {
        x: left,
        y: top,
        scale: PT_PER_MM,
        borderColor: INK,
        borderWidth: 0.3,
      })
    drawCaption(page, type, { text: caption, bar, at: { x: left, y: MARGIN_MM * PT_PER_MM } })
  }
  return pdf.save()
}

/** Whether something of a piece lies on a tile. */
const holdsCard = (sheet: CutSheet, { x, y, w, h }: Tile): boolean =>
  sheet.pieces.some(({ shape }) => {
    const b = polygonBox(shape)
    return b.minX < x + w && b.maxX > x && b.minY < y + h && b.maxY > y
  })

/** Where marks of neighbouring tiles come over each other: in the middle of each shared strip, at a quarter and three quarters; mm in the tile. */
export function joinMarks(tile: Tile, sheet: Pick<CutSheet, 'widthMm' | 'heightMm'>): [number, number][] {
  const half = OVERLAP_MM / 2
  const quarters = (length: number) => [length / 4, (3 * length) / 4]
  return [
    ...(tile.x > 0 ? quarters(tile.h).map((y): [number, number] => [half, y]) : []),
    ...(tile.x + tile.w < sheet.widthMm - 1e-6
      ? quarters(tile.h).map((y): [number, number] => [tile.w - half, y])
      : []),
    ...(tile.y > 0 ? quarters(tile.w).map((x): [number, number] => [x, half]) : []),
    ...(tile.y + tile.h < sheet.heightMm - 1e-6
      ? quarters(tile.w).map((x): [number, number] => [x, tile.h - half])
      : []),
  ]
}
