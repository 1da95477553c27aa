// Pieces that lie in the openings of others go with them as one: what is left to lay is fewer and plainer, often nothing but boxes.
import {
  compose,
  mapPoint,
  mapPolygon,
  polygonBox,
  ringBox,
  ringContains,
  rotation,
  signedArea,
  translation,
  type Box,
  type Polygon,
} from '../../../base/geometry'
import type { NestInstance, NestLayout, NestPiece, Placement } from './instance'
import { summarise } from './summary'

/** An instance with what lies in openings as part of its holder, and the way back. */
export interface Composites {
  /** The same work with holders as solid pieces (`id#copy`), and without what they hold. */
  instance: NestInstance
  /** The layout that it was made of, so far as it goes. */
  layout: NestLayout
  /** Pieces that lie in openings. */
  held: number
  /** Names who lies where: the same again would be the same work. */
  key: string
  /** A layout of it as one of all pieces. */
  open: (layout: NestLayout) => NestLayout
}

interface Laid {
  p: Placement
  piece: NestPiece
  shape: Polygon
  box: Box
}

const keyOf = (p: Placement) => `${p.id}#${p.copy}`

/** What is held turns with its holder, so it must be free to turn as far as that may. */
const mayTurnWith = (one: NestPiece, holder: NestPiece) =>
  one.turns === 'free' || holder.turns === 'fixed' || one.turns === holder.turns

const boxHolds = (a: Box, b: Box) =>
  a.minX <= b.minX && a.minY <= b.minY && a.maxX >= b.maxX && a.maxY >= b.maxY

/** What lies in the openings of others in a legal layout of whole sheets; null where nothing does. */
export function composites(instance: NestInstance, layout: NestLayout): Composites | null {
  const byId = new Map(instance.pieces.map((piece) => [piece.id, piece]))
  const laid = layout.placements.map((p): Laid => {
    const piece = byId.get(p.id)!
    const shape = mapPolygon(compose(translation(p.x, p.y), rotation(p.rotation)), piece.shape)
    return { p, piece, shape, box: polygonBox(shape) }
  })
  // The largest outlines first, openings and all: who holds a piece then is held by nobody.
  const holders = laid
    .filter(({ shape }) => shape.holes.length > 0)
    .sort((a, b) => signedArea(b.shape.outer) - signedArea(a.shape.outer))
  if (holders.length === 0) return null
  const heldBy = new Map<Laid, Laid[]>()
  const rest: Laid[] = []
  for (const one of laid) {
    const holder = holders.find(
      (other) =>
        other !== one &&
        other.p.sheet === one.p.sheet &&
        mayTurnWith(one.piece, other.piece) &&
        liesIn(one, other),
    )
    if (holder) heldBy.set(holder, [...(heldBy.get(holder) ?? []), one])
    else rest.push(one)
  }
  if (heldBy.size === 0) return null
  const others = instance.pieces.flatMap((piece) => {
    const copies = rest.filter((one) => one.piece === piece && !heldBy.has(one))
    return copies.length > 0 ? [{ piece: { ...piece, qty: copies.length }, copies }] : []
  })
  const solid = [...heldBy.keys()].map((holder): NestPiece => ({
    ...holder.piece,
    id: keyOf(holder.p),
    qty: 1,
    shape: { outer: holder.piece.shape.outer, holes: [] },
  }))
  const composed: NestInstance = { ...instance, pieces: [...solid, ...others.map(({ piece }) => piece)] }
  const holderOf = new Map([...heldBy].map(([holder, held]) => [keyOf(holder.p), { holder, held }]))
  const copiesOf = new Map(others.map(({ piece, copies }) => [piece.id, copies]))
  return {
    instance: composed,
    layout: summarise(composed, [
      ...[...heldBy.keys()].map(({ p }): Placement => ({ ...p, id: keyOf(p), copy: 0 })),
      ...others.flatMap(({ copies }) => copies.map(({ p }, copy): Placement => ({ ...p, copy }))),
    ]),
    held: laid.length - rest.length,
    key: [...heldBy]
      .map(([holder, held]) => `${keyOf(holder.p)}: ${held.map(({ p }) => keyOf(p)).join(' ')}`)
      .join('; '),
    open: ({ placements }) =>
      summarise(
        instance,
        placements.flatMap((p): Placement[] => {
          const known = holderOf.get(p.id)
          if (!known) return [{ ...p, copy: copiesOf.get(p.id)![p.copy]!.p.copy }]
          const { holder, held } = known
          return [
            { ...p, id: holder.p.id, copy: holder.p.copy },
            ...held.map((one) => carried(one.p, holder.p, p)),
          ]
        }),
      ),
  }
}

/** In a legal layout a piece lies wholly in an opening, or not at all. */
const liesIn = (one: Laid, holder: Laid): boolean =>
  boxHolds(holder.box, one.box) &&
  holder.shape.holes.some(
    (hole) =>
      boxHolds(ringBox(hole), one.box) && ringContains(hole, one.shape.outer[0]!, one.shape.outer[1]!),
  )

/** Where a piece comes to lie when what it goes with is laid elsewhere. */
export function carried(one: Placement, from: Placement, to: Placement): Placement {
  const turn = to.rotation - from.rotation
  const [x, y] = mapPoint(rotation(turn), one.x - from.x, one.y - from.y)
  return {
    ...one,
    sheet: to.sheet,
    x: x + to.x,
    y: y + to.y,
    rotation: (((one.rotation + turn) % 360) + 360) % 360,
  }
}
