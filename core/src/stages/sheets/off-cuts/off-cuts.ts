// What a run leaves: clean off-cuts that one straight cut frees, odd ones, and the drawer after it.
import {
  offset,
  polygonArea,
  rectangle,
  simplify,
  subtract,
  union,
  type Polygon,
} from '../../../base/geometry'
import type { Paper } from '../../../project'
import type { Load } from '../loads/loads'

/** An odd off-cut is worth keeping from this area (mm²) and breadth (mm) on. */
const ODD_MM2 = 2500
const ODD_BREADTH_MM = 25
/** Left beside cut pieces, mm. */
const EDGE_MM = 1
/** How much outlines may be smoothed before: nothing to the edge that is left. */
const SLACK_MM = 0.1

/** What is left of a load that is worth keeping. */
export interface LeftOver {
  /** Of its load: `clean` or `odd-1`, … */
  id: string
  loadId: string
  paperId: string
  kind: 'clean' | 'odd'
  /** Where it lies on the load's sheet. */
  shape: Polygon
  /** Which paper, and whether it is odd; its size is that of its box. */
  label: string
}

/** What is left of a load that is worth keeping: the clean off-cut, and odd shapes between the pieces. Needs the geometry loaded. */
export function leftOvers(load: Load): LeftOver[] {
  const { offCut, paper } = load
  const make = (kind: LeftOver['kind'], n: number, shape: Polygon): LeftOver => ({
    id: kind === 'clean' ? 'clean' : `odd-${n}`,
    loadId: load.id,
    paperId: paper.id,
    kind,
    shape,
    label: kind === 'odd' ? `${paper.name}, odd` : paper.name,
  })
  const clean = offCut ? [rectangle([offCut.x, offCut.y], offCut.widthMm, offCut.heightMm)] : []
  const taken = offset(
    load.pieces.flatMap(({ shape }) => simplify([shape], SLACK_MM)),
    EDGE_MM,
    'miter',
  )
  const free = simplify(subtract([load.outline], union(taken, clean)), SLACK_MM)
  const odd = offset(offset(free, -ODD_BREADTH_MM / 2), ODD_BREADTH_MM / 2 - 0.5)
    .filter((shape) => polygonArea(shape) >= ODD_MM2)
    .toSorted((a, b) => polygonArea(b) - polygonArea(a))
  return [
    ...clean.map((shape) => make('clean', 0, shape)),
    ...odd.map((shape, i) => make('odd', i + 1, shape)),
  ]
}

/**
 * The drawer after loads were cut: whole sheets and off-cuts taken out, what is kept put back under new ids.
 * @param cut.stamp makes ids of the new off-cuts unique, such as the time of the run
 */
export function stockAfter(
  stock: readonly Paper[],
  {
    loads,
    kept,
    stamp,
  }: {
    loads: readonly Pick<Load, 'paper' | 'onOffCut'>[]
    kept: readonly { paperId: string; label: string; path: string }[]
    stamp: string
  },
): Paper[] {
  return stock.map((paper) => {
    const own = loads.filter((load) => load.paper.id === paper.id)
    const back = kept.filter((left) => left.paperId === paper.id)
    if (own.length === 0 && back.length === 0) return paper
    const gone = new Set(own.flatMap((load) => (load.onOffCut ? [load.onOffCut.id] : [])))
    const added = back.map(({ label, path }, i) => ({
      id: `off-${stamp}-${paper.offCuts.length + i + 1}`,
      label,
      path,
    }))
    return {
      ...paper,
      count: Math.max(0, paper.count - own.filter((load) => !load.onOffCut).length),
      offCuts: [...paper.offCuts.filter((offCut) => !gone.has(offCut.id)), ...added],
    }
  })
}
