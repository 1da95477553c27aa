import { DxfWriter, LWPolylineFlags, point2d, Units } from '@tarikjabiri/dxf'
import { cuttingRings, type CutSheet } from './cut-sheet'

/** A sheet as DXF in mm, closed polylines, one DXF layer per folio; y up, as DXF has it. */
export function writeDxf(sheet: CutSheet): string {
  const dxf = new DxfWriter()
  dxf.setUnits(Units.Millimeters)
  const known = new Set<string>()
  for (const piece of sheet.pieces) {
    const layerName = `FOLIO_${piece.folio}`
    if (!known.has(layerName)) dxf.addLayer(layerName, 1 + ((piece.folio - 1) % 6), 'Continuous')
    known.add(layerName)
    for (const ring of cuttingRings(piece.shape)) {
      const vertices = Array.from({ length: ring.length / 2 }, (_, i) => ({ point: point2d(ring[i * 2]!, sheet.heightMm - ring[i * 2 + 1]!) }))
      dxf.addLWPolyline(vertices, { flags: LWPolylineFlags.Closed, layerName })
    }
  }
  return dxf.stringify()
}
