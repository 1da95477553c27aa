// Where a layer is coloured by hand: what shows of it and a little further, a darker edge, and dots that say how far. Lengths in mm.
import { intersect, offset, polygonRings, regionContains, subtract, type Region } from '../../base/geometry'
import { layerRegion, type Layer } from '../../project'

/** Where the inks go on one layer, seen from the front. */
export interface Colouring {
  layerId: string
  /** What shows, and the bleed round it as far as there is card. */
  wash: Region
  /** Along the edges of the card, as far as they are within the wash; empty without a second ink. */
  edge: Region
  /** On the card where the wash ends and other layers hide it: so far colour. */
  dots: [number, number][]
}

/** From dot to dot, mm. */
const DOTS_EVERY_MM = 6
/** Dots keep so far from what shows, so that none is ever seen. */
const CLEAR_MM = 0.5

/**
 * The guide of a layer; null where it is not coloured by hand. Needs the geometry loaded.
 * @param shown what of it is seen from straight ahead
 */
export function colouringOf(layer: Pick<Layer, 'id' | 'pieces' | 'tint'>, shown: Region): Colouring | null {
  const { tint } = layer
  if (!tint) return null
  const card = layerRegion(layer)
  const wash = intersect(offset(shown, tint.bleedMm), card)
  const edge =
    tint.edgeInkId !== null && tint.edgeMm > 0
      ? intersect(subtract(card, offset(card, -tint.edgeMm)), wash)
      : []
  const hidden = offset(shown, CLEAR_MM)
  const inside = offset(card, -CLEAR_MM)
  const dots: [number, number][] = []
  for (const ring of wash.flatMap(polygonRings)) {
    /** How far along the ring it is, and where the next dot is due. */
    let gone = 0
    let due = DOTS_EVERY_MM / 2
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!]
      const long = Math.hypot(bx - ax, by - ay)
      for (; due <= gone + long; due += DOTS_EVERY_MM) {
        const t = (due - gone) / long
        const [x, y] = [ax + (bx - ax) * t, ay + (by - ay) * t]
        if (regionContains(inside, x, y) && !regionContains(hidden, x, y)) dots.push([x, y])
      }
      gone += long
    }
  }
  return { layerId: layer.id, wash, edge, dots }
}
