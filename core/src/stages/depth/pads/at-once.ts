// Whether a pad fits under a piece, told at a few places without cutting any outline: most pieces are held, and this is enough to know it.
import { discLiesIn, discMisses, likelyPlaces, MITRE_LIMIT, type Point } from '../../../base/geometry'
import { hasBoardBehind, type Project } from '../../../project'
import { nearestBuild, SERVES_MM } from '../foam'
import { even, nearUnder, type Level, type Lifted, type Placed } from '../heights'
import { drawnInMm, sizesFor, SLACK_MM } from './places'

/** So many of what lies highest under a piece are looked at. */
const HIGHEST = 4

/**
 * True where a pad surely fits under a piece that lies on what is below, its own card hiding the pad; false where only the places for
 * pads can tell.
 */
export function takesPadAtOnce(project: Project, piece: Lifted, below: Level | null): boolean {
  const near = nearUnder(piece.region, below)
  const board = hasBoardBehind(project.mount) && near.length < HIGHEST ? [null] : []
  return [...near.slice(0, HIGHEST), ...board].some((on, k) => {
    const needMm = even(piece.bottomMm - (on?.topMm ?? 0))
    const radiusMm = needMm < 0 ? null : smallestPad(project, needMm)
    if (radiusMm === null) return false
    const higher = near.slice(0, k)
    // Mitred corners give way farther than the edges beside them.
    const drawnIn = MITRE_LIMIT * (drawnInMm(project, needMm) + SLACK_MM)
    return piece.region.some((face) =>
      likelyPlaces(face).some(
        (at) =>
          discLiesIn(face, [at.x, at.y], radiusMm + drawnIn) &&
          liesOn(on, at, radiusMm + 2 * SLACK_MM) &&
          higher.every(({ region }) => discMisses(region, [at.x, at.y], radiusMm)),
      ),
    )
  })
}

/** Whether a disc lies on card, or on the board, which is everywhere. */
const liesOn = (on: Placed | null, { x, y }: Point, radiusMm: number): boolean =>
  on === null || on.region.some((face) => discLiesIn(face, [x, y], radiusMm))

/** Half the diagonal of the smallest pad that makes a height, mm; null where none does. */
function smallestPad(project: Project, needMm: number): number | null {
  const halves = sizesFor(project).flatMap((size) => {
    const build = nearestBuild(size, needMm)
    if (!build || Math.abs(build.totalMm - needMm) > SERVES_MM) return []
    return Math.hypot(size.widthMm, size.heightMm) / 2 + SLACK_MM
  })
  return halves.length > 0 ? Math.min(...halves) : null
}
