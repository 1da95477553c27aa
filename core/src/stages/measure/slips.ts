// Measures that cannot be meant as they stand, but can in another unit: 8 in a field of mm beside a spacer of 216.
import { MM_PER_INCH } from '../../base/units'
import type { Mount } from '../../project'

/** A measure of a mount. */
export type Measure = 'spacer' | 'opening' | 'panel' | 'width' | 'depth'

/** A measure that was most likely typed in another unit. */
export interface Slip {
  measure: Measure
  /** The value that cannot be meant, mm. */
  valueMm: number
  /** In which unit it makes sense. */
  meant: 'inches' | 'centimetres'
  /** By which it is multiplied then. */
  factor: number
}

const FACTORS = [
  ['inches', MM_PER_INCH],
  ['centimetres', 10],
] as const

/** Nobody measures a frame, a card or a topper this small; and none larger is planned on sheets of card. */
const SIDE_MM = { least: 15, most: 1200 }
const DEPTH_MM = { least: 2, most: 150 }
/** An opening this much narrower than its spacer leaves a lip that no frame has. */
const OPENING_SHARE = 0.2

/** Measures of a mount that were most likely typed in another unit; none where no unit makes sense of them. */
export function slipsOf(mount: Mount): Slip[] {
  const slips: Slip[] = []
  const look = (
    measure: Measure,
    sides: readonly number[],
    { least, most }: { least: number; most: number },
  ) => {
    const valueMm = Math.min(...sides)
    if (valueMm >= least) return
    const found = FACTORS.find(([, factor]) =>
      sides.every((mm) => mm * factor >= least && mm * factor <= most),
    )
    if (found) slips.push({ measure, valueMm, meant: found[0], factor: found[1] })
  }
  if (mount.kind === 'frame') {
    const { spacer, opening } = mount
    const spacerSides = [spacer.widthMm, spacer.heightMm]
    look('spacer', spacerSides, { least: SIDE_MM.least, most: SIDE_MM.most })
    const least = Math.max(...spacerSides) * OPENING_SHARE
    look('opening', [opening.widthMm, opening.heightMm], { least, most: Math.max(...spacerSides) * 1.02 })
  }
  if (mount.kind === 'card' || mount.kind === 'panel')
    look('panel', [mount.panel.widthMm, mount.panel.heightMm], { least: SIDE_MM.least, most: SIDE_MM.most })
  if (mount.kind === 'topper') look('width', [mount.widthMm], { least: SIDE_MM.least, most: SIDE_MM.most })
  if (mount.kind !== 'garland' && mount.kind !== 'free')
    look('depth', [mount.depthMm], { least: DEPTH_MM.least, most: DEPTH_MM.most })
  return slips
}

/** The mount with one of its measures times a factor. */
export function rescaled(mount: Mount, measure: Measure, factor: number): Mount {
  const times = ({ widthMm, heightMm }: { widthMm: number; heightMm: number }) => ({
    widthMm: widthMm * factor,
    heightMm: heightMm * factor,
  })
  if (measure === 'depth')
    return mount.kind === 'garland' || mount.kind === 'free'
      ? mount
      : { ...mount, depthMm: mount.depthMm * factor }
  switch (mount.kind) {
    case 'frame':
      if (measure === 'spacer') return { ...mount, spacer: times(mount.spacer) }
      return measure === 'opening' ? { ...mount, opening: times(mount.opening) } : mount
    case 'card':
    case 'panel':
      return measure === 'panel' ? { ...mount, panel: times(mount.panel) } : mount
    case 'topper':
      return measure === 'width' ? { ...mount, widthMm: mount.widthMm * factor } : mount
    default:
      return mount
  }
}
