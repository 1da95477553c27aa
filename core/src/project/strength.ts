// What a paper survives: asked by every stage.
import type { Paper } from './schema'

/** Smallest strip (mm) of a paper that survives cutting and weeding; smooth 216 gsm where no paper is chosen. */
export function safeStripMm(paper: Paper | undefined): number {
  if (!paper) return 1.2
  if (paper.finish === 'craft foam') return 3
  if (paper.finish === 'glitter') return 2
  if (paper.finish === 'mirror') return 1.3
  if (paper.finish === 'textured' || paper.gsm >= 260) return 1.5
  return paper.gsm < 150 ? 1 : 1.2
}
