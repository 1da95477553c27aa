import type { MatChoice } from '../../../project'
import type { Load } from './loads'

const MIND: Record<MatChoice['mind'][number], string> = {
  'holds less': 'it holds less than the card wants: tape the edges of the sheet to it',
  'holds more':
    'it holds more than the card wants: press a cloth on it first, and peel slowly with the mat turned over',
  'too small': 'it is smaller than the sheet: what hangs over is not cut',
  worn: 'it is worn: tape the edges, and wash it soon',
  done: 'it has done its loads: wash it, or take a new one',
}

/** What a load is laid on, and what to mind: “medium tack mat”, or the mat at hand that stands in for it. */
export function matWords({ setting, mat }: Pick<Load, 'setting' | 'mat'>): { mat: string; mind: string[] } {
  if (setting.basis.from === 'hand') return { mat: 'a cutting mat', mind: [] }
  return mat
    ? { mat: `mat “${mat.name}”`, mind: mat.mind.map((one) => MIND[one]) }
    : { mat: `${setting.tack} tack mat`, mind: [] }
}
