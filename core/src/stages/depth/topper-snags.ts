// Findings about how a topper is held.
import { length, say } from '../../base/units'
import type { Snag } from '../../project'
import { BACK_ROUND } from '../layers'
import type { TopperHold } from './topper'

/** A free end that sinks by more, held level, is seen to droop (mm). */
const DROOPS_MM = 2

/** One press after which sticks hold better; none where nothing is known that would. */
function helped({ helpedBy }: TopperHold): Pick<Snag, 'mend'> {
  if (helpedBy?.kind === 'free')
    return { mend: { label: 'Put the sticks where they hold', action: { kind: 'free-sticks' } } }
  if (helpedBy?.kind === 'card') return { mend: BACK_ROUND }
  if (helpedBy?.kind === 'fewer') {
    const { sticks } = helpedBy
    const label = sticks === 1 ? 'Take one stick' : `Take ${sticks} sticks`
    return { mend: { label, action: { kind: 'take-sticks', sticks } } }
  }
  return {}
}

/** Sticks that hold on nothing or beside the middle, and ends that droop; none where nothing is held by sticks. */
export function topperSnags(held: TopperHold | null): Snag[] {
  if (!held) return []
  const about = { stage: 'depth' as const, layer: null }
  const snags: Snag[] = held.remarks.map((message) => ({
    ...about,
    code: 'stick-without-card',
    severity: 'stop',
    at: null,
    message,
    ...helped(held),
  }))
  if (!held.isBalanced)
    snags.push({
      ...about,
      code: 'topper-turns',
      severity: 'caution',
      at: [held.centre.x, held.centre.y],
      message: say`The centre of mass is ${length(held.centre.x)} from the left, beside what holds the topper: it will lean or turn.`,
      // Card behind or fewer sticks do not bring them about the middle.
      ...(held.helpedBy?.kind === 'free' && helped(held)),
    })
  if (held.sticks.length > 0 && held.sagMm > DROOPS_MM)
    snags.push({
      ...about,
      code: 'topper-droops',
      severity: 'caution',
      at: null,
      message: say`An end reaches ${length(held.reachMm, 0)} past the nearest stick and sinks ${length(held.sagMm)} where the topper is held level: one more sheet glued behind, or a stick farther out, stiffens it.`,
    })
  return snags
}
