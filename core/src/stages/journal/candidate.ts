// What one of a project takes and brings, for the choice before a fair.
import { polygonArea } from '../../base/geometry'
import type { Project } from '../../project'
import type { DepthPlan } from '../depth'
import { thingNeeded } from '../measure'
import type { Load } from '../sheets'
import type { Candidate } from './fair'
import type { Priced } from './price'

/** A project as it is counted among others: what one takes and brings, and what all that is still to be cut of it wants. */
export interface Counted extends Omit<Candidate, 'least' | 'most'> {
  /** Whole sheets by paper, single pads by foam, and things that are counted, for the whole batch, less what is cut and stuck. */
  wants: { sheets: Record<string, number>; pads: Record<string, number>; things: Record<string, number> }
}

/**
 * One of a project among others: sheets by the share of them that its pieces take with what is lost round them, foam by the pad, its
 * price and its hands.
 */
export function candidateOf(
  project: Project,
  { loads, depth, priced }: { loads: readonly Load[]; depth: Pick<DepthPlan, 'foamUse'>; priced: Priced },
): Counted {
  const { batch } = project.plan
  const need = thingNeeded(project)
  const sheetsEach: Record<string, number> = {}
  const sheets: Record<string, number> = {}
  for (const { paper, onOffCut, offCut, outline } of loads) {
    if (onOffCut) continue
    sheets[paper.id] = (sheets[paper.id] ?? 0) + 1
    const kept = offCut ? (offCut.widthMm * offCut.heightMm) / polygonArea(outline) : 0
    sheetsEach[paper.id] = (sheetsEach[paper.id] ?? 0) + (1 - kept) / batch
  }
  return {
    id: project.id,
    name: project.name,
    bringsEach: priced.left,
    minutesEach: priced.hours * 60,
    sheetsEach,
    wants: {
      sheets: project.plan.cutWith ? {} : sheets,
      pads: Object.fromEntries(
        depth.foamUse.map(({ foam, needed, taken }) => [foam.id, Math.max(0, needed - taken)]),
      ),
      things: need ? { [need.thing.id]: Math.max(0, need.needed - need.taken) } : {},
    },
    thingsEach: need ? { [need.thing.id]: need.needed / batch } : {},
    padsEach: Object.fromEntries(depth.foamUse.map(({ foam, needed }) => [foam.id, needed / batch])),
  }
}
