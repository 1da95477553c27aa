// Closing gaps: pieces slide towards the sheet's corner, exactly as far as they may, and those that reach farthest are
// dropped elsewhere.
import { cornersOf, growBox, polygonBox, type Box } from '../../../../base/geometry'
import { nearest } from './clearance'
import { placedShape, whyIllegal } from './legal'
import type { NestInstance, NestLayout, Placement } from '../instance'
import { PlainPieces, type PlainPiece } from './plain-pieces'
import { wayTo } from './slide'
import { atOnce, type Parts } from '../parts'
import { summarise } from '../summary'

const STRIDE_MM = 2
const FINEST_MM = 0.01
const ROUNDS = 3
/** What making an outline plain and sliding it come to for each of its corners, in parts of work. */
const WORK = { plain: 1.5, slide: 2 }
/** A way or a gain of less is none (mm). */
const WORTH_MM = 0.01

/** Of outlines with more corners together than this, fewer drops are tried, but so many at least. */
const EASY_CORNERS = 600
const LEAST_TRIALS = 8

type Axis = 'x' | 'y'

const keyOf = (p: Placement) => `${p.id}#${p.copy}`

/** A placement and where that puts its shape. */
interface Laid extends PlainPiece {
  p: Placement
}

const laidAt = (pieces: PlainPieces, p: Placement): Laid => ({ p, ...pieces.laid(p) })

/**
 * Placements with the chosen pieces (`id#copy`) slid up and to the left until something stops them, the foremost first;
 * the others stay. Pieces that may not lie where they are stay too. Needs the geometry loaded.
 */
export function settle(
  instance: NestInstance,
  placements: readonly Placement[],
  chosen: ReadonlySet<string>,
): Placement[] {
  const legal = (p: Placement) => whyIllegal(instance, p, placements) === null
  const pieces = new PlainPieces(instance)
  const all = placements.map((p) => laidAt(pieces, p))
  const movable = all.filter(({ p }) => chosen.has(keyOf(p)) && legal(p))
  atOnce(slideAll(pieces, { all, movable, axes: ['y', 'x'] }))
  return all.map(({ p }) => p)
}

/** Slides pieces along one axis and then the other, in place; those on whole sheets exactly, those on off-cuts by strides. */
function* slideAll(
  pieces: PlainPieces,
  { all, movable, axes }: { all: Laid[]; movable: readonly Laid[]; axes: readonly Axis[] },
): Parts<void> {
  const order = movable.toSorted((a, b) => a.box.minX + a.box.minY - b.box.minX - b.box.minY)
  for (let round = 0; round < ROUNDS; round++) {
    let moved = 0
    for (const laid of order)
      for (const axis of axes) {
        yield WORK.slide * cornersOf(laid.shape)
        const way =
          laid.p.sheet < 0
            ? wayByStrides(pieces.instance, laid, { all, axis })
            : wayBack(pieces, laid, { all, axis })
        if (way < WORTH_MM) continue
        moved += way
        const at = axis === 'x' ? { ...laid.p, x: laid.p.x - way } : { ...laid.p, y: laid.p.y - way }
        Object.assign(laid, laidAt(pieces, at))
      }
    if (moved === 0) return
  }
}

/** How far a piece on a whole sheet may go back along an axis. */
function wayBack(
  { instance, gap }: PlainPieces,
  laid: Laid,
  { all, axis }: { all: readonly Laid[]; axis: Axis },
): number {
  const others = all.filter((other) => other !== laid && other.p.sheet === laid.p.sheet)
  const most = (axis === 'x' ? laid.takes.minX : laid.takes.minY) - instance.sheet.margin
  return most <= 0
    ? 0
    : wayTo(laid, others, {
        dx: axis === 'x' ? -1 : 0,
        dy: axis === 'y' ? -1 : 0,
        gap,
        most,
      })
}

function wayByStrides(
  instance: NestInstance,
  { p }: Laid,
  { all, axis }: { all: readonly Laid[]; axis: Axis },
): number {
  const others = all.map((laid) => laid.p).filter((other) => keyOf(other) !== keyOf(p))
  let way = 0
  for (let step = STRIDE_MM; step >= FINEST_MM;) {
    const next = axis === 'x' ? { ...p, x: p.x - way - step } : { ...p, y: p.y - way - step }
    if (whyIllegal(instance, next, others)) step /= 2
    else way += step
  }
  return way
}

/** The axis along which a straight cut keeps more of the last sheet. */
function axisOf({ sheet }: NestInstance, laid: readonly Laid[]): Axis {
  const reach = (of: (b: Box) => number) => Math.max(...laid.map(({ takes }) => of(takes))) - sheet.margin
  return reach((b) => b.maxX) / (sheet.w - 2 * sheet.margin) <
    reach((b) => b.maxY) / (sheet.h - 2 * sheet.margin)
    ? 'x'
    : 'y'
}

/** How a layout is tidied. */
export interface Tidying {
  random: () => number
  /** So many times what reaches farthest is dropped elsewhere. */
  trials: number
  /** Which pieces may change their sheet. */
  mayMove: (p: Placement) => boolean
}

/**
 * A layout with all gaps closed, and what reaches farthest on the last sheet dropped at other turns and places; null where that makes it
 * no better.
 */
