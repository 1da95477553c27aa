// Booleans and offsets, by Clipper2 (WebAssembly). This module alone owns its objects, its scaling and its loading.
import Clipper2Z, { type FillRule as ClipperFill, type MainModule, type PathsD } from 'clipper2-wasm'
import { facesOf } from './region'
import { cleanLine, cleanRing } from './ring'
import type { Box, Polygon, Region, Ring } from './types'

/** Decimal places of a mm kept by the clipper: 0.1 µm. */
const PRECISION = 4
/** How far a round corner may stray from the true circle, in mm. */
const ARC_TOLERANCE_MM = 0.01
/** Above this many times the tolerance a radius gets a coarser one, so that no corner takes more than some 300 points. */
const ARC_STEPS = 20_000

/** A mitred corner reaches at most so many times as far as the outline moves. */
export const MITRE_LIMIT = 4

/** Which windings are inside: odd ones, or all that do not add up to nought. */
export type FillRule = 'evenodd' | 'nonzero'
/** How corners of an offset or a stroke are made. */
export type Join = 'round' | 'miter' | 'bevel'
/** How open lines of a stroke end. */
export type Cap = 'butt' | 'square' | 'round'

let clipper: MainModule | undefined
let loading: Promise<void> | undefined

/**
 * Loads the WebAssembly module once; every other function here needs it. In a page or a worker give the address of
 * `clipper2z.wasm`; in Node the package finds its own.
 */
export function loadGeometry(wasmUrl?: string): Promise<void> {
  const factory = Clipper2Z as unknown as (options: object) => Promise<MainModule>
  loading ??= factory(wasmUrl ? { locateFile: () => wasmUrl } : {}).then((module) => {
    clipper = module
  })
  return loading
}

function loaded(): MainModule {
  if (!clipper) throw new Error('loadGeometry() must have finished before shapes are computed')
  return clipper
}

function toPaths(m: MainModule, rings: Iterable<Ring>): PathsD {
  const paths = new m.PathsD()
  for (const ring of rings) {
    const n = ring.length / 2
    // The binding reads x, y and a spare value for each point.
    const flat = new Float64Array(n * 3)
    for (let i = 0; i < n; i++) {
      flat[i * 3] = ring[i * 2]!
      flat[i * 3 + 1] = ring[i * 2 + 1]!
    }
    const path = new m.PathD()
    path.assign(flat)
    paths.push_back(path)
    path.delete()
  }
  return paths
}

function fromPaths(paths: PathsD): Ring[] {
  const rings: Ring[] = []
  for (let k = 0; k < paths.size(); k++) {
    const path = paths.get(k)
    const view = path.view()
    const flat = new Array<number>((view.length / 3) * 2)
    for (let i = 0; i < view.length / 3; i++) {
      flat[i * 2] = view[i * 3]!
      flat[i * 2 + 1] = view[i * 3 + 1]!
    }
    path.delete()
    const ring = cleanRing(flat)
    if (ring) rings.push(ring)
  }
  return rings
}

const sound = (rings: Iterable<Ring>): Ring[] =>
  Array.from(rings, (ring) => cleanRing(ring)).filter((ring) => ring !== null)

function* ringsOf(region: Region): Generator<Ring> {
  for (const p of region) {
    yield p.outer
    yield* p.holes
  }
}

type Operation = 'Union' | 'Intersection' | 'Difference' | 'Xor'

function boolean(
  operation: Operation,
  { subject, clip }: { subject: Iterable<Ring>; clip: Iterable<Ring> },
  fill: FillRule,
): Polygon[] {
  const m = loaded()
  const subjects = toPaths(m, sound(subject))
  const clips = toPaths(m, sound(clip))
  const rule = (fill === 'evenodd' ? m.FillRule.EvenOdd : m.FillRule.NonZero) as ClipperFill
  const result = m.BooleanOpD(m.ClipType[operation], rule, subjects, clips, PRECISION)
  const rings = fromPaths(result)
  for (const owned of [subjects, clips, result]) owned.delete()
  return facesOf(rings)
}

/** Faces of raw rings under a fill rule: crossings resolved, overlaps merged. */
export const fillRings = (rings: Iterable<Ring>, fill: FillRule): Polygon[] =>
  boolean('Union', { subject: rings, clip: [] }, fill)

/** Everything covered by any of the regions. */
export function union(...regions: readonly Region[]): Polygon[] {
  return boolean('Union', { subject: regions.flatMap((r) => [...ringsOf(r)]), clip: [] }, 'nonzero')
}

