// A backing sheet held on fabric by pins: where a layer above hides their heads and leaves them room. Lengths in mm.
import {
  boxHeight,
  boxWidth,
  intersect,
  offset,
  regionBox,
  regionContains,
  subtract,
  union,
  type Region,
} from '../../base/geometry'
import { fresh, type Memo } from '../../base'
import { length, say } from '../../base/units'
import { builtLayers, isOnPane, isStandOff, type Layer, type Project, type Snag } from '../../project'
import type { PieceHeight } from './heights'
import { hiddenBelow } from './pads/hiding'

/** A flat head: how high it stands over the sheet, and how wide it is. */
export const PIN_HEAD_MM = { high: 1, across: 3 }
/** A pin keeps so far from the edge of the sheet, or it tears out. */
const EDGE_MM = 4
/** No place of the sheet is to be farther from a pin. */
const SPAN_MM = 110
/** Told where a place is farther by this factor. */
const FAR = 1.5
/** A sheet that is smaller both ways is held by two. */
const SMALL_MM = 60
const MOST = 16
/** So many places along the longer side are tried. */
const TRIED = 72
/** Pins closer than this hold no more than one. */
const APART_MM = 12

/** The pins of a backing sheet. */
export interface Pins {
  layerId: string
  /** Where they go in, in the project's frame. */
  at: [number, number][]
  /** The farthest that any place of the sheet is from one; Infinity without any. */
  farthestMm: number
  farthestAt: [number, number] | null
}

/** Whether a work stands on fabric that its backmost sheet may be pinned to. */
export const mayBePinned = (project: Project, layerId: string): boolean =>
  project.mount.kind === 'frame' && project.mount.back === 'fabric' && backmost(project)?.id === layerId

const backmost = (project: Project): Layer | undefined =>
  builtLayers(project).find(
    (layer) => !isOnPane(layer) && !isStandOff(layer) && layer.role !== 'cover' && layer.joint.kind !== 'tab',
  )

/**
 * Where the backmost sheet is pinned: the fewest pins, greedily, that leave no place of it farther than the span, at places that
 * layers above hide from every angle asked and stand high enough over. Null where it is not pinned. Needs the geometry loaded.
 * @param pieces all pieces where they come to lie
 */
export function pinsOf(project: Project, pieces: readonly PieceHeight[], memo: Memo = fresh): Pins | null {
  const layer = backmost(project)
  if (!layer || layer.joint.kind !== 'pins' || !mayBePinned(project, layer.id)) return null
  const own = pieces.filter((piece) => piece.layer.id === layer.id)
  const card = own.flatMap(({ region }) => region)
  if (card.length === 0) return null
  const room = roomForPins(project, { layer, card, pieces, memo })
  return { layerId: layer.id, ...spread(card, room) }
}

/** Where a head is hidden and finds room under what lies over it. */
function roomForPins(
  project: Project,
  given: { layer: Layer; card: Region; pieces: readonly PieceHeight[]; memo: Memo },
): Region {
  const { layer, card, pieces, memo } = given
  const topMm = Math.max(...pieces.filter((p) => p.layer.id === layer.id).map((p) => p.topMm))
  const low = pieces.filter(
    (piece) =>
      piece.layer.id !== layer.id && !isOnPane(piece.layer) && piece.bottomMm - topMm < PIN_HEAD_MM.high,
  )
  // A head is as good as a pad on a sheet that hides nothing of itself: seen from above.
  const hidden = hiddenBelow(project, layer.id, { through: 1, memo })
  const inner = offset(card, -EDGE_MM)
  const room = intersect(inner, offset(hidden, -PIN_HEAD_MM.across / 2))
  return low.length === 0
    ? room
    : subtract(room, offset(union(low.flatMap(({ region }) => region)), PIN_HEAD_MM.across / 2))
}

