// Names of pieces, which cut ones, joints of their own and places on the sheets go by: a layer that is shaped anew keeps them.
import {
  boxesMeet,
  boxHeight,
  boxWidth,
  intersect,
  isCongruent,
  offset,
  regionArea,
  regionBox,
  subtract,
  type Box,
  type Region,
} from '../../base/geometry'
import { pieceRegion, type Piece } from '../../project'

/** Outlines that stray by no more are the same: what joining and cutting rounds (mm). */
const STRAY_MM = 0.01
/** Areas of like outlines differ by no more than this share. */
const LIKE = 1e-3

interface Outline {
  piece: Piece
  region: Region
  box: Box
  mm2: number
}

/**
 * New pieces of a layer under the names that they bear. One that is as it was is the old one; one that only lies elsewhere has its name,
 * the nearest where several are alike; one that is changed is named as what it is the most of; and what there was not has a name that none
 * had. Needs the geometry loaded.
 */
export function keptPieces(before: readonly Piece[], now: readonly Piece[]): Piece[] {
  const fresh = now.map(outlineOf)
  const kept = new Map<Outline, Piece>()
  const left = new Set(before.map(outlineOf))
  const open = () => fresh.filter((one) => !kept.has(one))
  const keep = (one: Outline, other: Outline, piece: Piece) => {
    kept.set(one, piece)
    left.delete(other)
  }
  for (const one of fresh) {
    const same = [...left].find((other) => isSame(one, other))
    if (same) keep(one, same, same.piece)
  }
  for (const one of open()) {
    const like = [...left]
      .filter((other) => Math.abs(one.mm2 - other.mm2) <= LIKE * other.mm2)
      .toSorted((a, b) => away(one, a) - away(one, b))
      .find((other) => isCongruent(other.piece.path, one.piece.path))
    if (like) keep(one, like, { ...one.piece, id: like.piece.id })
  }
  const shared = open()
    .flatMap((one) =>
      [...left]
        .filter((other) => boxesMeet(one.box, other.box))
        .map((other) => ({ one, other, mm2: regionArea(intersect(one.region, other.region)) })),
    )
    .filter(({ mm2 }) => mm2 > 0)
    .toSorted((a, b) => b.mm2 - a.mm2)
  for (const { one, other } of shared)
    if (!kept.has(one) && left.has(other)) keep(one, other, { ...one.piece, id: other.piece.id })
  const taken = new Set(before.map(({ id }) => id))
  let n = 0
  const nextId = () => {
    do n++
    while (taken.has(`p${n}`))
    return `p${n}`
  }
  return fresh.map((one) => kept.get(one) ?? { ...one.piece, id: nextId() })
}

function outlineOf(piece: Piece): Outline {
  const region = pieceRegion(piece)
  return { piece, region, box: regionBox(region), mm2: regionArea(region) }
}

const SIDES = ['minX', 'minY', 'maxX', 'maxY'] as const

const isSame = (a: Outline, b: Outline): boolean =>
  a.piece.path === b.piece.path ||
  (SIDES.every((side) => Math.abs(a.box[side] - b.box[side]) <= STRAY_MM) &&
    lies(a.region, b.region) &&
    lies(b.region, a.region))

/** Whether a region lies in another, but for what may stray. */
const lies = (a: Region, b: Region): boolean => subtract(a, offset(b, STRAY_MM, 'miter')).length === 0

/** From the middle of one box to that of another, mm. */
const away = ({ box: a }: Outline, { box: b }: Outline): number =>
  Math.hypot(
    a.minX - b.minX + (boxWidth(a) - boxWidth(b)) / 2,
    a.minY - b.minY + (boxHeight(a) - boxHeight(b)) / 2,
  )
