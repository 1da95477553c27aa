// Names of pieces, which cut ones, joints of their own and places on the sheets go by: a layer that is shaped anew keeps them.
import Flatbush from 'flatbush'
import {
  isCongruent,
  regionArea,
  regionBox,
  regionRings,
  type Box,
  type Point,
  type Region,
} from '../../base/geometry'
import { pieceRegion, type Piece } from '../../project'
import { Walls } from './soundness/walls'

/** Outlines that stray by no more are the same: what joining and cutting rounds (mm). */
const STRAY_MM = 0.01
/** Of pieces that lie elsewhere now so many are looked at, the nearest first. */
const NEIGHBOURS = 6
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
 * the nearest where several are alike; one that is changed is named as what shares the most of its box; and what there was not has a name
 * that none had.
 * @param others pieces that came in from other layers: their outlines are kept to the last digit, so that what is cut of them stays cut
 */
export function keptPieces(
  before: readonly Piece[],
  now: readonly Piece[],
  others: readonly Piece[] = [],
): Piece[] {
  if (before.length + others.length === 0) return [...now]
  const old = before.map(outlineOf)
  const index = indexOf(old)
  const left = new Set(old.keys())
  const isLeft = (k: number) => left.has(k)
  const named = new Map<Outline, Piece>()
  const give = (one: Outline, k: number, piece: Piece) => {
    named.set(one, piece)
    left.delete(k)
  }
  const fresh = now.map(outlineOf)
  const come = new Map<Outline, Piece>()
  const open = () => fresh.filter((one) => !named.has(one) && !come.has(one))
  const near = ({ box }: Outline) => index?.search(box.minX, box.minY, box.maxX, box.maxY, isLeft) ?? []
  for (const one of fresh) {
    const same = near(one).find((k) => isSame(one, old[k]!))
    if (same !== undefined) give(one, same, old[same]!.piece)
  }
  for (const other of others.map(outlineOf)) {
    const same = open().find((one) => isSame(one, other))
    if (same) come.set(same, { ...same.piece, path: other.piece.path })
  }
  for (const one of open()) {
    const { x, y } = middleOf(one.box)
    const like = index?.neighbors(x, y, NEIGHBOURS, Infinity, isLeft).find((k) => isLike(one, old[k]!))
    if (like !== undefined) give(one, like, { ...one.piece, id: old[like]!.piece.id })
  }
  const shared = open()
    .flatMap((one) => near(one).map((k) => ({ one, k, mm2: sharedMm2(one.box, old[k]!.box) })))
    .filter(({ mm2 }) => mm2 > 0)
    .toSorted((a, b) => b.mm2 - a.mm2)
  for (const { one, k } of shared)
    if (!named.has(one) && left.has(k)) give(one, k, { ...one.piece, id: old[k]!.piece.id })
  const taken = new Set(before.map(({ id }) => id))
  let n = 0
  const nextId = () => {
    do n++
    while (taken.has(`p${n}`))
    return `p${n}`
  }
  return fresh.map((one) => named.get(one) ?? { ...(come.get(one) ?? one.piece), id: nextId() })
}

/** Where outlines are; null where there are none. */
function indexOf(outlines: readonly Outline[]): Flatbush | null {
  if (outlines.length === 0) return null
  const index = new Flatbush(outlines.length)
  for (const { box } of outlines) index.add(box.minX, box.minY, box.maxX, box.maxY)
  index.finish()
  return index
}

function outlineOf(piece: Piece): Outline {
  const region = pieceRegion(piece)
  return { piece, region, box: regionBox(region), mm2: regionArea(region) }
}

const SIDES = ['minX', 'minY', 'maxX', 'maxY'] as const

const isSame = (a: Outline, b: Outline): boolean =>
  a.piece.path === b.piece.path ||
  (SIDES.every((side) => Math.abs(a.box[side] - b.box[side]) <= STRAY_MM) &&
    runsAlong(a.region, b.region) &&
    runsAlong(b.region, a.region))

const isLike = (a: Outline, b: Outline): boolean =>
  Math.abs(a.mm2 - b.mm2) <= LIKE * b.mm2 && isCongruent(b.piece.path, a.piece.path)

const middleOf = (box: Box): Point => ({ x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 })

/** Along each edge an outline is looked at here: at corners alone a strip that was moved from edge to edge would not be missed. */
const ALONG = [0, 0.37, 0.5]

/** Whether the outlines of a region run along those of another. */
function runsAlong(a: Region, b: Region): boolean {
  const walls = new Walls(b)
  return regionRings(a).every((ring) => {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
      for (const t of ALONG) {
        const [x, y] = [
          ring[i]! + (ring[j]! - ring[i]!) * t,
          ring[i + 1]! + (ring[j + 1]! - ring[i + 1]!) * t,
        ]
        if (!walls.nearest(x, y, STRAY_MM)) return false
      }
    return true
  })
}

/** The area that two boxes share, mm². */
const sharedMm2 = (a: Box, b: Box): number =>
  Math.max(0, Math.min(a.maxX, b.maxX) - Math.max(a.minX, b.minX)) *
  Math.max(0, Math.min(a.maxY, b.maxY) - Math.max(a.minY, b.minY))
