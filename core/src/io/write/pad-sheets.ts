// PDFs of pads at true size, as the piece lies on the bench: from behind, left and right exchanged, a page a layer.
import { PDFDocument, rgb } from '@cantoo/pdf-lib'
import { boxHeight, boxWidth, regionBox, regionRings, type Region, type Ring } from '../../base/geometry'
import { lineToPath } from './cut-sheet'
import type { Unit } from '../../base/units'
import { barFor, drawFoot, PT_PER_MM, TRUE_SIZE } from './pdf-parts'
import { INK, Typeface, type Faces } from './typeface'

/** A layer with its pads, in one frame: mm, y down, seen from the front. */
export interface PadSheet {
  title: string
  card: Region
  pads: readonly {
    x: number
    y: number
    /** Its outline as seen from the front. */
    outline: Ring
    /** What is written on it. */
    label: string
  }[]
  /** Glue: where it may go, and dots and beads of it; null where nothing of the layer is glued. */
  glue: GlueOnSheet | null
}

/** Glue as it is drawn, mm in the layer's frame. */
export interface GlueOnSheet {
  zone: Region
  coat: Region
  dots: readonly (readonly [number, number])[]
  dotMm: number
  beads: readonly Ring[]
  beadMm: number
}

const { marginMm: MARGIN_MM, captionMm: CAPTION_MM } = TRUE_SIZE
const GREY = rgb(0.6, 0.6, 0.58)
const PALE = rgb(0.93, 0.92, 0.89)

/** One page a layer, each as large as its layer asks for. */
export async function writePadSheets(
  sheets: readonly PadSheet[],
  faces: Faces,
  unit: Unit,
): Promise<Uint8Array> {
  const bar = barFor(unit)
  const pdf = await PDFDocument.create()
  const captions = sheets.map(
    ({ title, pads, glue }) => `${title}: ${[...(pads.length > 0 ? [`${pads.length} ${pads.length === 1 ? 'pad' : 'pads'}`] : []), ...(glue ? ['glue within the dashes'] : [])].join(', ')}, from behind, at true size. Bar ${bar.words}`, // prettier-ignore
  )
  const type = await Typeface.in(pdf, faces, [
    ...captions,
    ...sheets.flatMap(({ pads }) => pads.map(({ label }) => label)),
  ])
  sheets.forEach(({ card, pads, glue }, i) => {
    const b = regionBox(card)
    const wide = Math.max(boxWidth(b) + 2 * MARGIN_MM, bar.mm + 2 * MARGIN_MM)
    const high = boxHeight(b) + 2 * MARGIN_MM + CAPTION_MM
    const page = pdf.addPage([wide * PT_PER_MM, high * PT_PER_MM])
    const at = { x: 0, y: page.getHeight(), scale: PT_PER_MM }
    /** From behind: the right edge comes first. */
    const behind = (x: number) => MARGIN_MM + b.maxX - x
    const down = (y: number) => MARGIN_MM + y - b.minY
    const turned = (ring: Float64Array) => ring.map((v, k) => (k % 2 === 0 ? behind(v) : down(v)))
    const pathOf = (rings: readonly Ring[]) => rings.map((ring) => `${lineToPath(turned(ring))}Z`).join('')
    page.drawSvgPath(pathOf(regionRings(card)), { ...at, borderColor: INK, borderWidth: 0.2 })
    if (glue) {
      if (glue.coat.length > 0) page.drawSvgPath(pathOf(regionRings(glue.coat)), { ...at, color: PALE })
      page.drawSvgPath(pathOf(regionRings(glue.zone)), { ...at, borderColor: INK, borderWidth: 0.15, borderDashArray: [1, 1] }) // prettier-ignore
      for (const bead of glue.beads)
        page.drawSvgPath(pathOf([bead]), { ...at, borderColor: GREY, borderWidth: glue.beadMm })
      for (const [x, y] of glue.dots)
        page.drawCircle({
          x: behind(x) * PT_PER_MM,
          y: page.getHeight() - down(y) * PT_PER_MM,
          size: (glue.dotMm / 2) * PT_PER_MM,
          color: GREY,
        })
    }
    for (const pad of pads) {
      page.drawSvgPath(pathOf([pad.outline]), { ...at, color: PALE, borderColor: INK, borderWidth: 0.2 })
      const size = 5
      type.draw(page, pad.label, {
        x: behind(pad.x) * PT_PER_MM - type.width(pad.label, size) / 2,
        y: page.getHeight() - down(pad.y) * PT_PER_MM - size / 3,
        size,
      })
    }
    drawFoot(page, type, { caption: captions[i]!, bar })
  })
  return pdf.save()
}
