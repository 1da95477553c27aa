import { DxfWriter, LWPolylineFlags, point2d, Units } from '@tarikjabiri/dxf'
import { cuttingRings, type CutSheet } from './cut-sheet'

const MARK_COLOUR = 8
const COLOURS = { slit: 7, fold: 5, number: 8, place: 9 }

/** A sheet as DXF in mm: closed polylines on a DXF layer per folio; folds and marks open, on layers of their own; y up, as DXF has it. */
export function writeDxf(sheet: CutSheet): string {
  const dxf = new DxfWriter()
  dxf.setUnits(Units.Millimeters)
  const known = new Set<string>()
  const add = (
    { layerName, colour }: { layerName: string; colour: number },
    line: Float64Array,
    flags: LWPolylineFlags,
  ) => {
    if (!known.has(layerName)) dxf.addLayer(layerName, colour, 'Continuous')
    known.add(layerName)
    const vertices = Array.from({ length: line.length / 2 }, (_, i) => ({
      point: point2d(line[i * 2]!, sheet.heightMm - line[i * 2 + 1]!),
    }))
    dxf.addLWPolyline(vertices, { flags, layerName })
  }
  const colours = [...new Set(sheet.pieces.map((piece) => piece.folio))]
  for (const { folio, shape, lines } of sheet.pieces) {
    for (const { kind, line } of lines)
      add(
        { layerName: `FOLIO_${folio}_${kind.toUpperCase()}`, colour: COLOURS[kind] },
        line,
        LWPolylineFlags.None,
      )
    for (const ring of cuttingRings(shape))
      add(
        { layerName: `FOLIO_${folio}`, colour: 1 + (colours.indexOf(folio) % 6) },
        ring,
        LWPolylineFlags.Closed,
      )
  }
  for (const mark of sheet.marks ?? [])
    add({ layerName: 'PRINT_MARKS', colour: MARK_COLOUR }, mark, LWPolylineFlags.None)
  return dxf.stringify()
}
