import { cuttingRings, type CutSheet } from './cut-sheet'

/** Plotter units per mm. */
const UNITS_PER_MM = 40

/** A sheet as plot text: pen 1 is the blade; y up from the lower left corner, 40 units a mm. */
export function writeHpgl(sheet: CutSheet): string {
  const at = (x: number, y: number) => `${Math.round(x * UNITS_PER_MM)},${Math.round((sheet.heightMm - y) * UNITS_PER_MM)}`
  const lines = ['IN;', 'SP1;']
  for (const piece of sheet.pieces)
    for (const ring of cuttingRings(piece.shape)) {
      const points: string[] = []
      for (let i = 2; i < ring.length; i += 2) points.push(at(ring[i]!, ring[i + 1]!))
      const start = at(ring[0]!, ring[1]!)
      lines.push(`PU${start};PD${[...points, start].join(',')};`)
    }
  lines.push('PU0,0;', 'SP0;')
  return lines.join('\n') + '\n'
}
