// What the last steps show: each has a picture of its own where the stack itself tells nothing.
import type { Project } from '../../project'
import type { DepthPlan } from '../depth'
import type { Step } from './task'

/** Pads behind the backing sheet, sticks on a topper from behind, the frame from the side, or pads under its lip. */
export type MountPicture = 'shims' | 'sticks' | 'frame' | 'lip'

/** Which picture a step of mounting has; null where the stack itself is the picture. */
export function mountPictureOf(
  { mount }: Project,
  step: Pick<Step, 'id' | 'kind' | 'layerId'> | undefined,
  depth: Pick<DepthPlan, 'shim'> | undefined,
): MountPicture | null {
  if (mount.kind === 'frame' && (step?.kind === 'glaze' || step?.kind === 'close')) return 'frame'
  if (step?.kind !== 'mount' || step.layerId !== null) return null
  if (mount.kind === 'topper') return 'sticks'
  if (/^lip-pads(-of-\d+)?$/.test(step.id)) return 'lip'
  // Of a batch that is made one by one the later ones bear a number.
  return mount.kind === 'frame' && depth?.shim && /^mount(-of-\d+)?$/.test(step.id) ? 'shims' : null
}
