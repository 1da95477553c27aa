// Why a pad may not lie somewhere: too near an edge, nothing beneath, in sight, no foam of the height. For the map of a layer, and for
// pads that the maker put.
import { intersect, offsetPlain, subtract, union, type Polygon, type Region } from '../../../base/geometry'
import type { Memo } from '../../../base'
import type { Project } from '../../../project'
import { footprints, nearestBuild, SERVES_MM } from '../foam'
import type { PieceHeight, Support } from '../heights'
import { Edges } from './edges'
import { padChords } from './lie'
import { overlaps } from './pads'
import type { Pad } from './poses'
import { drawnInMm, SLACK_MM, type Concealed } from './places'

/** Why a pad may not lie somewhere. */
export type WhyNot = 'edge' | 'beneath' | 'shows' | 'height' | 'on-another'

/** The piece drawn in so far that pads of a height are not seen past its edge. */
const insideFor = (project: Project, piece: PieceHeight, { needMm }: Support): Polygon[] =>
  offsetPlain(piece.region, -drawnInMm(project, needMm), { toleranceMm: SLACK_MM, join: 'miter' })

/** Whether some foam makes a height. */
const isMade = (project: Project, mm: number): boolean =>
  footprints(project.drawer.foams).some((size) => {
    const build = nearestBuild(size, mm)
    return build !== undefined && Math.abs(build.totalMm - mm) <= SERVES_MM
  })

/** The parts of a piece under which no pad may lie, by the first reason against it. Needs the geometry loaded. */
export function whyNotUnder(
  project: Project,
  { piece, hidden }: Concealed,
  memo: Memo,
): { why: WhyNot; region: Region }[] {
  const { viewingDeg, padMarginMm } = project.plan
  const named = piece.supports.map(({ region, needMm }) => [region, needMm])
  return memo(
    'why no pad',
    [piece.region, named, hidden, project.drawer.foams, viewingDeg, padMarginMm],
    () => {
      let carried: Polygon[] = []
      let inside: Polygon[] = []
      let noFoam: Polygon[] = []
      for (const support of piece.supports) {
        carried = union(carried, support.region)
        const own = intersect(insideFor(project, piece, support), support.region)
        inside = union(inside, own)
        if (!isMade(project, support.needMm)) noFoam = union(noFoam, own)
      }
      const shows = hidden ? subtract(subtract(inside, noFoam), hidden) : []
      return (
        [
          { why: 'beneath', region: subtract(piece.region, carried) },
          { why: 'edge', region: subtract(intersect(piece.region, carried), inside) },
          { why: 'height', region: noFoam },
          { why: 'shows', region: shows },
        ] as const
      ).filter(({ region }) => region.length > 0)
    },
  )
}

/** What speaks against a pad that the maker put; null where it is as good as any. Needs the geometry loaded. */
export function whyNotHere(
  project: Project,
  { piece, hidden, others }: Concealed & { others: readonly Pad[] },
  pad: Pad,
): WhyNot | null {
  const lies = (region: Region) => new Edges(region).holdsAll(padChords(pad))
  if (!lies(piece.region)) return 'edge'
  const under = piece.supports.filter(({ region }) => lies(region))
  if (under.length === 0) return 'beneath'
  const fitting = under.find(({ needMm }) => Math.abs(needMm - pad.thicknessMm) <= SERVES_MM)
  if (!fitting) return 'height'
  if (!lies(insideFor(project, piece, fitting))) return 'edge'
  const isClear = pad.foamIds.every(
    (id) => project.drawer.foams.find((foam) => foam.id === id)?.look === 'clear',
  )
  if (hidden && !isClear && !lies(hidden)) return 'shows'
  return others.some((other) => other !== pad && overlaps(pad, other)) ? 'on-another' : null
}
