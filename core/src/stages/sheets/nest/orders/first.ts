// The first layout: all pieces in one order, the largest first, on the coarse grid. It has to be there at once.
import { BadInput } from '../../../../base'
import { boxHeight, boxWidth, cornersOf, identity, mapPolygon, polygonBox } from '../../../../base/geometry'
import { say, size } from '../../../../base/units'
import type { NestInstance, NestLayout } from '../instance'
import type { Parts } from '../parts'
import { summarise } from '../summary'
import { layInOrder, type Item } from './laying'
import { Poses } from './poses'

/** Poses tried, over all pieces together. */
const FIRST_POSES = 300
/** Of pieces with more corners than this together each is tried at one turn only, where there are many. */
const MANY_CORNERS = 300_000
/** What finding the turns of a piece comes to for each of its corners, in parts of work. */
const WORK_CORNER = 0.5

/** A first layout, and what it was made of. */
export interface First {
  poses: Poses
  /** What was laid, in this order. */
  items: Item[]
  /** Complete and legal. */
  layout: NestLayout
}

/** Lays all that is not pinned. Throws BadInput where a piece is larger than the sheet's cuttable area at every turn it may take. */
export function* layFirst(instance: NestInstance): Parts<First> {
  const poses = new Poses(instance)
  const { pieces } = instance
  const extents: number[] = []
  for (const [piece, { shape }] of pieces.entries()) {
    yield WORK_CORNER * cornersOf(shape)
    poses.turnsThatFit(piece, 'rows')
    extents.push(extentOf(poses, piece))
  }
  const items = itemsOf(instance).toSorted((a, b) => extents[b.piece]! - extents[a.piece]!)
  refuseTooLarge(instance, poses, items)
  if (isAlone(instance, items)) return { poses, items, layout: layAlone(instance, poses, items[0]!) }
  const corners = pieces.reduce((sum, { shape }) => sum + cornersOf(shape), 0)
  const least = corners > MANY_CORNERS ? 1 : 2
  poses.each = Math.max(least, Math.floor(FIRST_POSES / Math.max(1, items.length)))
  const layout = yield* layInOrder(instance, poses, { items, axis: 'rows', level: 'coarse' })
  return { poses, items, layout }
}

/** Whether a single piece is all there is to lay, and whole sheets all there is to lay it on. */
export const isAlone = ({ pinned, offCuts }: NestInstance, items: readonly Item[]): boolean =>
  items.length === 1 && !pinned?.length && !offCuts?.length

/** What is to be laid: every copy that is not pinned. */
function itemsOf({ pieces, pinned = [] }: NestInstance): Item[] {
  const fixed = new Set(pinned.map((p) => `${p.id}#${p.copy}`))
  return pieces.flatMap(({ id, qty }, piece) =>
    Array.from({ length: qty }, (_, copy): Item => ({ piece, copy, pose: -1 })).filter(
      ({ copy }) => !fixed.has(`${id}#${copy}`),
    ),
  )
}

/** Large and long pieces are laid first. */
function extentOf(poses: Poses, piece: number): number {
  const b = poses.boxAt(piece, identity)
  return boxWidth(b) * boxHeight(b) + Math.max(boxWidth(b), boxHeight(b)) * 10
}

/** A single piece: into the corner, at the turn that leaves the larger off-cut. */
function layAlone(instance: NestInstance, poses: Poses, { piece, copy }: Item): NestLayout {
  const { id, shape } = instance.pieces[piece]!
  const { margin } = instance.sheet
  const layouts = poses.turnsThatFit(piece, 'rows').map(({ rotation, map }) => {
    const b = polygonBox(mapPolygon(map, shape))
    const at = { id, copy, sheet: 0, x: margin - b.minX, y: margin - b.minY, rotation }
    return summarise(instance, [at])
  })
  return layouts.reduce((best, layout) => (layout.score < best.score - 1e-9 ? layout : best))
}

function refuseTooLarge(instance: NestInstance, poses: Poses, items: readonly Item[]): void {
  const tooLarge = [...new Set(items.map(({ piece }) => piece))].filter(
    (piece) => poses.turnsThatFit(piece, 'rows').length === 0,
  )
  if (tooLarge.length === 0) return
  const ids = tooLarge.map((piece) => instance.pieces[piece]!.id)
  const more = ids.length > 3 ? ` and ${ids.length - 3} more` : ''
  const { w, h, margin } = instance.sheet
  throw new BadInput(
    say`${ids.slice(0, 3).join(', ')}${more}: larger than the ${size(w - 2 * margin, h - 2 * margin)} that can be cut of a sheet`,
  )
}
