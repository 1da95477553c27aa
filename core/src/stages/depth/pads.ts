// First pad positions. Pads lie inside the piece, drawn in by a margin that grows with their height (so that none shows
// from the side), wholly on card of one height. Outer and inner edges are walked first, corners before the stretches
// between them; then the point farthest from all pads gets one, until none is farther than the span.
import {
  intersect,
  offset,
  polygonArea,
  polygonContains,
  regionBox,
  regionRings,
  simplify,
  union,
  type Polygon,
  type Region,
  type Ring,
} from '../../base/geometry'
import { isSeeThrough } from '../layers'
import { fresh, type Memo } from '../../base'
import {
  ASSUMED_PAPER,
  builtLayers,
  isTranslucent,
  layerRegion,
  paperOf,
  type Foam,
  type Plan,
  type Project,
} from '../../project'
import { EdgeIndex } from './edge-index'
import { footprints, nearestBuild, type Build, type Footprint } from './foam'
import type { PieceHeight, Support } from './heights'

/** One pad under a piece; stacked foams count as one. */
export interface Pad {
  layerId: string
  pieceId: string
  /** Centre, mm in the project's frame. */
  x: number
  y: number
  /** Degrees, clockwise on screen. */
  rotation: number
  widthMm: number
  heightMm: number
  thicknessMm: number
  /** Foams stacked for it, thickest first. */
  foamIds: string[]
}

/** The pads of one piece. */
export interface PiecePads {
  pads: Pad[]
  /** Farthest that any point of the piece is from a pad, and where. */
  farthestMm: number
  farthestAt: [number, number] | null
  /** No pad fits anywhere. */
  noRoom: boolean
  /** Where a pad of the first size may lie: what the drawing hatches. */
  allowed: Region
}

/** Span in mm by thrift: the farthest any point may be from a pad, at the edge and inside. */
export const SPANS_MM = { sparing: 42, steady: 28, sale: 20 } as const

/** Span in mm of a plan, at the edge and inside. */
export function padSpan(plan: Plan): { edgeMm: number; insideMm: number } {
  const edgeMm = plan.padSpanMm ?? SPANS_MM[plan.thrift]
  return { edgeMm, insideMm: edgeMm * 1.25 }
}

/** How much outlines are smoothed, mm: pads lie so much farther in from the piece's own edge. */
const SLACK_MM = 0.05

interface Place {
  index: EdgeIndex
  region: Region
  footprint: Footprint
  build: Build
}

/** Pads for one piece that lies on foam. Needs the geometry loaded. */
export function padsForPiece(
  project: Project,
  piece: PieceHeight,
  hidden: Region | null,
  memo: Memo = fresh,
): PiecePads {
  const { thrift, padSpanMm } = project.plan
  const key = keyOf(project, piece, hidden)
  return memo('pads', [key, thrift, padSpanMm], () => {
    const { places, allowed } = placesFor(project, piece, hidden, memo)
    return planPads({ project, piece, places, allowed })
  })
}

/** Whether a pad fits under a piece at all, told without planning any; null where only the plan can tell. */
export function hasRoom(
  project: Project,
  piece: PieceHeight,
  hidden: Region | null,
  memo: Memo = fresh,
): boolean | null {
  const key = keyOf(project, piece, hidden)
  return memo('room for pads', [key, project.plan.thrift], () => {
    const { places } = placesFor(project, piece, hidden, memo)
    // A disc round a pad fits: so does the pad. A disc within it does not: neither does the pad.
    const fits = (halfOf: (pad: Footprint) => number) =>
      places.some(({ region, footprint }) => offset(region, -halfOf(footprint)).length > 0)
    if (fits(({ widthMm, heightMm }) => Math.hypot(widthMm, heightMm) / 2 + SLACK_MM)) return true
    return fits(({ widthMm, heightMm }) => Math.min(widthMm, heightMm) / 2 - SLACK_MM) ? null : false
  })
}

/** All that the places for pads follow from. */
function keyOf({ plan, drawer }: Project, piece: PieceHeight, hidden: Region | null): unknown[] {
  const named = piece.supports.map(({ region, needMm }) => [region, needMm])
  const { viewingDeg, padMarginMm } = plan
  return [piece.layer.id, piece.pieceId, piece.region, named, hidden, drawer.foams, viewingDeg, padMarginMm]
}