/** What is in both of two regions. */
export function intersect(a: Region, b: Region): Polygon[] {
  if (a.length === 0 || b.length === 0) return []
  return boolean('Intersection', { subject: ringsOf(a), clip: ringsOf(b) }, 'nonzero')
}

/** What is in a and not in b. */
export function subtract(a: Region, b: Region): Polygon[] {
  if (a.length === 0) return []
  return boolean('Difference', { subject: ringsOf(a), clip: ringsOf(b) }, 'nonzero')
}

/** What of a region lies in a box: much quicker than a boolean. */
export function clipToBox(region: Region, { minX, minY, maxX, maxY }: Box): Polygon[] {
  if (region.length === 0) return []
  const m = loaded()
  const box = new m.RectD(minX, minY, maxX, maxY)
  const paths = toPaths(m, ringsOf(region))
  const result = m.RectClipPathsD(box, paths, PRECISION)
  const rings = fromPaths(result)
  for (const owned of [box, paths, result]) owned.delete()
  return boolean('Union', { subject: rings, clip: [] }, 'nonzero')
}

function inflate(
  rings: Ring[],
  deltaMm: number,
  {
    join,
    end,
    miterLimit,
  }: { join: Join; end: 'Polygon' | 'Butt' | 'Square' | 'Round' | 'Joined'; miterLimit: number },
): Polygon[] {
  const m = loaded()
  const paths = toPaths(m, rings)
  const joinType = { round: m.JoinType.Round, miter: m.JoinType.Miter, bevel: m.JoinType.Square }[join]
  const result = m.InflatePathsD(
    paths,
    deltaMm,
    joinType,
    m.EndType[end],
    miterLimit,
    PRECISION,
    Math.max(ARC_TOLERANCE_MM, Math.abs(deltaMm) / ARC_STEPS),
  )
  const out = fromPaths(result)
  paths.delete()
  result.delete()
  // An offset may touch or cross itself: one union settles it.
  return boolean('Union', { subject: out, clip: [] }, 'nonzero')
}

/** Grows (mm > 0) or shrinks (mm < 0) a region; holes shrink and grow the other way. A number joins by mitres up to so many times as long. */
export function offset(region: Region, mm: number, join: Join | number = 'round'): Polygon[] {
  if (region.length === 0) return []
  if (mm === 0) return [...region]
  const joined =
    typeof join === 'number'
      ? { join: 'miter' as const, miterLimit: join }
      : { join, miterLimit: MITRE_LIMIT }
  return inflate(sound(ringsOf(union(region))), mm, { ...joined, end: 'Polygon' })
}

/** A region without points that stray less than a tolerance (mm), grown or shrunk: as `offset` of what `simplify` gives, in one pass less. */
export function offsetPlain(
  region: Region,
  mm: number,
  { toleranceMm, join = 'round' }: { toleranceMm: number; join?: Join },
): Polygon[] {
  if (region.length === 0) return []
  const plain = simplify(region, toleranceMm)
  return mm === 0
    ? plain
    : inflate(sound(ringsOf(plain)), mm, { join, end: 'Polygon', miterLimit: MITRE_LIMIT })
}

/** What draws a line. */
export interface Pen {
  widthMm: number
  cap?: Cap
  join?: Join
  miterLimit?: number
}

/** The card that a pen covers along open or closed lines. */
export function strokeRegion(
  lines: readonly { points: Ring; closed: boolean }[],
  { widthMm, cap = 'butt', join = 'miter', miterLimit = MITRE_LIMIT }: Pen,
): Polygon[] {
  const parts: Polygon[][] = []
  for (const closed of [true, false]) {
    const chosen = lines
      .filter((line) => line.closed === closed)
      .map((line) => Float64Array.from(cleanLine(line.points)))
      .filter((points) => points.length >= (closed ? 6 : 4))
    if (chosen.length === 0) continue
    const end = closed ? 'Joined' : ({ butt: 'Butt', square: 'Square', round: 'Round' } as const)[cap]
    parts.push(inflate(chosen, widthMm / 2, { join, end, miterLimit }))
  }
  return parts.length === 1 ? parts[0]! : union(...parts)
}

/** Drops points that stray less than the tolerance (mm) from the outline. */
export function simplify(region: Region, toleranceMm: number): Polygon[] {
  const m = loaded()
  const paths = toPaths(m, ringsOf(region))
  const result = m.SimplifyPathsD(paths, toleranceMm, true)
  const rings = fromPaths(result)
  paths.delete()
  result.delete()
  return fillRings(rings, 'evenodd')
}
