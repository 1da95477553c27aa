// Edges and openings in rows: scallops, torn edges, rows of holes along an edge. Lengths in mm.
import {
  ellipse,
  fillRings,
  offset,
  perimeter,
  polygonArea,
  subtract,
  union,
  type Polygon,
  type Region,
  type Ring,
} from '../../base/geometry'
import { seededRandom } from '../../base'
import { findLayer, layerRegion, type Project } from '../../project'
import { reshaped } from './reshaped'

/** The outer edge of a layer made anew. */
export interface Edge {
  kind: 'scalloped' | 'torn' | 'holes'
  /** Width of a scallop, depth of a torn edge, or diameter of a hole, mm. */
  mm: number
  /** Card between the holes of a row, and between them and the edge, mm. */
  roomMm?: number
}

/** A torn edge changes its way about so often, mm. */
const TORN_STEP_MM = 1.6
/** Scallops overlap by this share, so that they hold to each other. */
const SCALLOP_OVERLAP = 1.08
const SEED = 7

/** A layer with another outer edge. Unchanged where nothing would be left of it. Needs the geometry loaded. */
export function withEdge(project: Project, layerId: string, edge: Edge): Project {
  const layer = findLayer(project, layerId)
  // What is cut flat and becomes something else has no edge of its own.
  if (!layer || layer.blanks.length > 0) return project
  const region = edged(layerRegion(layer), edge).filter((face) => polygonArea(face) > 0.05)
  if (region.length === 0) return project
  return reshaped(project, layer, { region })
}

/** The same of a region; its openings stay as they are. */
export function edged(region: Region, { kind, mm, roomMm = mm }: Edge): Polygon[] {
  const outers = region.map((face) => face.outer)
  const openings = fillRings(
    region.flatMap((face) => face.holes),
    'nonzero',
  )
  if (kind === 'holes') {
    const ways = offset(
      outers.map((outer) => ({ outer, holes: [] })),
      -(roomMm + mm / 2),
    )
    return subtract(
      region,
      ways.flatMap(({ outer }) => spread(outer, mm + roomMm).map(({ x, y }) => ellipse([x, y], mm / 2))),
    )
  }
  const edge = kind === 'scalloped' ? scalloped(outers, mm) : torn(outers, mm)
  return openings.length > 0 ? subtract(edge, openings) : edge
}

/** Bumps side by side along an outline, half of each beyond it, so many that they come out even. */
function scalloped(outers: readonly Ring[], widthMm: number): Polygon[] {
  return outers.flatMap((outer) => {
    const places = spread(outer, widthMm)
    const radius = (perimeter(outer) / places.length / 2) * SCALLOP_OVERLAP
    return union(
      [{ outer, holes: [] }],
      places.map(({ x, y }) => ellipse([x, y], radius)),
    )
  })
}

/** An outline that wanders in and out by up to half of a depth, the same each time. */
function torn(outers: readonly Ring[], depthMm: number): Polygon[] {
  const random = seededRandom(SEED)
  const rings = outers.map((outer) => {
    const places = spread(outer, TORN_STEP_MM)
    let drift = 0
    return Float64Array.from(
      places.flatMap(({ x, y, nx, ny }) => {
        // A slow drift with small teeth on it.
        drift = 0.7 * drift + 0.3 * (random() - 0.5)
        const by = depthMm * Math.max(-0.5, Math.min(0.5, drift * 1.4 + 0.4 * (random() - 0.5)))
        return [x + nx * by, y + ny * by]
      }),
    )
  })
  return fillRings(rings, 'nonzero')
}

/** Places along a ring at even distances, near to a wished one, with the normal that points outwards. */
function spread(ring: Ring, wishedMm: number): { x: number; y: number; nx: number; ny: number }[] {
  const length = perimeter(ring)
  const n = Math.max(3, Math.round(length / wishedMm))
  const out = []
  let [walked, i] = [0, 0]
  for (let k = 0; k < n; k++) {
    const goal = (length * k) / n
    for (;;) {
      const j = (i + 2) % ring.length
      const [ax, ay, bx, by] = [ring[i]!, ring[i + 1]!, ring[j]!, ring[j + 1]!]
      const step = Math.hypot(bx - ax, by - ay)
      if (walked + step >= goal - 1e-9 && step > 0) {
        const t = Math.min(1, Math.max(0, (goal - walked) / step))
        // Outlines run clockwise on screen: outwards is to the left of the way.
        out.push({ x: ax + (bx - ax) * t, y: ay + (by - ay) * t, nx: (by - ay) / step, ny: (ax - bx) / step })
        break
      }
      walked += step
      i = j
      if (i === 0 && walked > length + 1) break
    }
  }
  return out
}
