// What stands a work off the pane: a ring as wide as the frame's lip hides, of as many sheets of craft foam as fill the gap between the
// work and the pane. Its sheets are layers, cut and counted like any other.
import { intersect, offset, polygonBox, subtract, type Region } from '../../base/geometry'
import { length, say } from '../../base/units'
import { BadInput } from '../../base'
import {
  addLayers,
  assignPaper,
  bedOf,
  builtLayers,
  depthAtHand,
  glueOf,
  layerRegion,
  isOnPane,
  removeLayer,
  type Layer,
  type Paper,
  type Project,
} from '../../project'
import { makeLayer } from '../layers'
import { depthPlan } from './depth'
import { inStrips, lipBand } from './lip'

/** Narrower than this it cannot be cut and stuck (mm). */
const LEAST_WIDTH_MM = 3
/** Foam gives by so much, so that a ring may be a little too high. */
export const RING_GIVES = 0.05
/** How its sheets are held on each other. */
const GLUED = { kind: 'glue', gapMm: 0, pinned: true } as const
/** Of more sheets than these no ring is built. */
export const MOST_SHEETS = 20
/** A ring may stick out from under the lip by so much, mm. */
const OUT_MM = 0.3

/** The layers of the ring. */
export const standOffLayers = (project: Project): Layer[] =>
  builtLayers(project).filter(({ role }) => role === 'stand-off')

/** Whether a ring lies where the lip hides it, and goes into the frame. Needs the geometry loaded. */
export function liesUnderLip(project: Project, rings: readonly Layer[]): boolean {
  const lip = lipBand(project)
  if (!lip) return false
  const room = offset(lip.band, OUT_MM)
  return rings.every((ring) => subtract(layerRegion(ring), room).length === 0)
}

/** The project without its ring. */
export const withoutStandOff = (project: Project): Project =>
  project.layers.filter(({ role }) => role === 'stand-off').reduce((p, { id }) => removeLayer(p, id), project)

/**
 * A ring that fills the gap between the work and the pane, in place of one that is there. Throws BadInput where there is no frame, no
 * lip to hide it, no craft foam, or no gap that a sheet goes into. Needs the geometry loaded.
 */
export function addStandOff(project: Project, stock: readonly Paper[]): Project {
  const bare = withoutStandOff(project)
  const lip = lipBand(bare)
  const limit = depthAtHand(bare.mount)
  if (!lip || !limit) throw new BadInput('only a frame has a pane to stand the work off from')
  const { band: ring } = lip
  if (offset(ring, -LEAST_WIDTH_MM / 2).length === 0)
    throw new BadInput(say`the lip hides less than ${length(LEAST_WIDTH_MM)}: a ring would be seen`)
  const baseMm = topUnder(bare, ring)
  const gapMm = limit.depthMm - baseMm
  const glueMm = glueOf(bare, { joint: GLUED })?.thicknessMm ?? 0
  const sheet = sheetFor(stock.length > 0 ? stock : bare.drawer.papers, { gapMm, glueMm })
  if (!sheet) throw new BadInput('there is no craft foam in the drawer: put in a paper of that finish')
  const n = sheetsInto({ gapMm, glueMm }, sheet)
  if (n <= 0)
    throw new BadInput(
      say`${length(Math.max(0, gapMm))} are left between the work and the pane, less than a sheet of ${sheet.name} takes`,
    )
  const reach = reachOf(bare, sheet)
  const pieces = fits(ring, reach) ? ring : inStrips(lip, Math.max(...reach))
  const layers = Array.from({ length: n }, (_, k) =>
    makeLayer({ id: `stand-off-${k + 1}`, name: `Stand-off ring ${k + 1}` }, pieces, {
      role: 'stand-off',
      numbered: false,
      colour: sheet.colour,
      joint: GLUED,
    }),
  )
  const added = addLayers(bare, layers)
  return assignPaper(
    added,
    added.layers.slice(-n).map(({ id }) => id),
    { paper: sheet, stock },
  )
}

/** How high the work stands under the ring, mm: where nothing lies there, on the board. */
function topUnder(project: Project, ring: Region): number {
  return depthPlan(project)
    .pieces.filter(({ layer }) => layer.joint.kind !== 'tab' && !isOnPane(layer))
    .flatMap(({ parts }) => parts)
    .reduce(
      (most, { region, topMm }) => (topMm > most && intersect(region, ring).length > 0 ? topMm : most),
      0,
    )
}

/** A gap, and the glue under each sheet that goes into it, mm. */
interface Filled {
  gapMm: number
  glueMm: number
}

const sheetsInto = ({ gapMm, glueMm }: Filled, { thicknessMm }: Paper): number =>
  Math.min(MOST_SHEETS, Math.floor(gapMm / (thicknessMm * (1 - RING_GIVES) + glueMm) + 1e-9))

/** The craft foam that fills the gap best; of equals the one that takes the fewest sheets. */
const sheetFor = (papers: readonly Paper[], gap: Filled): Paper | undefined =>
  papers
    .filter(({ finish }) => finish === 'craft foam')
    .map((paper) => ({
      paper,
      leftMm: Math.abs(gap.gapMm - sheetsInto(gap, paper) * (paper.thicknessMm + gap.glueMm)),
    }))
    .toSorted((a, b) => a.leftMm - b.leftMm || b.paper.thicknessMm - a.paper.thicknessMm)[0]?.paper

/** What can be cut of a sheet, across and down, mm. */
function reachOf({ drawer: { cutter } }: Project, { widthMm, heightMm }: Paper): [number, number] {
  const { bedWidthMm, bedHeightMm } = bedOf(cutter)
  return [
    Math.min(widthMm, bedWidthMm) - 2 * cutter.rimMm,
    Math.min(heightMm, bedHeightMm) - 2 * cutter.rimMm,
  ]
}

function fits(ring: Region, [a, b]: readonly [number, number]): boolean {
  const { minX, minY, maxX, maxY } = polygonBox(ring[0]!)
  const [w, h] = [maxX - minX, maxY - minY]
  return (w <= a && h <= b) || (w <= b && h <= a)
}
