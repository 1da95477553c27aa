import { readDxf } from './dxf/read'
import { decodeXml } from './svg/document'
import { readSvg, type Drawing, type ReadOptions } from './svg/read'

/** Reads a drawing by its name's ending: DXF, else SVG. Throws BadInput. Needs the geometry loaded. */
export function readDrawing(name: string, bytes: Uint8Array, options: ReadOptions = {}): Drawing {
  return /\.dxf$/i.test(name) ? readDxf(decodeXml(bytes)) : readSvg(bytes, options)
}
