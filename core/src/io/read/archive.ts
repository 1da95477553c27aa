// Zip files as drawings are handed on in: each drawing often in several formats, beside pictures of it and terms of use.
import { unzipSync } from 'fflate'
import { BadInput, groupBy } from '../../base'

/** A file of an archive. */
export interface PackedFile {
  name: string
  /** Folders and all, as the archive has it. */
  path: string
  bytes: Uint8Array
}

/** What one file, and all that are unpacked, may come to, bytes. */
const MOST_BYTES = 80_000_000
const MOST_BYTES_IN_ALL = 300_000_000

const DRAWING = /\.(svgz?|dxf)$/i
/** What some systems lay beside the files themselves. */
const BESIDE = /(^|\/)(__MACOSX\/|\.)/

/** The last part of a path. */
const fileName = (path: string): string => path.slice(path.lastIndexOf('/') + 1)

const stemOf = (path: string): string => fileName(path).replace(DRAWING, '').toLowerCase()

/**
 * The drawings (SVG, SVGZ, DXF) of a zip, in the order of their numbers. Of one that is in it as SVG and as DXF the SVG alone, which
 * knows of colours and of its page. Throws BadInput with one sentence where it is damaged or holds none.
 */
export function drawingsIn(zip: Uint8Array): PackedFile[] {
  const others = new Set<string>()
  let inAll = 0
  const files = readZip(zip, ({ name, originalSize }) => {
    if (name.endsWith('/') || BESIDE.test(name)) return false
    if (!DRAWING.test(name)) {
      const kind = /\.([a-z0-9]{1,5})$/i.exec(name)?.[1]
      if (kind) others.add(kind.toUpperCase())
      return false
    }
    inAll += originalSize
    if (originalSize > MOST_BYTES || inAll > MOST_BYTES_IN_ALL)
      throw new BadInput('unpacked it is too large: bring in its drawings by themselves')
    return true
  })
  const drawings = Object.entries(files).map(([path, bytes]): PackedFile => ({
    name: fileName(path),
    path,
    bytes,
  }))
  if (drawings.length === 0) throw new BadInput(`it holds no drawing (SVG or DXF)${instead(others)}`)
  const byStem = groupBy(drawings, ({ path }) => stemOf(path))
  const isDxf = ({ path }: PackedFile) => /\.dxf$/i.test(path)
  return drawings
    .filter((one) => !isDxf(one) || byStem.get(stemOf(one.path))!.every(isDxf))
    .sort((a, b) => a.path.localeCompare(b.path, undefined, { numeric: true }))
}

function readZip(
  zip: Uint8Array,
  filter: (file: { name: string; originalSize: number }) => boolean,
): Record<string, Uint8Array> {
  try {
    return unzipSync(zip, { filter })
  } catch (error) {
    if (error instanceof BadInput) throw error
    throw new BadInput('the zip is damaged, or locked')
  }
}

function instead(kinds: ReadonlySet<string>): string {
  const list = [...kinds].sort()
  if (list.length === 0) return ''
  const named = list.length > 1 ? `${list.slice(0, -1).join(', ')} and ${list.at(-1)!}` : list[0]!
  return `, only ${named} files`
}