/** Card beneath that is wide enough for the smallest pad at all: slivers between outlines carry none. */
function roomySupports(piece: PieceHeight, foams: readonly Foam[], memo: Memo): Support[] {
  const leastMm2 = foams.reduce((least, foam) => Math.min(least, foam.widthMm * foam.heightMm), Infinity)
  return piece.supports.flatMap((support): Support[] => {
    const region = memo('roomy', [support.region, leastMm2], () =>
      support.region.filter((face) => polygonArea(face) >= leastMm2),
    )
    return region.length > 0 ? [{ ...support, region }] : []
  })
}

interface Places {
  places: Place[]
  /** Where pads may lie at all. */
  allowed: Polygon[]
}

/** Where under a piece which pads may lie: inside it, on card beneath, hidden from every side. Larger pads first. */
function placesFor(project: Project, piece: PieceHeight, hidden: Region | null, memo: Memo): Places {
  const key = keyOf(project, piece, hidden)
  return memo('places for pads', [key, project.plan.thrift], () => findPlaces(project, piece, hidden, memo))
}

function findPlaces(project: Project, piece: PieceHeight, hidden: Region | null, memo: Memo): Places {
  const { plan, drawer } = project
  const sizes = footprints(drawer.foams).filter(
    (f) => plan.thrift === 'sale' || Math.max(f.widthMm, f.heightMm) < 12 || f.heightMm < 4,
  )
  const tan = Math.tan((plan.viewingDeg * Math.PI) / 180)
  const places: Place[] = []
  let allowed: Polygon[] = []
  const outline = simplify(piece.region, SLACK_MM)
  for (const support of roomySupports(piece, drawer.foams, memo)) {
    const inside = offset(outline, -(plan.padMarginMm + SLACK_MM + support.needMm * tan), 'miter')
    const onCard = intersect(inside, support.region)
    const region = simplify(hidden ? intersect(onCard, hidden) : onCard, SLACK_MM)
    if (region.length === 0) continue
    allowed = union(allowed, region)
    const index = new EdgeIndex(region)
    for (const footprint of sizes) {
      const build = nearestBuild(footprint, support.needMm)
      if (build && Math.abs(build.totalMm - support.needMm) <= 0.5)
        places.push({ index, region, footprint, build })
    }
  }
  // Larger pads first; among equals the higher support, which carries the gap itself.
  places.sort(
    (a, b) => b.footprint.widthMm * b.footprint.heightMm - a.footprint.widthMm * a.footprint.heightMm,
  )
  return { places, allowed }
}

function planPads({
  project,
  piece,
  places,
  allowed,
}: Places & { project: Project; piece: PieceHeight }): PiecePads {
  const planner = new Planner(project, piece, places)
  planner.walkEdges()
  planner.fillInside()
  return { pads: planner.pads, ...planner.farthest(), noRoom: planner.pads.length === 0, allowed }
}

class Planner {
  readonly pads: Pad[] = []
  private readonly span
  private readonly samples: [number, number][]

  constructor(
    project: Project,
    private readonly piece: PieceHeight,
    private readonly places: readonly Place[],
  ) {
    this.span = padSpan(project.plan)
    this.samples = sampleRegion(piece.region, this.span.edgeMm / 5)
  }

  /** Walks the lines on which pad centres lie when pads follow an edge. */
  walkEdges(): void {
    const seen = new Set<string>()
    for (const place of this.places) {
      const half = Math.min(place.footprint.widthMm, place.footprint.heightMm) / 2
      const key = `${half} ${this.places.indexOf(this.places.find((p) => p.region === place.region)!)}`
      if (seen.has(key)) continue
      seen.add(key)
      for (const ring of regionRings(offset(place.region, -half - 0.02, 'miter'))) this.walkRing(ring)
    }
  }

