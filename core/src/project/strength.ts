// What a paper survives: asked by every stage.
import type { Cutter, Paper } from './schema'

/** Smallest strip (mm) of a paper that survives cutting and weeding; smooth 216 gsm where no paper is chosen; by knife it is wider. */
export function safeStripMm(paper: Paper | undefined, tool: Cutter['tool'] = 'machine'): number {
  return safeByPaper(paper) + (tool === 'knife' ? BY_HAND_MM : 0)
}

/** A hand with a knife strays so much more than a machine (mm). */
const BY_HAND_MM = 0.8

function safeByPaper(paper: Paper | undefined): number {
  if (!paper) return 1.2
  if (paper.finish === 'craft foam') return 3
  if (paper.finish === 'glitter') return 2
  if (paper.finish === 'mirror') return 1.3
  if (paper.finish === 'textured' || paper.gsm >= 260) return 1.5
  return paper.gsm < 150 ? 1 : 1.2
}
