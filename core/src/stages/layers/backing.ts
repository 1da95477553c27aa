// What lies at the very back: a full sheet, or one that is cut round the design.
import { convexHull, offset, union, type Polygon, type Region } from '../../base/geometry'
import {
  addLayers,
  backingRect,
  designLayers,
  layerRegion,
  moveLayer,
  type Layer,
  type Project,
} from '../../project'
import { makeLayer } from './intake/intake'
import { closeGaps } from './makers/bridge'

/** A sheet that lies at the very back and bears no number. */
export const backingLayer = (sheet: Region): Layer =>
  makeLayer({ id: 'backing', name: 'Backing' }, sheet, {
    role: 'backing',
    numbered: false,
    joint: { kind: 'glue', gapMm: 0, pinned: false },
    colour: '#f2efe6',
  })

/** Puts a full sheet behind everything; what was backmost is then an ordinary layer. Projects without a backing size stay as they are. */
export function addBacking(project: Project): Project {
  const sheet = backingRect(project)
  return sheet ? behindAll(project, [sheet]) : project
}

/** The press for it, wherever something has nothing to hold it. */
export const BACK_ROUND = {
  label: 'Put card behind, cut round all of it',
  action: { kind: 'back-round' },
} as const

/** A backing that is cut round the design reaches so far beyond it, mm. */
const MARGIN_MM = 3
/** Bays and openings of it that are narrower are filled: by the first of these widths at which it is in one piece, mm. */
const FILLED_MM = [4, 8, 16, 32]

/** Puts one piece of card behind everything, cut round all of it with a margin. Needs the geometry loaded. */
export function addBackingRound(project: Project): Project {
  const sheet = backingRound(project)
  return sheet.length > 0 ? behindAll(project, sheet) : project
}

/** The outline of such a piece; empty where nothing is drawn. Needs the geometry loaded. */
export function backingRound(project: Project): Polygon[] {
  const design = union(...designLayers(project).map(layerRegion))
  if (design.length === 0) return []
  const grown = offset(design, MARGIN_MM)
  for (const widthMm of FILLED_MM) {
    const filled = closeGaps(grown, widthMm)
    if (filled.length === 1) return filled
  }
  // What lies far apart has all in between behind it.
  return [{ outer: convexHull(grown.flatMap(({ outer }) => [...outer])), holes: [] }]
}

function behindAll(project: Project, sheet: Region): Project {
  const layers = project.layers.map((layer) =>
    layer.role === 'backing' ? { ...layer, role: 'plain' as const } : layer,
  )
  const added = addLayers({ ...project, layers }, [backingLayer(sheet)])
  // What covers the sticks stays behind them.
  const covers = layers.findIndex(({ role }) => role !== 'cover')
  return moveLayer(added, added.layers.at(-1)!.id, Math.max(0, covers))
}
