// What a paper survives, and what light does with it: asked by every stage.
import type { Paper } from './schema'

/** Smallest strip (mm) of a paper that survives cutting and weeding; smooth 216 gsm where no paper is chosen. */
export function safeStripMm(paper: Paper | undefined): number {
  if (!paper) return 1.2
  if (paper.finish === 'glitter') return 2
  if (paper.finish === 'mirror') return 1.3
  if (paper.finish === 'textured' || paper.gsm >= 260) return 1.5
  return paper.gsm < 150 ? 1 : 1.2
}

/** Whether light from behind shows a pad through this paper. */
export const isTranslucent = (paper: Paper | undefined): boolean =>
  paper !== undefined && (paper.finish === 'vellum' || paper.finish === 'acetate' || paper.gsm < 150)
