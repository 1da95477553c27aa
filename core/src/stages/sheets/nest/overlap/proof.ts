// What the fields take for clear is proved by exact distances: pieces that are too near are parted to the gap.
import {
  compose,
  cornersOf,
  mapPolygon,
  rotation,
  translation,
  type Polygon,
} from '../../../../base/geometry'
import { nearest } from '../exact/clearance'
import type { NestInstance, Placement } from '../instance'
import type { Parts } from '../parts'
import { pushInto, type Body } from './body'
import type { Field } from './field'
import type { Lying } from './sampler'

/** What is added to the gap when pieces are parted, mm. */
const PROOF_MM = 0.003
const PROOF_ROUNDS = 80
/** Nearer than this to a wall is on it, mm. */
const WALL_MM = 1e-3

/** What is proved. */
export interface Claim extends Lying {
  instance: NestInstance
  fields: readonly Field[]
}

/** Where a piece's origin lies on its sheet. */
function placementOf({ instance, fields, rooms }: Claim, body: Body): Placement {
  const { midX, midY } = fields[body.piece]!
  return {
    id: instance.pieces[body.piece]!.id,
    copy: body.copy,
    sheet: rooms[body.room]!.sheet,
    x: body.x - body.cos * midX + body.sin * midY,
    y: body.y - body.sin * midX - body.cos * midY,
    rotation: body.turn,
  }
}

function shapeOf(claim: Claim, body: Body): Polygon {
  const { x, y, rotation: turn } = placementOf(claim, body)
  return mapPolygon(compose(translation(x, y), rotation(turn)), claim.instance.pieces[body.piece]!.shape)
}

/** What looking for the distance of a pair comes to for each corner, in parts of work. */
const WORK_CORNER = 0.05

/** Placements parted to the gap; null where pieces overlap, touch a wall, or cannot be parted. */
export function* provePlacements(claim: Claim): Parts<Placement[] | null> {
  const bodies = claim.bodies.map((body) => ({ ...body }))
  const shapes = bodies.map((body) => shapeOf(claim, body))
  for (let round = 0; round < PROOF_ROUNDS; round++) {
    const parted = yield* part(claim, bodies, shapes)
    if (parted === 'overlap') return null
    if (parted === 'moved') continue
    const walled = bodies.some((body, i) =>
      claim.rooms[body.room]!.walls.some((wall) => nearest(shapes[i]!, wall.shape, WALL_MM)?.mm === 0),
    )
    return walled ? null : bodies.map((body) => placementOf(claim, body))
  }
  return null
}

/** Moves every pair that is nearer than the gap apart, half the way each. */
function* part(
  claim: Claim,
  bodies: readonly Body[],
  shapes: Polygon[],
): Parts<'clear' | 'moved' | 'overlap'> {
  const { gap } = claim.instance
  const corners = shapes.map(cornersOf)
  let moved = false
  const shift = (i: number, dx: number, dy: number) => {
    const body = bodies[i]!
    if (body.fixed) return
    body.x += dx
    body.y += dy
    pushInto(body, claim.rooms[body.room]!)
  }
  for (const list of claim.members)
    for (let k = 0; k < list.length; k++)
      for (let m = 0; m < k; m++) {
        const [i, j] = [list[k]!, list[m]!]
        const [a, b] = [bodies[i]!, bodies[j]!]
        if (a.fixed && b.fixed) continue
        yield WORK_CORNER * (corners[i]! + corners[j]!)
        const near = nearest(shapes[i]!, shapes[j]!, gap + PROOF_MM / 2)
        if (!near) continue
        if (near.mm === 0) return 'overlap'
        moved = true
        const by = (gap + PROOF_MM - near.mm) * (a.fixed || b.fixed ? 1 : 0.5)
        shift(i, near.nx * by, near.ny * by)
        shift(j, -near.nx * by, -near.ny * by)
        shapes[i] = shapeOf(claim, a)
        shapes[j] = shapeOf(claim, b)
      }
  return moved ? 'moved' : 'clear'
}
