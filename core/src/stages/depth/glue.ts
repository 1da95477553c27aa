// Where glue may go and how much of it: where card lies right under a piece, a rim away from every edge, clear of folds; in dots,
// beads or a thin coat by the size of the part. Lengths in mm.
import polylabel from 'polylabel'
import {
  intersect,
  offset,
  polygonArea,
  polygonBox,
  polygonContains,
  polygonRings,
  regionArea,
  regionPerimeter,
  regionRings,
  simplify,
  strokeRegion,
  subtract,
  boxHeight,
  boxWidth,
  type Polygon,
  type Region,
  type Ring,
} from '../../base/geometry'
import { fresh, type Memo } from '../../base'
import {
  ASSUMED_PAPER,
  foamUnder,
  glueOf,
  paperOf,
  type Adhesive,
  type Layer,
  type Project,
  type Spread,
} from '../../project'
import type { PieceHeight } from './heights'
import type { Concealed } from './pads/places'

/** Glue keeps so far from edges, less where a part is too narrow for it. */
const RIMS_MM = [2, 1, 0.4]
/** It keeps as far from a fold on either side. */
const FOLD_CLEAR_MM = 2
/** Where both halves of a piece rise it is held along the fold, in a strip so wide. */
const ALONG_FOLD_MM = 4
/** What is this near beneath is touched by the glue. */
const TOUCHES_MM = 0.35
/** Parts up to so many mm across take dots, up to so many beads, larger ones a thin coat. */
const DOTS_TO_MM = 20
const BEADS_TO_MM = 70
/** A bead along both edges wants a part so wide. */
const BEAD_WIDE_MM = 6
/** From dot to dot, and from bead to bead. */
const DOTS_EVERY_MM = 10
const BEADS_EVERY_MM = 14
/** Half a ball; half a round bar; a coat drawn out with a brush. */
const DOT_MM = 2
const BEAD_MM = 1.2
const COAT_MM = 0.06
/** Smaller shreds of a zone are not worth a dot (mm²). */
const SHRED_MM2 = 0.5

/** The glue under one layer. */
export interface LayerGlue {
  layerId: string
  /** Where glue may go. */
  zone: Region
  /** Middles of dots of `dotMm` across. */
  dots: [number, number][]
  dotMm: number
  /** Closed lines of beads of `beadMm` wide. */
  beads: Ring[]
  beadMm: number
  beadLengthMm: number
  coat: Region
  coatMm2: number
  /** All of it, for one of the batch and every copy of the layer. */
  ml: number
  /** The same by the glue that it is, the layer's first; null where the project names none. */
  mlOf: { adhesiveId: string | null; ml: number }[]
  /** Pieces of which no part can take glue: they touch nothing. */
  bare: string[]
}

/** What the glue of a layer comes to: the figures alone. */
export type GlueAmount = Pick<
  LayerGlue,
  'layerId' | 'dotMm' | 'beadMm' | 'beadLengthMm' | 'coatMm2' | 'ml' | 'mlOf'
> & {
  dots: number
}

/** The figures of a layer's glue. */
export const amountOf = (glue: LayerGlue): GlueAmount => {
  const { layerId, dots, dotMm, beadMm, beadLengthMm, coatMm2, ml, mlOf } = glue
  return { layerId, dots: dots.length, dotMm, beadMm, beadLengthMm, coatMm2, ml, mlOf }
}

/**
 * Glue under the pieces of a layer that are glued: by choice, or because no pad fits; null where none is.
 * @param pieces where they come to lie
 * @param noPad ids of those of a padded layer that are glued
 * @param hidden of a clear sheet: where its glue is not seen, since something lies over it; null where it is seen nowhere
 */
