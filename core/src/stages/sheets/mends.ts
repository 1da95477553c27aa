import { assignPaper, dropPin, setPlan, takeOffCuts, takeSizes, type MendTable } from '../../project'

declare module '../../project/snag' {
  interface Mends {
    'take-off-cuts': { paperIds: string[] }
    'take-sizes': { paperIds: string[] }
    'merge-papers': { paperId: string; layerIds: string[] }
    'drop-pin': { layerId: string; pieceId: string; copy: number }
    'turn-freely': object
  }
}

/** Mends of the sheets stage. */
export const sheetsMends: MendTable<
  'take-off-cuts' | 'take-sizes' | 'merge-papers' | 'drop-pin' | 'turn-freely'
> = {
  'take-off-cuts': (project, { paperIds }, stock) => takeOffCuts(project, stock, paperIds),
  'take-sizes': (project, { paperIds }, stock) => takeSizes(project, stock, paperIds),
  'merge-papers': (project, { paperId, layerIds }) => {
    const paper = project.drawer.papers.find((p) => p.id === paperId)
    return paper ? assignPaper(project, layerIds, { paper }) : project
  },
  'drop-pin': (project, pin) => dropPin(project, pin),
  'turn-freely': (project) => setPlan(project, { turns: 'free' }),
}