  private walkRing(ring: Ring): void {
    const spacing = this.span.edgeMm
    for (const { x, y, deg, dx, dy } of stationsOf(ring, spacing)) {
      if (this.nearestPad(x, y) < spacing * 0.55) continue
      // A station that is blocked may do a little farther along.
      for (const shift of [0, 1.5, -1.5, 3, -3, 5, -5, 8, -8]) {
        if (Math.abs(shift) > spacing / 3) continue
        if (this.put(x + dx * shift, y + dy * shift, deg)) break
      }
    }
  }

  /** Greedy k-centre: the farthest point gets a pad as near as one can lie. */
  fillInside(): void {
    const candidates = this.candidates()
    const { insideMm } = this.span
    const distance = Float64Array.from(this.samples, ([x, y]) => this.nearestPad(x, y))
    const given = new Uint8Array(this.samples.length)
    for (let guard = 0; guard < 600; guard++) {
      let far = -1
      for (let i = 0; i < distance.length; i++)
        if (!given[i] && distance[i]! > insideMm && (far < 0 || distance[i]! > distance[far]!)) far = i
      if (far < 0) return
      const [sx, sy] = this.samples[far]!
      candidates.sort((a, b) => Math.hypot(a[0] - sx, a[1] - sy) - Math.hypot(b[0] - sx, b[1] - sy))
      const spot = candidates.find(
        ([x, y]) =>
          Math.hypot(x - sx, y - sy) < distance[far]! - 1 && this.nearestPad(x, y) > 8 && this.put(x, y, 0),
      )
      if (!spot) {
        given[far] = 1
        continue
      }
      const pad = this.pads[this.pads.length - 1]!
      this.samples.forEach(([x, y], i) => {
        distance[i] = Math.min(distance[i]!, Math.hypot(pad.x - x, pad.y - y))
      })
    }
  }

  farthest(): { farthestMm: number; farthestAt: [number, number] | null } {
    let farthestMm = 0
    let farthestAt: [number, number] | null = null
    if (this.pads.length > 0)
      for (const [x, y] of this.samples) {
        const d = this.nearestPad(x, y)
        if (d > farthestMm) {
          farthestMm = d
          farthestAt = [x, y]
        }
      }
    return { farthestMm, farthestAt }
  }

  private candidates(): [number, number][] {
    const out: [number, number][] = []
    const seen = new Set<Region>()
    for (const { region } of this.places) {
      if (seen.has(region)) continue
      seen.add(region)
      const inner = offset(region, -1.5, 'miter')
      for (const point of sampleRegion(inner, this.span.edgeMm / 6)) out.push(point)
      for (const ring of regionRings(inner))
        for (let i = 0; i < ring.length; i += Math.max(2, 2 * Math.floor(ring.length / 120)))
          out.push([ring[i]!, ring[i + 1]!])
    }
    return out
  }

  private nearestPad(x: number, y: number): number {
    let least = Infinity
    for (const pad of this.pads) least = Math.min(least, Math.hypot(pad.x - x, pad.y - y))
    return least
  }

  /** Puts the largest pad that lies inside at a place; turned along the edge, or a quarter more. */
  private put(x: number, y: number, deg: number): boolean {
    for (const { index, footprint, build } of this.places) {
      const { widthMm, heightMm } = footprint
      for (const turn of widthMm === heightMm ? [deg] : [deg, deg + 90]) {
        if (!index.holds(x, y, widthMm, heightMm, turn)) continue
        const reach = Math.max(widthMm, heightMm)
        if (
          this.pads.some(
            (pad) => Math.hypot(pad.x - x, pad.y - y) < (reach + Math.max(pad.widthMm, pad.heightMm)) * 0.71,
          )
        )
          continue
        this.pads.push({
          layerId: this.piece.layer.id,
          pieceId: this.piece.pieceId,
          x,
          y,
          rotation: turn,
          widthMm,
          heightMm,
          thicknessMm: build.totalMm,
          foamIds: build.foams.map((foam) => foam.id),
        })
        return true
      }
    }
    return false
  }
}

interface Station {
  x: number
  y: number
  deg: number
  dx: number
  dy: number
}

