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

/** Mends that give what they name another shape, size or paper: every piece of it, or some. */
const RESHAPES: Partial<Record<Mend['kind'], 'every' | 'some'>> = {
  'fit-design': 'every',
  'fit-sheet': 'every',
  'fit-opening': 'some',
  'drop-specks': 'some',
  'thicken-layer': 'some',
  'bridge-layer': 'some',
  'gather-layers': 'some',
  'leave-out': 'every',
  'cut-out': 'some',
  'cut-off': 'some',
  'fill-holes': 'some',
  'fill-under': 'some',
  'to-openings': 'some',
  'cut-in-parts': 'some',
  'split-off': 'some',
  'move-pieces': 'some',
  'fill-opening': 'some',
  'draw-strip': 'some',
  'move-tie': 'some',
  'widen-at': 'some',
  edge: 'every',
  'cut-mirrored': 'every',
  'swap-paper': 'every',
  'nearest-papers': 'every',
  'merge-papers': 'every',
}

/** Whether a mend spoils some of the cut pieces of what it names, and leaves others as they are. */
export const spoilsSome = ({ kind }: Mend): boolean => RESHAPES[kind] === 'some'

/** Layers whose cut pieces a mend may spoil. */
export function reshapedBy(project: Project, mend: Mend): readonly string[] {
  if (!RESHAPES[mend.kind]) return []
  if ('layerId' in mend) return [mend.layerId]
  return 'layerIds' in mend ? mend.layerIds : project.layers.map(({ id }) => id)
}
