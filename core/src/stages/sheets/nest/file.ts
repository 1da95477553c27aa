// INSTANCE files of the headless `nest` command.
import { z } from 'zod'
import {
  cleanRing,
  fillRings,
  isSimple,
  polygonArea,
  reversed,
  signedArea,
  type Polygon,
  type Ring,
} from '../../../base/geometry'
import { BadInput } from '../../../base'
import type { NestInstance } from './instance'

/** An INSTANCE with rings as told. */
const instanceWith = <Points extends z.ZodType<[number, number][]>>(points: Points) =>
  z.object({
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

const isPoint = (value: unknown): boolean =>
  Array.isArray(value) && value.length === 2 && typeof value[0] === 'number' && typeof value[1] === 'number'

/** Reads rings as a whole: there may be a million points. What is wrong with one is told by the other, point by point. */
const quickSchema = instanceWith(
  z.custom<[number, number][]>((value) => Array.isArray(value) && value.length >= 3 && value.every(isPoint)),
)
const instanceSchema = instanceWith(z.array(z.tuple([z.number(), z.number()])).min(3))

/** More pieces than a first layout is found for in some seconds. */
const MOST_COPIES = 20_000

/** Areas that differ by less are the same shape (mm²). */
const SAME_MM2 = 0.05

/** Rings that bound one face, the outer first, each the right way round. */
function asGiven([outer, ...holes]: readonly Ring[]): Polygon {
  const facing = (ring: Ring, positive: boolean) =>
    signedArea(ring) > 0 === positive ? ring : reversed(ring)
  return { outer: facing(outer!, true), holes: holes.map((hole) => facing(hole, false)) }
}

/**
 * A sound shape, where it can be with the very points of the file: the clipper rounds, and where pieces just fill a sheet that is too much. Null
 * where rings bound nothing.
 */
function soundShape(rings: readonly Ring[]): Polygon | null {
  if (rings.length === 1 && isSimple(rings[0]!)) return asGiven(rings)
  const faces = fillRings(rings, 'evenodd').toSorted((a, b) => polygonArea(b) - polygonArea(a))
  const [largest] = faces
  if (!largest) return null
  const given = asGiven(rings)
  const same =
    faces.length === 1 &&
    largest.holes.length === given.holes.length &&
    Math.abs(polygonArea(given) - polygonArea(largest)) < SAME_MM2
  return same ? given : largest
}

const flat = (points: readonly [number, number][]): Float64Array => {
  const out = new Float64Array(2 * points.length)
  points.forEach(([x, y], i) => {
    out[2 * i] = x
    out[2 * i + 1] = y
  })
  return out
}

/** Reads an INSTANCE file. Throws BadInput with one sentence. Needs the geometry loaded. */
export function readInstance(text: string): NestInstance {
  let doc: unknown
  try {
    doc = JSON.parse(text)
  } catch {
    throw new BadInput('this is not JSON')
  }
  const parsed = quickSchema.safeParse(doc)
  if (!parsed.success) {
    const issue = (instanceSchema.safeParse(doc).error ?? parsed.error).issues[0]!
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
      const shape = soundShape([outer, ...holes].flatMap((ring) => cleanRing(flat(ring)) ?? []))
      if (!shape) throw new BadInput(`piece “${id}” has no area`)
      return { id, shape, qty, turns: rotation }
    }),
  }
}
