import type { CutSheet, LineKind } from './cut-sheet'

/** Plotter units per mm. */
const UNITS_PER_MM = 40

/** Pens: the blade, a blunt tool for folds, a pen for numbers and crosses. */
export const PENS: Record<LineKind, number> = { cut: 1, slit: 1, fold: 2, number: 3, place: 3 }

/** A sheet as plot text: y up from the lower left corner, 40 units a mm. Pen 1 is the blade, 2 scores, 3 draws. */
export function writeHpgl(sheet: CutSheet): string {
  const at = (line: Float64Array, i: number) =>
    `${Math.round(line[i]! * UNITS_PER_MM)},${Math.round((sheet.heightMm - line[i + 1]!) * UNITS_PER_MM)}`
  const out = ['IN;']
  let pen = 0
  for (const { kind, line } of sheet.ways) {
    if (PENS[kind] !== pen) out.push(`SP${(pen = PENS[kind])};`)
    const points: string[] = []
    for (let i = 2; i < line.length; i += 2) points.push(at(line, i))
    out.push(`PU${at(line, 0)};PD${points.join(',')};`)
  }
  if (pen === 0) out.push('SP1;')
  out.push('PU0,0;', 'SP0;')
  return out.join('\n') + '\n'
}
