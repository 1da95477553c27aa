// Money: what the plan needs and what is spent so far. Prices are the drawer's; the hourly rate is the maker's.
import { polygonArea } from '../../base/geometry'
import { STAGES, type Project } from '../../project'
import type { DepthPlan } from '../depth'
import type { Load } from '../sheets'
import { sheetsNeeded } from '../sheets'
import { minutesSpent } from './timers'

/** In the drawer’s currency. */
export interface Cost {
  paper: number
  foam: number
  hands: number
  total: number
}

/** Cost of the plan: whole sheets used, foam by the pad, hands by the planned minutes. */
export function plannedCost(
  project: Project,
  loads: readonly Load[],
  depth: Pick<DepthPlan, 'foamUse'>,
  handsMinutes: number,
): Cost {
  return sum(
    sheetsNeeded(loads).reduce((total, need) => total + need.cost, 0),
    depth.foamUse.reduce((total, use) => total + use.cost, 0),
    (handsMinutes / 60) * project.plan.hourlyRate,
  )
}

/** What guests take of the paper that is paid here: of each whole sheet their share by area of the pieces on it. */
export function paperForGuests(loads: readonly Load[]): number {
  return loads.reduce((total, load) => {
    if (load.onOffCut) return total
    const area = (pieces: Load['pieces']) => pieces.reduce((sum, piece) => sum + polygonArea(piece.shape), 0)
    const all = area(load.pieces)
    return (
      total +
      (all === 0 ? 0 : (load.paper.price * area(load.pieces.filter((piece) => piece.guestId !== null))) / all)
    )
  }, 0)
}

/**
 * Cost so far: sheets noted as used, foam that ticked steps took, hands by the timers.
 * @param now ms since 1970, for the clock that runs
 */
export function costSoFar(project: Project, now: number): Cost {
  const price = new Map(project.drawer.papers.map((paper) => [paper.id, paper.price]))
  const foamPrice = new Map(project.drawer.foams.map((foam) => [foam.id, foam.pricePerPack / foam.perPack]))
  const minutes = STAGES.reduce((total, stage) => total + minutesSpent(project, stage, now), 0)
  return sum(
    project.journal.sheetsUsed.reduce((total, use) => total + use.count * (price.get(use.paperId) ?? 0), 0),
    project.progress.took
      .flatMap(({ foams }) => foams)
      .reduce((total, { foamId, count }) => total + count * (foamPrice.get(foamId) ?? 0), 0),
    (minutes / 60) * project.plan.hourlyRate,
  )
}

const sum = (paper: number, foam: number, hands: number): Cost => ({
  paper,
  foam,
  hands,
  total: paper + foam + hands,
})
