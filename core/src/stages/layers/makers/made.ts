import type { Box, Point, Polygon, Region } from '../../../base/geometry'
import { polygonArea } from '../../../base/geometry'
import type { Said } from '../../../base/units'
import type { Layer } from '../../../project'

/** What a maker gives: layers back to front, figures worth knowing, and what was not possible, in sentences. */
export interface Made {
  layers: Layer[]
  figures: { name: Said; value: Said; basis?: Said }[]
  remarks: Said[]
  /** Where sticks go: the middle of each and its upper end, mm in the frame of the layers. */
  sticks?: { x: number; topMm: number; widthMm: number }[]
  /** Letters that can be set by themselves: of which line, which of it, its sign and where it stands. */
  letters?: { line: number; at: number; sign: string; box: Box }[]
  /** Strips that tie pieces, and small spots that were kept, to be looked at. */
  ties?: { from: Point; to: Point }[]
  spots?: Point[]
  /** How many of each grey (0 to 255) a picture has. */
  greys?: number[]
  /** They are one part, of this name. */
  part?: string
  /** Layers lie where they belong in the frame, and are not brought to its middle. */
  inPlace?: true
  /** Size of the whole, mm. */
  widthMm: number
  heightMm: number
}

/** Drops faces smaller than an area and closes holes smaller than it (mm²). */
export const withoutSpecks = (region: Region, mm2: number): Polygon[] =>
  region
    .filter((face) => polygonArea({ outer: face.outer, holes: [] }) >= mm2)
    .map((face) => ({
      outer: face.outer,
      holes: face.holes.filter((hole) => -polygonArea({ outer: hole, holes: [] }) >= mm2),
    }))

/** A joint on foam of a height (mm), glued at 0. */
export const joint = (gapMm: number): { joint: Layer['joint'] } => ({
  joint: { kind: gapMm > 0 ? 'foam' : 'glue', gapMm, pinned: false },
})
