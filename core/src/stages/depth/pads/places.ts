// Where pads may lie: inside the piece, drawn in by a margin that grows with their height so that none shows from the side, wholly on
// card of one height, hidden by what lies over them, of foam that makes the height.
import {
  intersect,
  offsetPlain,
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

/** A piece, and where under it foam is seen from nowhere; null where it is so all over. */
export interface Concealed {
  piece: PieceHeight
  hidden: Region | null
}

/** All that the places for pads follow from. */
export function keyOf({ plan, drawer }: Project, { piece, hidden }: Concealed): unknown[] {
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

/** Where pads may lie under a piece. */
export interface Places {
  places: Place[]
  /** Where pads may lie at all. */
  allowed: Polygon[]
}

/** Where under a piece which pads may lie: inside it, on card beneath, hidden from every side. Larger pads first. */
export function placesFor(project: Project, under: Concealed, memo: Memo): Places {
  const key = keyOf(project, under)
  return memo('places for pads', [key, project.plan.thrift], () => findPlaces(project, under, memo))
}

/** Pads that are used as far as the plan is thrifty: large ones for pieces that are sold alone. */
export const sizesFor = ({ plan, drawer }: Project): Footprint[] =>
  footprints(drawer.foams).filter(
    (f) => plan.thrift === 'sale' || Math.max(f.widthMm, f.heightMm) < 12 || f.heightMm < 4,
  )

/** So far from a piece's edge pads of a height keep, so that none shows from the side, mm. */
export const drawnInMm = ({ plan }: Project, needMm: number): number =>
  plan.padMarginMm + SLACK_MM + needMm * Math.tan((plan.viewingDeg * Math.PI) / 180)

function findPlaces(project: Project, { piece, hidden }: Concealed, memo: Memo): Places {
  const { plan, drawer } = project
  const follows = [piece.region, hidden, drawer.foams, plan.thrift]
  const all = roomySupports(piece, drawer.foams, memo).flatMap((support) =>
    // Drawn in by so much follows from the height, the angle and the margin: what stays of them is not looked for anew.
    memo(
      'places on a support',
      [...follows, support.region, support.needMm, drawnInMm(project, support.needMm)],
      () => placesOn(project, { piece, support, hidden }),
    ),
  )
  const allowed = memo(
    'allowed',
    all.map(({ region }) => region),
    () => all.reduce((sum: Polygon[], { region }) => union(sum, region), []),
  )
  // Larger pads first; among equals the higher support, which carries the gap itself.
  const places = all
    .flatMap((one) => one.places)
    .sort((a, b) => b.footprint.widthMm * b.footprint.heightMm - a.footprint.widthMm * a.footprint.heightMm)
  return { places, allowed }
}

interface OnSupport {
  piece: PieceHeight
  support: Support
  hidden: Region | null
}

/** Where on one support pads may lie, and which. */
function placesOn(
  project: Project,
  { piece, support, hidden }: OnSupport,
): { region: Polygon[]; places: Place[] }[] {
  const { drawer } = project
  const inside = offsetPlain(piece.region, -drawnInMm(project, support.needMm), {
    toleranceMm: SLACK_MM,
    join: 'miter',
  })
  const onCard = intersect(inside, support.region)
  const put = (region: Polygon[], foams: readonly Footprint[]) => {
    if (region.length === 0 || foams.length === 0) return []
    const edges = new Edges(region)
    const places = foams.flatMap((footprint): Place[] => {
      const build = nearestBuild(footprint, support.needMm)
      return build && Math.abs(build.totalMm - support.needMm) <= SERVES_MM
        ? [{ edges, region, footprint, build }]
        : []
    })
    return [{ region, places }]
  }
  const shaded = put(simplify(hidden ? intersect(onCard, hidden) : onCard, SLACK_MM), sizesFor(project))
  if (!hidden) return shaded
  // Clear foam hardly shows through veiled or lit card: it may lie where white foam may not.
  const clear = footprints(drawer.foams.filter(({ look }) => look === 'clear'))
  return clear.length > 0 ? [...shaded, ...put(simplify(subtract(onCard, hidden), SLACK_MM), clear)] : shaded
}