/** Corners of a ring, then even steps between them, no farther apart than the spacing. */
function stationsOf(ring: Ring, spacing: number): Station[] {
  const n = ring.length / 2
  const at = (i: number): [number, number] => [ring[((i + n) % n) * 2]!, ring[((i + n) % n) * 2 + 1]!]
  const along = new Float64Array(n + 1)
  for (let i = 0; i < n; i++) {
    const [ax, ay] = at(i)
    const [bx, by] = at(i + 1)
    along[i + 1] = along[i]! + Math.hypot(bx - ax, by - ay)
  }
  const total = along[n]!
  if (total < 1) return []
  const corners: number[] = []
  for (let i = 0; i < n; i++) {
    const [px, py] = at(i - 1)
    const [x, y] = at(i)
    const [qx, qy] = at(i + 1)
    const turn = Math.atan2(
      (x - px) * (qy - y) - (y - py) * (qx - x),
      (x - px) * (qx - x) + (y - py) * (qy - y),
    )
    const last = corners.at(-1)
    if (Math.abs(turn) > 0.8 && (last === undefined || along[i]! - last > spacing * 0.4))
      corners.push(along[i]!)
  }
  const anchors = corners.length > 0 ? corners : [0]
  const spots = [...anchors]
  anchors.forEach((from, k) => {
    const to = k + 1 < anchors.length ? anchors[k + 1]! : anchors[0]! + total
    // Pads this far apart leave no point of the edge farther than the span from one.
    const parts = Math.ceil((to - from) / (spacing * 1.6))
    for (let s = 1; s < parts; s++) spots.push((from + ((to - from) * s) / parts) % total)
  })
  let seg = 0
  const order = spots.map((s, i) => ({ s, i })).toSorted((a, b) => a.s - b.s)
  const out: Station[] = new Array<Station>(spots.length)
  for (const { s, i } of order) {
    while (seg < n - 1 && along[seg + 1]! < s) seg++
    const [ax, ay] = at(seg)
    const [bx, by] = at(seg + 1)
    const length = along[seg + 1]! - along[seg]! || 1
    const t = (s - along[seg]!) / length
    const deg = (Math.atan2(by - ay, bx - ax) * 180) / Math.PI
    // A square looks the same every quarter turn: name its turn between −45° and 45°.
    const tidy = ((((deg + 45) % 90) + 90) % 90) - 45
    out[i] = {
      x: ax + (bx - ax) * t,
      y: ay + (by - ay) * t,
      deg: Math.round(tidy * 10) / 10,
      dx: (bx - ax) / length,
      dy: (by - ay) / length,
    }
  }
  return out
}

/** Points of an even grid inside a region, and its outline's vertices thinned out. */
function sampleRegion(region: Region, step: number): [number, number][] {
  const b = regionBox(region)
  const pitch = Math.max(step, Math.sqrt(((b.maxX - b.minX) * (b.maxY - b.minY)) / 4000) || step)
  const out: [number, number][] = []
  for (const face of region) {
    for (let y = b.minY + pitch / 2; y < b.maxY; y += pitch)
      for (let x = b.minX + pitch / 2; x < b.maxX; x += pitch)
        if (polygonContains(face, x, y)) out.push([x, y])
    let walked = pitch
    const ring = face.outer
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      walked += Math.hypot(ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!)
      if (walked < pitch) continue
      walked = 0
      out.push([ring[i]!, ring[i + 1]!])
    }
  }
  return out
}

/**
 * Where pads under translucent card would show: null where the layer's own paper hides them, else the parts that opaque
 * layers further up cover. Back-lit stacks count thin card as translucent too.
 */
export function hidingRegion(project: Project, layerId: string, memo: Memo = fresh): Region | null {
  const layers = builtLayers(project)
  const at = layers.findIndex((layer) => layer.id === layerId)
  const shows = (k: number) => {
    const paper = paperOf(project, layers[k]!)
    return isTranslucent(paper) || (project.plan.litFromBehind && (paper ?? ASSUMED_PAPER).gsm < 200)
  }
  if (at < 0 || !shows(at)) return null
  const opaque = layers.filter((layer, k) => k > at && !shows(k) && !isSeeThrough(project, layer))
  const regions = opaque.map(layerRegion)
  return memo('cover of pads', regions, () => union(...regions))
}
