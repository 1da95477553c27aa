import { gunzipSync } from 'fflate'
import { BadInput } from '../../base'
import { readDxf } from './dxf/read'
import { decodeXml } from './svg/document'
import type { Drawing, ReadOptions } from './svg/drawing'
import { readSvg } from './svg/read'

/** Packed files that would come to more than this are not unpacked, bytes. */
const MOST_BYTES = 80_000_000

/**
 * Reads a drawing by its name's ending: DXF, else SVG; both may be packed by gzip (SVGZ). Throws BadInput. Needs the
 * geometry loaded.
 */
export function readDrawing(name: string, bytes: Uint8Array, options: ReadOptions = {}): Drawing {
  const plain = isPacked(bytes) ? unpacked(bytes) : bytes
  return /\.dxf(\.gz)?$/i.test(name) ? readDxf(decodeXml(plain), options) : readSvg(plain, options)
}

const isPacked = ([a, b]: Uint8Array): boolean => a === 0x1f && b === 0x8b

function unpacked(bytes: Uint8Array): Uint8Array {
  try {
    // Its last four bytes say how long it is; no more than that is ever written.
    const end = new DataView(bytes.buffer, bytes.byteOffset + bytes.length - 4)
    if (end.getUint32(0, true) > MOST_BYTES) throw new BadInput('the file is larger than 80 MB')
    return gunzipSync(bytes)
  } catch (error) {
    if (error instanceof BadInput) throw error
    throw new BadInput('the file is packed, and breaks off or is damaged')
  }
}
