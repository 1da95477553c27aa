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
