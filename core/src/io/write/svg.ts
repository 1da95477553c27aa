import { groupBy } from '../../base'
import { ringToPath } from '../../base/geometry'
import { cuttingRings, lineToPath, num, type CutSheet } from './cut-sheet'

const escape = (text: string): string => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`)

const PAINT = {
  slit: 'fill="none" stroke="#000000" stroke-width="0.1"',
  fold: 'fill="none" stroke="#1560b8" stroke-width="0.1" stroke-dasharray="2 1"',
  number: 'fill="none" stroke="#6b2d73" stroke-width="0.1"',
  place: 'fill="none" stroke="#6b2d73" stroke-width="0.1"',
  mark: 'fill="none" stroke="#8a8a8a" stroke-width="0.1"',
}

/**
 * A sheet as SVG in true mm: a group per layer with a path per piece, cut lines only; folds, numbers and crosses in
 * groups of their own before it, marks of the print last. `fill` paints pieces instead, for pictures.
 */
export function writeSvg(sheet: CutSheet, fill?: { piece: string; sheet: string }): string {
  const { widthMm, heightMm } = sheet
  const paint = fill
    ? `fill="${fill.piece}" stroke="#1e2126" stroke-width="0.4"`
    : 'fill="none" stroke="#000000" stroke-width="0.1"'
  const groups = [...groupBy(sheet.pieces, (piece) => piece.folio)].map(([folio, pieces]) => {
    const name = escape(pieces[0]!.layerName)
    const paths = pieces.map(
      (piece) => `    <path fill-rule="evenodd" d="${cuttingRings(piece.shape).map(ringToPath).join('')}"/>`,
    )
    const cut = `  <g id="layer-${folio}" data-name="${name}" ${paint}>\n${paths.join('\n')}\n  </g>`
    const marks = [
      ...groupBy(
        pieces.flatMap((piece) => piece.lines),
        (line) => line.kind,
      ),
    ].map(
      ([kind, lines]) =>
        `  <g id="${kind}-${folio}" ${PAINT[kind]}>\n${lines.map(({ line }) => `    <path d="${lineToPath(line)}"/>`).join('\n')}\n  </g>`,
    )
    return (fill ? [cut, ...marks] : [...marks, cut]).join('\n')
  })
  const marks = sheet.marks?.length
    ? [
        `  <g id="print-marks" ${PAINT.mark}>\n${sheet.marks.map((line) => `    <path d="${lineToPath(line)}"/>`).join('\n')}\n  </g>`,
      ]
    : []
  const back = fill
    ? `  <rect width="${num(widthMm)}" height="${num(heightMm)}" fill="${fill.sheet}"/>\n`
    : ''
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="${num(widthMm)}mm" height="${num(heightMm)}mm" viewBox="0 0 ${num(widthMm)} ${num(heightMm)}">
  <title>${escape(sheet.title)}</title>
${back}${[...groups, ...marks].join('\n')}
</svg>
`
}
