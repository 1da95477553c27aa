import { assignPaper, type MendTable } from '../../project'
import { assignNearest } from './assign'

declare module '../../project/snag' {
  interface Mends {
    'nearest-papers': { layerIds: string[] }
    'swap-paper': { layerId: string; paperId: string }
  }
}

/** Mends of the paper stage. */
export const paperMends: MendTable<'nearest-papers' | 'swap-paper'> = {
  'nearest-papers': (project, { layerIds }, stock) => assignNearest(project, layerIds, stock),
  'swap-paper': (project, { layerId, paperId }, stock) => {
    const paper = stock.find((p) => p.id === paperId)
    return paper ? assignPaper(project, [layerId], { paper, stock }) : project
  },
}
