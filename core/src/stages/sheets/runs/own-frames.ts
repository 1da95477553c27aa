// Layouts as they are found and kept: each part in a frame of its own, so that moving layers in the picture moves nothing on the sheets.
import { fingerprint, type Memo } from '../../../base'
import {
  mapPolygon,
  mapPoint,
  polygonBox,
  polygonToPath,
  rotation,
  translation,
} from '../../../base/geometry'
import type { Point, Polygon } from '../../../base/geometry'
import type { NestInstance, NestLayout, NestPiece, Placement } from '../nest/instance'

/** A shape in a frame of its own, which begins at the least corner of its box. */
interface Framed {
  shape: Polygon
  /** Names its outline. */
  name: string
}

// What moving leaves of rounding is some 1e-13 mm: shapes and places come out the same to the last bit.
const toMillionth = (v: number): number => Math.round(v * 1e6) / 1e6
const toBillionth = (v: number): number => Math.round(v * 1e9) / 1e9

const originOf = (shape: Polygon): Point => {
  const { minX, minY } = polygonBox(shape)
  return { x: minX, y: minY }
}

const framedOf = (shape: Polygon, memo: Memo): Framed =>
  memo('own frame', [shape], () => {
    const { x, y } = originOf(shape)
    const { outer, holes } = mapPolygon(translation(-x, -y), shape)
    const round = (ring: Polygon['outer']) => ring.map(toMillionth)
    const there = { outer: round(outer), holes: holes.map(round) }
    return { shape: there, name: fingerprint(polygonToPath(there)) }
  })

/** Names the outline of a part, wherever it lies in the picture. */
export const outlineName = ({ shape }: Pick<NestPiece, 'shape'>, memo: Memo): string =>
  framedOf(shape, memo).name

/** What is to be laid, each part in its own frame: the same, wherever layers lie in the picture. */
export const inOwnFrames = <T extends Pick<NestInstance, 'pieces' | 'pinned'>>(
  instance: T,
  memo: Memo,
): T => ({
  ...instance,
  pieces: instance.pieces.map((piece) => ({ ...piece, shape: framedOf(piece.shape, memo).shape })),
  ...(instance.pinned ? { pinned: placed(instance, instance.pinned, 1) } : {}),
})

/** A layout of parts in their own frames, of one in the project's. */
export const layoutInOwnFrames = (instance: NestInstance, layout: NestLayout): NestLayout => ({
  ...layout,
  placements: placed(instance, layout.placements, 1),
})

/** A layout in the project's frame, of one of parts in their own. */
export const layoutInPicture = (instance: NestInstance, layout: NestLayout): NestLayout => ({
  ...layout,
  placements: placesInPicture(instance, layout.placements),
})

/** Places in the project's frame, of those of parts in their own. */
export const placesInPicture = (instance: NestInstance, places: readonly Placement[]): Placement[] =>
  placed(instance, places, -1)

/** Places of parts seen from another frame. @param sign 1 from the project's frame to their own, −1 back */
function placed(
  { pieces }: Pick<NestInstance, 'pieces'>,
  places: readonly Placement[],
  sign: 1 | -1,
): Placement[] {
  const origins = new Map(pieces.map(({ id, shape }) => [id, originOf(shape)]))
  return places.map((place) => {
    const origin = origins.get(place.id)
    if (!origin) return place
    const [dx, dy] = mapPoint(rotation(place.rotation), origin.x, origin.y)
    return { ...place, x: toBillionth(place.x + sign * dx), y: toBillionth(place.y + sign * dy) }
  })
}