export function glueUnder(
  project: Project,
  layer: Layer,
  {
    pieces,
    noPad,
    hidden = null,
    memo = fresh,
  }: {
    pieces: readonly PieceHeight[]
    noPad: readonly string[]
    hidden?: Region | null
    memo?: Memo
  },
): LayerGlue | null {
  const isGlued = ({ pieceId }: PieceHeight) =>
    noPad.includes(pieceId) || (layer.joint.kind === 'glue' && foamUnder(layer, pieceId) === 0)
  const own = pieces.filter(isGlued)
  const laid = own.map((piece) => ({ piece, spread: spreadUnder(project, { piece, hidden }, memo) }))
  const all = laid.flatMap(({ spread }) => spread ?? [])
  // The first layer lies on nothing: it is what others are stuck to.
  const bare = laid.flatMap(({ piece, spread }) =>
    spread === null && (piece.supports.length > 0 || piece.floats) ? [piece.pieceId] : [],
  )
  if (all.length + bare.length === 0) return null
  const beads = all.flatMap((one) => one.beads)
  const coat = all.flatMap((one) => one.coat)
  /** ml of each glue, the layer's own first. */
  const mlOf = new Map<string | null, number>([[glueOf(project, layer)?.id ?? null, 0]])
  for (const { piece, spread } of laid) {
    if (!spread) continue
    const used = glueOf(project, layer, piece.pieceId)?.id ?? null
    mlOf.set(used, (mlOf.get(used) ?? 0) + (layer.copies * volumeOf(spread)) / 1000)
  }
  return {
    layerId: layer.id,
    zone: all.flatMap((one) => one.zone),
    dots: all.flatMap((one) => one.dots),
    dotMm: DOT_MM,
    beads,
    beadMm: BEAD_MM,
    beadLengthMm: lengthOf(beads),
    coat,
    coatMm2: regionArea(coat),
    ml: [...mlOf.values()].reduce((sum, ml) => sum + ml, 0),
    mlOf: [...mlOf].filter(([, ml]) => ml > 0).map(([adhesiveId, ml]) => ({ adhesiveId, ml })),
    bare,
  }
}

/** Glue as it is spread. */
type Laid = Pick<LayerGlue, 'zone' | 'dots' | 'beads' | 'coat'>

/** How glue goes under one piece where it comes to lie; null where it touches nothing. */
function spreadUnder(project: Project, { piece, hidden }: Concealed, memo: Memo): Laid | null {
  const { layer, pieceId } = piece
  const under = touchedUnder(piece, memo)
  // Glue under a clear sheet is seen: it goes where something lies over it, as far as there is such a place.
  const covered = hidden ? intersect(under, hidden) : under
  const all = covered.length > 0 ? covered : under
  const laid: Laid = { zone: zoneOf(layer, { piece, under: all }, memo), dots: [], beads: [], coat: [] }
  if (laid.zone.length === 0) {
    // Too narrow for a rim: a dot in the middle of what touches.
    const spot = largestOf(all)
    return spot ? { ...laid, dots: [middleOf(spot)] } : null
  }
  const used = glueOf(project, layer, pieceId)
  for (const part of laid.zone)
    spreadOver(laid, part, layer.joint.spread ?? spreadFor(project, used, { layer, part }))
  return laid
}

const lengthOf = (beads: readonly Ring[]): number =>
  beads.reduce((sum, ring) => sum + regionPerimeter([{ outer: ring, holes: [] }]), 0)

/** mm³. */
const volumeOf = ({ dots, beads, coat }: Laid): number =>
  dots.length * (Math.PI / 12) * DOT_MM ** 3 +
  lengthOf(beads) * (Math.PI / 8) * BEAD_MM ** 2 +
  regionArea(coat) * COAT_MM

/** Card right under a piece that its body touches. */
function touchedUnder(piece: PieceHeight, memo: Memo): Polygon[] {
  const gapMm = Math.min(...piece.supports.map(({ needMm }) => needMm), Infinity)
  const touched = piece.supports.filter(({ needMm }) => needMm <= gapMm + TOUCHES_MM)
  return touched.flatMap(({ region }) =>
    memo('touched', [piece.region, region], () => intersect(piece.region, region)),
  )
}

/** Where glue may go on what a piece touches: drawn in by a rim, clear of its folds. */
function zoneOf(
  layer: Layer,
  { piece, under }: { piece: PieceHeight; under: readonly Polygon[] },
  memo: Memo,
): Polygon[] {
  const isFlat = piece.parts.some(({ region }) => region === piece.region)
  // Where it may go follows from the shapes alone, whatever glue it is.
  return memo('glue zone', [under, isFlat, layer.folds, layer.shaping, layer.blanks.length], () =>
    zoneOn(layer, isFlat, under),
  )
}

