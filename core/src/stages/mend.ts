// One press that mends a snag: the mends of all stages in one table.
import type { Mend, Mends, MendTable, Paper, Project } from '../project'
import { depthMends } from './depth'
import { layersMends } from './layers'
import { measureMends } from './measure'
import { paperMends } from './paper'
import { sheetsMends } from './sheets'

const mends: MendTable<keyof Mends> = {
  ...measureMends,
  ...layersMends,
  ...paperMends,
  ...sheetsMends,
  ...depthMends,
}

/** Applies a mend; a mend whose layer or paper is gone changes nothing. */
export const mendProject = (project: Project, mend: Mend, stock: readonly Paper[]): Project =>
  (mends[mend.kind] as (project: Project, mend: Mend, stock: readonly Paper[]) => Project)(
    project,
    mend,
    stock,
  )

/** Several mends, one after the other. */
export const mendAll = (project: Project, list: readonly Mend[], stock: readonly Paper[]): Project =>
  list.reduce((mended, mend) => mendProject(mended, mend, stock), project)

/** Mends that give what they name another shape, size or paper. */
const RESHAPES: ReadonlySet<Mend['kind']> = new Set<Mend['kind']>([
  'fit-design',
  'fit-sheet',
  'fit-opening',
  'drop-specks',
  'thicken-layer',
  'bridge-layer',
  'gather-layers',
  'leave-out',
  'cut-out',
  'cut-off',
  'fill-holes',
  'fill-under',
  'to-openings',
  'cut-in-parts',
  'split-off',
  'move-pieces',
  'fill-opening',
  'draw-strip',
  'move-tie',
  'widen-at',
  'edge',
  'cut-mirrored',
  'swap-paper',
  'nearest-papers',
  'merge-papers',
])

/** Layers whose cut pieces a mend may spoil. */
export function reshapedBy(project: Project, mend: Mend): readonly string[] {
  if (!RESHAPES.has(mend.kind)) return []
  if ('layerId' in mend) return [mend.layerId]
  return 'layerIds' in mend ? mend.layerIds : project.layers.map(({ id }) => id)
}
