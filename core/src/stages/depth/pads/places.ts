// Where pads may lie: inside the piece, drawn in by a margin that grows with their height so that none shows from the side, wholly on
// card of one height, hidden by what lies over them, of foam that makes the height.
import {
  intersect,
  offset,
  polygonArea,
  simplify,
  subtract,
  union,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import type { Memo } from '../../../base'
import type { Foam, Project } from '../../../project'
import { Edges } from './edges'
import { footprints, nearestBuild, SERVES_MM, type Build, type Footprint } from '../foam'
import type { PieceHeight, Support } from '../heights'

/** How much outlines are smoothed, mm: pads lie so much farther in from the piece's own edge. */
export const SLACK_MM = 0.05
/** A part of a piece under which pads of one build may lie. */
export interface Place {
  edges: Edges
  region: Region
  footprint: Footprint
  build: Build
}

/** All that the places for pads follow from. */
export function keyOf({ plan, drawer }: Project, piece: PieceHeight, hidden: Region | null): unknown[] {
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

export interface Places {
  places: Place[]
  /** Where pads may lie at all. */
  allowed: Polygon[]
}

/** Where under a piece which pads may lie: inside it, on card beneath, hidden from every side. Larger pads first. */
export function placesFor(project: Project, piece: PieceHeight, hidden: Region | null, memo: Memo): Places {
  const key = keyOf(project, piece, hidden)
  return memo('places for pads', [key, project.plan.thrift], () => findPlaces(project, piece, hidden, memo))
}

function findPlaces(project: Project, piece: PieceHeight, hidden: Region | null, memo: Memo): Places {
  const { plan, drawer } = project
  const sizes = footprints(drawer.foams).filter(
    (f) => plan.thrift === 'sale' || Math.max(f.widthMm, f.heightMm) < 12 || f.heightMm < 4,
  )
  const clear = footprints(drawer.foams.filter(({ look }) => look === 'clear'))
  const tan = Math.tan((plan.viewingDeg * Math.PI) / 180)
  const places: Place[] = []
  let allowed: Polygon[] = []
  const outline = simplify(piece.region, SLACK_MM)
  for (const support of roomySupports(piece, drawer.foams, memo)) {
    const inside = offset(outline, -(plan.padMarginMm + SLACK_MM + support.needMm * tan), 'miter')
    const onCard = intersect(inside, support.region)
    const put = (region: Region, foams: readonly Footprint[]) => {
      if (region.length === 0 || foams.length === 0) return
      allowed = union(allowed, region)
      const edges = new Edges(region)
      for (const footprint of foams) {
        const build = nearestBuild(footprint, support.needMm)
        if (build && Math.abs(build.totalMm - support.needMm) <= SERVES_MM)
          places.push({ edges, region, footprint, build })
      }
    }
    put(simplify(hidden ? intersect(onCard, hidden) : onCard, SLACK_MM), sizes)
    // Clear foam hardly shows through veiled or lit card: it may lie where white foam may not.
    if (hidden && clear.length > 0) put(simplify(subtract(onCard, hidden), SLACK_MM), clear)
  }
  // Larger pads first; among equals the higher support, which carries the gap itself.
  places.sort(
    (a, b) => b.footprint.widthMm * b.footprint.heightMm - a.footprint.widthMm * a.footprint.heightMm,
  )
  return { places, allowed }
}