function zoneOn(layer: Layer, isFlat: boolean, under: readonly Polygon[]): Polygon[] {
  const folds = layer.folds.map(({ line }) => ({ points: Float64Array.from(line), closed: false }))
  if (!isFlat) return intersect(under, strokeRegion(folds, { widthMm: ALONG_FOLD_MM, cap: 'round' }))
  const scored = layer.shaping.how === 'flat' && layer.blanks.length === 0 ? folds : []
  if (scored.length === 0) return drawnIn(under)
  return drawnIn(subtract(under, strokeRegion(scored, { widthMm: 2 * FOLD_CLEAR_MM, cap: 'round' })))
}

/** A dot needs so much card, mm². */
const LEAST_DOT_MM2 = 0.2

const largestOf = (region: Region): Polygon | null => {
  const best = region.reduce<Polygon | null>(
    (most, face) => (!most || polygonArea(face) > polygonArea(most) ? face : most),
    null,
  )
  return best && polygonArea(best) >= LEAST_DOT_MM2 ? best : null
}

/** A region less its rim; of parts that are too narrow for it a narrower one is left away. */
function drawnIn(card: Region): Polygon[] {
  const zone: Polygon[] = []
  let rest: Region = card
  for (const rim of RIMS_MM) {
    if (regionArea(rest) < SHRED_MM2) break
    // The whole card is drawn in, and of that what earlier rims did not reach.
    const inner = intersect(offset(card, -rim), rest)
    const good = inner.filter((part) => polygonArea(part) >= SHRED_MM2)
    if (good.length === 0) continue
    zone.push(...good)
    rest = subtract(rest, offset(good, 2 * rim + 0.2))
  }
  return zone.length > 0 ? simplify(zone, 0.05) : []
}

/** How glue is spread under a part: dots where it would buckle the card. */
function spreadFor(
  project: Project,
  used: Adhesive | undefined,
  { layer, part }: { layer: Layer; part: Polygon },
): Spread {
  const box = polygonBox(part)
  const across = Math.max(boxWidth(box), boxHeight(box))
  // How wide it is all along: narrow strokes take dots however long they are.
  const wide = (2 * polygonArea(part)) / regionPerimeter([part])
  if (across <= DOTS_TO_MM || wide < BEAD_WIDE_MM) return 'dots'
  const buckles = (paperOf(project, layer) ?? ASSUMED_PAPER).gsm < (used?.bucklesBelowGsm ?? 0)
  if (buckles) return 'dots'
  return across <= BEADS_TO_MM ? 'beads' : 'coat'
}

function spreadOver(glue: Laid, part: Polygon, how: Spread): void {
  if (how === 'coat') glue.coat = [...glue.coat, part]
  else if (how === 'dots') glue.dots.push(...dotsIn(part))
  else {
    const beads = beadsIn(part)
    if (beads.length > 0) glue.beads.push(...beads)
    else glue.dots.push(...dotsIn(part))
  }
}

/** The place of a part that is farthest from its edges. */
function middleOf(part: Polygon): [number, number] {
  const rings = polygonRings(part).map((ring) =>
    Array.from({ length: ring.length / 2 }, (_, k): [number, number] => [ring[2 * k]!, ring[2 * k + 1]!]),
  )
  const [x, y] = polylabel(rings, 0.1)
  return [x, y]
}

/** Dots so that no place of a part is farther than a step from one: the first in its middle, then row by row. */
function dotsIn(part: Polygon): [number, number][] {
  const dots: [number, number][] = [middleOf(part)]
  const { minX, minY, maxX, maxY } = polygonBox(part)
  const step = Math.max(1, Math.max(maxX - minX, maxY - minY) / 120)
  const isFar = (px: number, py: number) =>
    dots.every(([dx, dy]) => Math.hypot(px - dx, py - dy) >= DOTS_EVERY_MM)
  for (let py = minY + step / 2; py < maxY; py += step)
    for (let px = minX + step / 2; px < maxX; px += step)
      if (isFar(px, py) && polygonContains(part, px, py)) dots.push([px, py])
  return dots
}

/** Beads along the edge of a part, and one inside the other. */
function beadsIn(part: Polygon): Ring[] {
  const beads: Ring[] = []
  for (let inMm = BEAD_MM / 2; ; inMm += BEADS_EVERY_MM) {
    const rings = regionRings(offset([part], -inMm))
    if (rings.length === 0) return beads
    beads.push(...rings)
  }
}