/** Pins near the corners first, then where the sheet is farthest from one. */
function spread(card: Region, room: Region): Pick<Pins, 'at' | 'farthestMm' | 'farthestAt'> {
  const box = regionBox(card)
  const step = Math.max(1, Math.max(boxWidth(box), boxHeight(box)) / TRIED)
  const points: [number, number][] = []
  for (let y = box.minY + step / 2; y < box.maxY; y += step)
    for (let x = box.minX + step / 2; x < box.maxX; x += step) points.push([x, y])
  const places = points.filter(([x, y]) => regionContains(room, x, y))
  const ofCard = points.filter(([x, y]) => regionContains(card, x, y))
  const at: [number, number][] = []
  const away = ([x, y]: readonly [number, number]) =>
    at.reduce((least, [px, py]) => Math.min(least, Math.hypot(px - x, py - y)), Infinity)
  const nearest = (x: number, y: number) =>
    places.reduce<[number, number] | null>(
      (best, place) =>
        !best || Math.hypot(place[0] - x, place[1] - y) < Math.hypot(best[0] - x, best[1] - y) ? place : best,
      null,
    )
  const put = (place: [number, number] | null) => {
    if (!place || away(place) < APART_MM) return false
    at.push(place)
    return true
  }
  const small = Math.max(boxWidth(box), boxHeight(box)) < SMALL_MM
  const corners: [number, number][] = small
    ? [
        [box.minX, box.minY],
        [box.maxX, box.maxY],
      ]
    : [
        [box.minX, box.minY],
        [box.maxX, box.maxY],
        [box.maxX, box.minY],
        [box.minX, box.maxY],
      ]
  for (const [x, y] of corners) put(nearest(x, y))
  const farthest = () =>
    ofCard.reduce<{ mm: number; at: [number, number] | null }>(
      (most, point) => (away(point) > most.mm ? { mm: away(point), at: point } : most),
      { mm: 0, at: null },
    )
  let far = farthest()
  while (at.length > 0 && at.length < MOST && far.mm > SPAN_MM) {
    if (!put(nearest(...far.at!))) break
    const next = farthest()
    if (next.mm > far.mm - 1e-9) break
    far = next
  }
  return { at, farthestMm: at.length > 0 ? far.mm : Infinity, farthestAt: far.at }
}

/** Findings about pins. */
export function pinSnags(project: Project, pins: Pins | null): Snag[] {
  const about = { stage: 'depth', severity: 'caution', at: null } as const
  const glueIt = (layerId: string) => ({
    label: 'Glue it',
    action: { kind: 'set-joint' as const, layerId, joint: 'glue' as const, gapMm: 0 },
  })
  const snags = builtLayers(project)
    .filter((layer) => layer.joint.kind === 'pins' && !mayBePinned(project, layer.id))
    .map((layer): Snag => ({
      ...about,
      severity: 'stop',
      code: 'pins-nowhere',
      layer: layer.id,
      message: `“${layer.name}” is held by pins, and pins hold the backmost sheet on a back of fabric only.`,
      mend: glueIt(layer.id),
    }))
  if (!pins) return snags
  const name = project.layers.find(({ id }) => id === pins.layerId)?.name ?? pins.layerId
  if (pins.at.length < 2)
    snags.push({
      ...about,
      code: 'pins-show',
      layer: pins.layerId,
      message: say`Nothing over “${name}” hides the heads of ${pins.at.length === 0 ? 'pins' : 'a second pin'} and leaves them ${length(PIN_HEAD_MM.high)} of room.`,
      mend: glueIt(pins.layerId),
    })
  else if (pins.farthestMm > SPAN_MM * FAR)
    snags.push({
      ...about,
      code: 'pins-far',
      layer: pins.layerId,
      at: pins.farthestAt,
      message: say`“${name}” reaches ${length(pins.farthestMm, 0)} past its nearest pin: layers above hide none nearer, and the sheet may come off the fabric there.`,
      mend: glueIt(pins.layerId),
    })
  return snags
}
