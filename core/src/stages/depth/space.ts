// The stack as it stands in space: each piece in its parts at their heights, what is folded with its hinge, and the pads under it.
import { regionToPath, simplify, type Region } from '../../base/geometry'
import { findLayer, thicknessOf, type Fold, type Layer, type Project } from '../../project'
import type { DepthPlan } from './depth'
import type { PieceHeight } from './heights'
import type { Lie } from './pads/lie'

/** A part of a piece in space. Lengths in mm, heights over the board. */
export interface SpacePart {
  /** Its outline as it lies flat. */
  path: string
  /** Of the flat card that it is part of. */
  bottomMm: number
  thicknessMm: number
  /** How far its farthest point comes to stand over the flat. */
  riseMm: number
  /** It turns about this line; null where it lies flat, or rises all round a middle. */
  hinge: Fold['line'] | null
  /** It rises all round this place, from so far out on. */
  round: { x: number; y: number; fromMm: number } | null
}

/** A piece in space. */
export interface SpacePiece {
  layerId: string
  pieceId: string
  parts: SpacePart[]
}

/** A pad in space. */
export interface SpacePad extends Lie {
  layerId: string
  bottomMm: number
  thicknessMm: number
  isClear: boolean
}

/** All that stands on the board. */
export interface Space {
  pieces: SpacePiece[]
  pads: SpacePad[]
  stackMm: number
}

/** Outlines are as true as an eye tells in a picture of the whole (mm). */
const TRUE_MM = 0.06

/** The stack of a depth plan in space. Needs the geometry loaded. */
export function spaceOf(project: Project, { pieces, pads, lip, stackMm }: DepthPlan): Space {
  const clear = new Set(project.drawer.foams.filter(({ look }) => look === 'clear').map(({ id }) => id))
  const bottoms = new Map(pieces.map((piece) => [`${piece.layer.id} ${piece.pieceId}`, piece.bottomMm]))
  return {
    stackMm,
    pieces: pieces.flatMap((piece): SpacePiece[] => {
      const layer = findLayer(project, piece.layer.id)
      return layer
        ? [{ layerId: layer.id, pieceId: piece.pieceId, parts: partsOf(project, layer, piece) }]
        : []
    }),
    pads: [
      ...(lip?.at ?? []).map((at): SpacePad => ({
        ...at,
        layerId: pieces.at(-1)?.layer.id ?? '',
        rotation: 0,
        thicknessMm: lip!.mm,
        bottomMm: lip!.bottomMm,
        isClear: lip!.foamIds.every((id) => clear.has(id)),
      })),
      ...pads.map(
        ({ layerId, pieceId, foamIds, x, y, rotation, widthMm, heightMm, bendMm, thicknessMm }) => ({
          layerId,
          x,
          y,
          rotation,
          widthMm,
          heightMm,
          ...(bendMm === undefined ? {} : { bendMm }),
          thicknessMm,
          bottomMm: (bottoms.get(`${layerId} ${pieceId}`) ?? thicknessMm) - thicknessMm,
          isClear: foamIds.every((id) => clear.has(id)),
        }),
      ),
    ],
  }
}

function partsOf(
  project: Project,
  layer: Layer,
  { parts, bottomMm, region: body }: PieceHeight,
): SpacePart[] {
  const thicknessMm = thicknessOf(project, layer)
  const flatMm = bottomMm + thicknessMm
  return parts.map(({ region, topMm }): SpacePart => {
    const riseMm = Math.max(0, topMm - flatMm)
    const hinge =
      riseMm > 0 && layer.folds.length > 0 && layer.shaping.how === 'flat'
        ? hingeOf(region, layer.folds)
        : null
    const shaped = riseMm > 0 && hinge === null && layer.shaping.how !== 'roll'
    return {
      path: regionToPath(simplify(region, TRUE_MM)),
      bottomMm,
      thicknessMm,
      riseMm,
      hinge,
      round: shaped ? { ...middleOf(body), fromMm: layer.shaping.flatMm / 2 } : null,
    }
  })
}

/** The fold that lies nearest to a part. */
function hingeOf(region: Region, folds: readonly Fold[]): Fold['line'] {
  const nearest = (line: Fold['line']): number => {
    let least = Infinity
    for (const { outer } of region)
      for (let i = 0; i < outer.length; i += 2)
        least = Math.min(least, fromLine(line, outer[i]!, outer[i + 1]!))
    return least
  }
  return folds.map(({ line }) => line).toSorted((a, b) => nearest(a) - nearest(b))[0]!
}

/** Distance of a point from a stretch of line. */
function fromLine([x1, y1, x2, y2]: Fold['line'], x: number, y: number): number {
  const [dx, dy] = [x2 - x1, y2 - y1]
  const t = Math.max(0, Math.min(1, ((x - x1) * dx + (y - y1) * dy) / (dx * dx + dy * dy || 1)))
  return Math.hypot(x - x1 - t * dx, y - y1 - t * dy)
}

function middleOf(region: Region): { x: number; y: number } {
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity]
  for (const { outer } of region)
    for (let i = 0; i < outer.length; i += 2) {
      x0 = Math.min(x0, outer[i]!)
      x1 = Math.max(x1, outer[i]!)
      y0 = Math.min(y0, outer[i + 1]!)
      y1 = Math.max(y1, outer[i + 1]!)
    }
  return { x: (x0 + x1) / 2, y: (y0 + y1) / 2 }
}