export function* tidied(
  pieces: PlainPieces,
  layout: NestLayout,
  { random, trials, mayMove }: Tidying,
): Parts<NestLayout | null> {
  const { instance } = pieces
  const pinned = new Set((instance.pinned ?? []).map(keyOf))
  for (const { id, shape } of instance.pieces) {
    yield WORK.plain * cornersOf(shape)
    pieces.shape(id)
  }
  const all = layout.placements.map((p) => laidAt(pieces, p))
  const last = layout.sheets - 1
  if (last < 0) return null
  const onLast = () => all.filter(({ p }) => p.sheet === last)
  const axis = axisOf(instance, onLast())
  const axes: Axis[] = axis === 'x' ? ['x', 'y'] : ['y', 'x']
  yield* slideAll(pieces, {
    all,
    movable: all.filter(({ p }) => p.sheet >= 0 && !pinned.has(keyOf(p))),
    axes,
  })
  const corners = all.reduce((sum, { shape }) => sum + cornersOf(shape), 0)
  const worth = Math.max(LEAST_TRIALS, Math.min(trials, Math.round((trials * EASY_CORNERS) / corners)))
  for (let k = 0; k < worth; k++) {
    const reach = ({ takes }: Laid) => (axis === 'x' ? takes.maxX : takes.maxY)
    const farthest = onLast().reduce<Laid | null>(
      (most, laid) => (!most || reach(laid) > reach(most) ? laid : most),
      null,
    )
    if (!farthest || pinned.has(keyOf(farthest.p))) break
    yield 3 * WORK.slide * cornersOf(farthest.shape)
    const sheet = mayMove(farthest.p) && random() < 0.4 ? Math.floor(random() * (last + 1)) : last
    const dropped = drop(pieces, { laid: farthest, onto: sheet, all, axes }, random)
    if (dropped && (sheet < last || reach(dropped) < reach(farthest) - WORTH_MM))
      Object.assign(farthest, dropped)
  }
  const better = summarise(
    instance,
    all.map(({ p }) => p),
  )
  return better.score < layout.score - 1e-9 ? better : null
}

/** A piece and the sheet that it is let fall onto, among all that lies there; along the first axis, then the second. */
interface Fall {
  laid: Laid
  onto: number
  all: readonly Laid[]
  axes: readonly Axis[]
}

/** A piece let fall from the far end of a sheet, at some turn and place across; null where it does not even go in there. */
function drop(pieces: PlainPieces, { laid, onto, all, axes }: Fall, random: () => number): Laid | null {
  const { sheet } = pieces.instance
  const turns = pieces.turns(laid.p.id)
  const turn = turns[Math.floor(random() * turns.length)]!
  const b = laidAt(pieces, { ...laid.p, x: 0, y: 0, rotation: turn }).takes
  const [spareX, spareY] = [
    sheet.w - 2 * sheet.margin - b.maxX + b.minX,
    sheet.h - 2 * sheet.margin - b.maxY + b.minY,
  ]
  if (spareX < 0 || spareY < 0) return null
  const across = random()
  const [fromX, fromY] = axes[0] === 'x' ? [spareX, across * spareY] : [across * spareX, spareY]
  let at = laidAt(pieces, {
    ...laid.p,
    sheet: onto,
    rotation: turn,
    x: sheet.margin - b.minX + fromX,
    y: sheet.margin - b.minY + fromY,
  })
  const others = all.filter((other) => other !== laid)
  if (others.some((other) => other.p.sheet === onto && nearest(at.shape, other.shape, pieces.gap)))
    return null
  for (const axis of [...axes, axes[0]!]) {
    const way = wayBack(pieces, at, { all: others, axis })
    if (way >= WORTH_MM)
      at = laidAt(pieces, axis === 'x' ? { ...at.p, x: at.p.x - way } : { ...at.p, y: at.p.y - way })
  }
  return at
}

/** The first legal place for a piece on the sheet or off-cut its placement names, row by row of a net; null where there is none. */
export function firstFree(
  instance: NestInstance,
  placement: Placement,
  others: readonly Placement[],
): Placement | null {
  const shape = placedShape(instance, { ...placement, x: 0, y: 0 })
  if (!shape) return null
  const room = roomOf(instance, placement.sheet)
  const b = polygonBox(shape)
  const step = Math.max(STRIDE_MM, instance.gap * 2)
  for (let y = room.minY - b.minY; y <= room.maxY - b.maxY + 1e-9; y += step)
    for (let x = room.minX - b.minX; x <= room.maxX - b.maxX + 1e-9; x += step) {
      const at = { ...placement, x, y }
      if (!whyIllegal(instance, at, others)) return at
    }
  return null
}

/** The box within the rim of a sheet or off-cut; of an off-cut that is not there, none. */
function roomOf({ sheet, offCuts = [] }: NestInstance, n: number): Box {
  if (n >= 0)
    return {
      minX: sheet.margin,
      minY: sheet.margin,
      maxX: sheet.w - sheet.margin,
      maxY: sheet.h - sheet.margin,
    }
  const offCut = offCuts[-1 - n]
  return offCut
    ? growBox(polygonBox(offCut.outline), -offCut.margin)
    : { minX: 0, minY: 0, maxX: -1, maxY: -1 }
}
