// Parts that are built on the bench: within a part every height is that of the bench, and on the stack it lies as one stiff body.
import type { Memo } from '../../base'
import { boxesMeet, regionBox } from '../../base/geometry'
import { isPressed, type Layer, type Project, type Unit } from '../../project'
import { asBuilt, gluedPieces } from './held'
import {
  liftOnto,
  levelOf,
  restingOn,
  shifted,
  standOn,
  type Level,
  type On,
  type PieceHeight,
} from './heights'
import { Lifts } from './lifts'

/** A part as it lies on the bench; heights in mm over the bench. */
export interface Body {
  partId: string
  /** Its hindmost layer. */
  baseId: string
  /** Its layers as they are laid, each with its pieces before any of them is lowered to be glued. */
  layers: ReadonlyMap<string, readonly PieceHeight[]>
  /** The pieces as the steps build them. */
  built: readonly PieceHeight[]
  /** Parts in it that are built apart in their turn. */
  inner: readonly string[]
}

/** The bench: nothing holds a part there, and nothing is behind it. */
const onBench = (project: Project): Project => ({ ...project, mount: { kind: 'free' } })

/**
 * A part built on the bench; null where its shapes do not make one body of it: a piece that lies on nothing of the part, or pieces of its
 * hindmost layer that nothing joins. Needs the geometry loaded.
 */
export function bodyOf(project: Project, { part, units }: Unit, memo: Memo): Body | null {
  const bench = onBench(project)
  const layers = new Map<string, readonly PieceHeight[]>()
  const built: PieceHeight[] = []
  const inner: string[] = []
  let below: Level | null = null
  /** Sets of pieces that hold each other. */
  let joined: PieceHeight[][] = []
  /** Lays a layer; false where a piece of it lies on nothing of the part. */
  const lay = (layer: Layer, standing: readonly PieceHeight[], isFirst: boolean): boolean => {
    const own = isFirst
      ? standing
      : asBuilt(new Lifts(bench, memo), standing, gluedPieces(project, { layer, lifted: standing }, memo))
    if (!isFirst && own.some(({ supports }) => supports.length === 0)) return false
    for (const piece of own) {
      const touched = joined.filter((set) => set.some((one) => liesOn(piece, one)))
      joined = [...joined.filter((set) => !touched.includes(set)), [piece, ...touched.flat()]]
    }
    layers.set(layer.id, standing)
    built.push(...own)
    below = levelOf(layer, own, below)
    return true
  }
  for (const [i, unit] of units.entries()) {
    const body = unit.part ? bodyOf(project, unit, memo) : null
    if (body) inner.push(body.partId, ...body.inner)
    const placed: readonly Standing[] =
      body && i > 0 ? placeBody({ project: bench, body, below, memo }, unit.layers, project) : []
    for (const [k, layer] of unit.layers.entries()) {
      const isFirst = i === 0 && k === 0
      // On the bench the hindmost layer lies flat: its own joint is that of the part.
      const on: On = { project: bench, layer: isFirst ? flat(layer) : layer, below, memo }
      const standing =
        placed[k]?.standing ??
        (body ? body.layers.get(layer.id)! : standOn(on, liftOnto(on)).map((one) => ({ ...one, layer })))
      if (!lay(layer, standing, isFirst)) return null
    }
  }
  const baseId = units[0]!.layers[0]!.id
  return joined.length === 1 ? { partId: part!.id, baseId, layers, built, inner } : null
}

const flat = (layer: Layer): Layer =>
  isPressed(layer) ? layer : { ...layer, joint: { ...layer.joint, kind: 'none', gapMm: 0 } }

/** Whether a piece is stuck to another that lies under it. */
const liesOn = (piece: PieceHeight, other: PieceHeight): boolean =>
  piece.supports.some(({ topMm, region }) =>
    other.parts.some(
      (part) => Math.abs(part.topMm - topMm) < 1e-6 && boxesMeet(regionBox(region), regionBox(part.region)),
    ),
  )

/** Where a body comes to lie. */
export interface Seat {
  /** Height of its underside, mm. */
  bottomMm: number
  /** By how much the foam under it gives under a press, mm. */
  givesMm: number
}

const FLAT: Seat = { bottomMm: 0, givesMm: 0 }

/** A body and what it is laid on. */
export interface Seating {
  project: Project
  /** The hindmost layer of the body. */
  base: Layer
  body: Body
  below: Level | null
  memo: Memo
}

/**
 * Where a body rests: its hindmost layer by its joint, and no lower than all else of it can go without running into what is there. Needs the
 * geometry loaded.
 */
export function seatOf({ project, base, body, below, memo }: Seating): Seat {
  const own = liftOnto({ project, layer: base, below, memo })
  const baseMm = Math.min(...body.layers.get(base.id)!.map(({ bottomMm }) => bottomMm))
  let seat = FLAT
  for (const { bottomMm, givesMm } of own)
    if (bottomMm - baseMm >= seat.bottomMm) seat = { bottomMm: bottomMm - baseMm, givesMm }
  for (const piece of body.built) {
    if (piece.layer.id === base.id) continue
    const rests = restingOn(piece, below, memo)
    if (rests && rests.topMm - piece.bottomMm > seat.bottomMm)
      seat = { bottomMm: rests.topMm - piece.bottomMm, givesMm: rests.givesMm }
  }
  return seat
}

/** The pieces of one layer of a body on its seat; those of the hindmost layer with what carries them there. Needs the geometry loaded. */
export function standInBody(on: On, body: Body, seat: Seat): PieceHeight[] {
  const { layer } = on
  const own = body.layers
    .get(layer.id)!
    .map((piece) => ({ ...shifted(piece, seat.bottomMm, seat.givesMm), layer }))
  return layer.id === body.baseId ? standOn(on, own).map((piece) => ({ ...piece, stiff: true })) : own
}

/** Where a body comes to lie once it is known whether its hindmost layer is glued, for want of room for pads or by choice. */
export function settledSeat(
  lifts: Lifts,
  { seat, base, glued }: { seat: Seat; base: readonly PieceHeight[]; glued: readonly string[] },
): Seat {
  if (glued.length === 0) return seat
  const drops = asBuilt(lifts, base, glued).map((piece, i) => ({
    mm: base[i]!.bottomMm - piece.bottomMm,
    givesMm: base[i]!.givesMm - piece.givesMm,
  }))
  const least = drops.toSorted((a, b) => a.mm - b.mm)[0]!
  return { bottomMm: seat.bottomMm - least.mm, givesMm: seat.givesMm - least.givesMm }
}

/** A layer of a body with its pieces on the stack, before those of the hindmost layer are lowered to be glued. */
export interface Standing {
  layer: Layer
  standing: PieceHeight[]
}

/** All layers of a body on what lies below. `hidingIn` is the project that tells where pads are hidden. Needs the geometry loaded. */
export function placeBody(
  seating: Omit<Seating, 'base'>,
  layers: readonly Layer[],
  hidingIn = seating.project,
): Standing[] {
  const { project, body, below, memo } = seating
  const [base] = layers
  const seat = seatOf({ ...seating, base: base! })
  const own = standInBody({ project, layer: base!, below, memo }, body, seat)
  const settled = settledSeat(new Lifts(project, memo), {
    seat,
    base: own,
    glued: gluedPieces(hidingIn, { layer: base!, lifted: own }, memo),
  })
  return layers.map((layer) => ({
    layer,
    standing: layer === base ? own : standInBody({ project, layer, below, memo }, body, settled),
  }))
}
