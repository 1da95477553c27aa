// Pieces that are cut and are to be cut again.
import { fresh, type Memo } from '../../../base'
import { outdatedCuts, type Outdated, type Project, type Snag } from '../../../project'

const WHY: Record<Outdated['why'], string> = {
  shape: 'its shape has changed since',
  paper: 'it is to be of another paper now',
  gone: 'the work no longer has it',
}

/** Cut pieces that what was changed afterwards has spoilt. */
export const againSnags = (project: Project, memo: Memo = fresh): Snag[] =>
  outdatedCuts(project, memo).map(({ layerId, layerName, pieces, why }) => ({
    code: why === 'gone' ? 'cut-for-nothing' : 'cut-again',
    stage: 'sheets',
    severity: 'caution',
    layer: project.layers.some(({ id }) => id === layerId) ? layerId : null,
    at: null,
    message: `${pieces === 1 ? 'A piece' : `${pieces} pieces`} of “${layerName}” ${pieces === 1 ? 'is' : 'are'} cut, but ${WHY[why]}${why === 'gone' ? '' : `: ${pieces === 1 ? 'it is' : 'they are'} on the sheets again. Undo the change to keep what is cut`}.`,
  }))
