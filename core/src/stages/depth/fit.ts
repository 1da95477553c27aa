// Gaps fitted to the depth at hand.
import { isOnPane, isStandOff, standsInFrame, type Project } from '../../project'
import { depthPlan, type DepthPlan } from './depth'
import { gapPlanner, leastStackMm, roomOf, withGaps } from './gaps'

/** Heights that differ by less are equal, mm. */
const HAIR_MM = 1e-6
/** Fits that came out too high are looked for in so many steps down to glue everywhere. */
const STEPS = 8

/**
 * Sets the best gaps for the depth at hand; a gap of nothing becomes a glued joint, to which a gap may come back. Which pads find room is
 * reckoned gap by gap: the stack is built to see, and where it came out higher than the room its gaps are chosen for less. Needs the
 * geometry loaded.
 */
export function fitGaps(project: Project): Project {
  const room = roomOf(project)
  if (room === null) return project
  const planFor = gapPlanner(project)
  const fitFor = (forMm: number) => {
    const { gaps, stackMm: plannedMm } = planFor(forMm)
    const fitted = withGaps(project, gaps)
    return { fitted, plannedMm, builtMm: stackedMm(depthPlan(fitted)) }
  }
  let best = fitFor(room)
  const mostMm = Math.max(room, best.plannedMm) + HAIR_MM
  if (best.builtMm <= mostMm) return best.fitted
  const [{ plannedMm }, leastMm] = [best, leastStackMm(project)]
  for (let k = 1; k <= STEPS && best.builtMm > mostMm; k++) {
    const next = fitFor(plannedMm + ((leastMm - plannedMm) * k) / STEPS)
    if (next.builtMm < best.builtMm) best = next
  }
  return best.fitted
}

/** How high what is stacked comes to stand, mm: the height of what stands by its tabs is its maker's. */
const stackedMm = ({ pieces }: DepthPlan): number =>
  pieces
    .filter(({ layer }) => !isOnPane(layer) && !isStandOff(layer) && !standsInFrame(layer))
    .reduce((most, { topMm }) => Math.max(most, topMm), 0)
