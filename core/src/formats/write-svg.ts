import { groupBy } from '../project'
import { ringToPath } from '../geometry'
import { cuttingRings, num, type CutSheet } from './cut-sheet'

const escape = (text: string): string => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`)

/** A sheet as SVG in true mm: a group per layer, a path per piece, cut lines only. `fill` paints pieces instead, for pictures. */
export function writeSvg(sheet: CutSheet, fill?: { piece: string; sheet: string }): string {
  const { widthMm, heightMm } = sheet
  const paint = fill ? `fill="${fill.piece}" stroke="#1e2126" stroke-width="0.4"` : 'fill="none" stroke="#000000" stroke-width="0.1"'
  const groups = [...groupBy(sheet.pieces, (piece) => piece.folio)].map(([folio, pieces]) => {
    const paths = pieces.map((piece) => `    <path fill-rule="evenodd" d="${cuttingRings(piece.shape).map(ringToPath).join('')}"/>`)
    return `  <g id="layer-${folio}" data-name="${escape(pieces[0]!.layerName)}" ${paint}>\n${paths.join('\n')}\n  </g>`
  })
  const back = fill ? `  <rect width="${num(widthMm)}" height="${num(heightMm)}" fill="${fill.sheet}"/>\n` : ''
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="${num(widthMm)}mm" height="${num(heightMm)}mm" viewBox="0 0 ${num(widthMm)} ${num(heightMm)}">
  <title>${escape(sheet.title)}</title>
${back}${groups.join('\n')}
</svg>
`
}
