// INSTANCE files of the headless `nest` command.
import { z } from 'zod'
import {
  cleanRing,
  fillRings,
  polygonArea,
  reversed,
  signedArea,
  type Polygon,
  type Ring,
} from '../../../base/geometry'
import { BadInput } from '../../../base'
import type { NestInstance } from './instance'

const points = z.array(z.tuple([z.number(), z.number()])).min(3)

const instanceSchema = z.object({
  sheet: z.object({ w: z.number(), h: z.number(), margin: z.number().default(0) }),
  gap: z.number().default(0),
  pieces: z
    .array(
      z.object({
        id: z.union([z.string(), z.number()]).transform(String),
        outer: points,
        holes: z.array(points).default([]),
        qty: z.number().int().min(0).default(1),
        rotation: z.enum(['free', 'quarter', 'fixed']).default('free'),
      }),
    )
    .min(1),
})

/** More pieces than a first layout is found for in some seconds. */
const MOST_COPIES = 20_000

/** Areas that differ by less are the same shape (mm²). */
const SAME_MM2 = 0.05

/** A sound shape with the very points of the file: the clipper rounds, and where pieces just fill a sheet that is too much. Null for others. */
function asGiven([outer, ...holes]: readonly Ring[], faces: readonly Polygon[]): Polygon | null {
  const facing = (ring: Ring, positive: boolean) =>
    signedArea(ring) > 0 === positive ? ring : reversed(ring)
  const given: Polygon = { outer: facing(outer!, true), holes: holes.map((hole) => facing(hole, false)) }
  const same =
    faces.length === 1 &&
    faces[0]!.holes.length === holes.length &&
    Math.abs(polygonArea(given) - polygonArea(faces[0]!)) < SAME_MM2
  return same ? given : null
}

/** Reads an INSTANCE file. Throws BadInput with one sentence. Needs the geometry loaded. */
export function readInstance(text: string): NestInstance {
  let doc: unknown
  try {
    doc = JSON.parse(text)
  } catch {
    throw new BadInput('this is not JSON')
  }
  const parsed = instanceSchema.safeParse(doc)
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!
    throw new BadInput(
      `${issue.path.join('.') || 'the document'}: ${issue.message.charAt(0).toLowerCase()}${issue.message.slice(1)}`,
    )
  }
  const { sheet, gap, pieces } = parsed.data
  const copies = pieces.reduce((sum, piece) => sum + piece.qty, 0)
  if (copies > MOST_COPIES)
    throw new BadInput(`${copies} pieces are too many for one search: lay at most ${MOST_COPIES} at a time`)
  const seen = new Set<string>()
  return {
    sheet,
    gap,
    pieces: pieces.map(({ id, outer, holes, qty, rotation }) => {
      if (seen.has(id)) throw new BadInput(`two pieces have the id “${id}”`)
      seen.add(id)
      const rings = [outer, ...holes].map((ring) => cleanRing(ring.flat())).filter((ring) => ring !== null)
      const faces = fillRings(rings, 'evenodd').toSorted((a, b) => polygonArea(b) - polygonArea(a))
      if (faces.length === 0) throw new BadInput(`piece “${id}” has no area`)
      return { id, shape: asGiven(rings, faces) ?? faces[0]!, qty, turns: rotation }
    }),
  }
}
