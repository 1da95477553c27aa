// Pieces that lie in the openings of others go with them as one: what is left to lay is fewer and plainer, often nothing but boxes.
import { compose, mapPoint, mapPolygon, polygonArea, polygonBox, ringBox, ringContains, rotation, translation, type Box, type Polygon } from '../../geometry'
import type { NestInstance, NestLayout, NestPiece, Placement } from './instance'
import { summarise } from './summary'

export interface Bundles {
  /** The same work with hosts as solid pieces (`id#copy`) and their guests left out. */
  instance: NestInstance
  /** The layout that it was made of, so far as it goes. */
  layout: NestLayout
  /** Pieces that lie in openings. */
  guests: number
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

/** A guest turns with its host, so it must be free to turn as far as that may. */
const mayTurnWith = (guest: NestPiece, host: NestPiece) => guest.turns === 'free' || host.turns === 'fixed' || guest.turns === host.turns

const boxHolds = (a: Box, b: Box) => a.minX <= b.minX && a.minY <= b.minY && a.maxX >= b.maxX && a.maxY >= b.maxY

/** What lies in the openings of others in a legal layout of whole sheets; null where nothing does. */
export function bundles(instance: NestInstance, layout: NestLayout): Bundles | null {
  const byId = new Map(instance.pieces.map((piece) => [piece.id, piece]))
  const laid = layout.placements.map((p): Laid => {
    const piece = byId.get(p.id)!
    const shape = mapPolygon(compose(translation(p.x, p.y), rotation(p.rotation)), piece.shape)
    return { p, piece, shape, box: polygonBox(shape) }
  })
  // The largest first: who holds a piece then is held by nobody.
  const hosts = laid.filter(({ shape }) => shape.holes.length > 0).sort((a, b) => polygonArea(b.shape) - polygonArea(a.shape))
  if (hosts.length === 0) return null
  const guestsOf = new Map<Laid, Laid[]>()
  const rest: Laid[] = []
  for (const one of laid) {
    const host = hosts.find((other) => other !== one && other.p.sheet === one.p.sheet && mayTurnWith(one.piece, other.piece) && liesIn(one, other))
    if (host) guestsOf.set(host, [...(guestsOf.get(host) ?? []), one])
    else rest.push(one)
  }
  if (guestsOf.size === 0) return null
  const others = instance.pieces.flatMap((piece) => {
    const copies = rest.filter((one) => one.piece === piece && !guestsOf.has(one))
    return copies.length > 0 ? [{ piece: { ...piece, qty: copies.length }, copies }] : []
  })
  const solid = [...guestsOf.keys()].map((host): NestPiece => ({
    ...host.piece,
    id: keyOf(host.p),
    qty: 1,
    shape: { outer: host.piece.shape.outer, holes: [] },
  }))
  const bundled: NestInstance = { ...instance, pieces: [...solid, ...others.map(({ piece }) => piece)] }
  const hostOf = new Map([...guestsOf].map(([host, guests]) => [keyOf(host.p), { host, guests }]))
  const copiesOf = new Map(others.map(({ piece, copies }) => [piece.id, copies]))
  return {
    instance: bundled,
    layout: summarise(bundled, [
      ...[...guestsOf.keys()].map(({ p }): Placement => ({ ...p, id: keyOf(p), copy: 0 })),
      ...others.flatMap(({ copies }) => copies.map(({ p }, copy): Placement => ({ ...p, copy }))),
    ]),
    guests: laid.length - rest.length,
    key: [...guestsOf].map(([host, guests]) => `${keyOf(host.p)}: ${guests.map(({ p }) => keyOf(p)).join(' ')}`).join('; '),
    open: ({ placements }) =>
      summarise(
        instance,
        placements.flatMap((p): Placement[] => {
          const known = hostOf.get(p.id)
          if (!known) return [{ ...p, copy: copiesOf.get(p.id)![p.copy]!.p.copy }]
          const { host, guests } = known
          return [{ ...p, id: host.p.id, copy: host.p.copy }, ...guests.map((guest) => carried(guest.p, host.p, p))]
        }),
      ),
  }
}

/** In a legal layout a piece lies wholly in an opening, or not at all. */
const liesIn = (one: Laid, host: Laid): boolean =>
  boxHolds(host.box, one.box) &&
  host.shape.holes.some((hole) => boxHolds(ringBox(hole), one.box) && ringContains(hole, one.shape.outer[0]!, one.shape.outer[1]!))

/** Where a guest comes to lie when its host goes from one placement to another. */
export function carried(guest: Placement, from: Placement, to: Placement): Placement {
  const turn = to.rotation - from.rotation
  const [x, y] = mapPoint(rotation(turn), guest.x - from.x, guest.y - from.y)
  return { ...guest, sheet: to.sheet, x: x + to.x, y: y + to.y, rotation: (((guest.rotation + turn) % 360) + 360) % 360 }
}
