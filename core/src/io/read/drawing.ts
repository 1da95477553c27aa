import { readDxf } from './dxf/read'
import { decodeXml } from './svg/document'
import type { Drawing, ReadOptions } from './svg/drawing'
import { readSvg } from './svg/read'

/** Reads a drawing by its name's ending: DXF, else SVG. Throws BadInput. Needs the geometry loaded. */
export function readDrawing(name: string, bytes: Uint8Array, options: ReadOptions = {}): Drawing {
  return /\.dxf$/i.test(name) ? readDxf(decodeXml(bytes)) : readSvg(bytes, options)
}
