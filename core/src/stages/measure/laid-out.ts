// The finding about sheets that a drawing shows beside each other, as they are laid out to be cut.
import { say, size } from '../../base/units'
import { boxHeight, boxWidth, joinBoxes } from '../../base/geometry'
import type { LaidOut, Project, Snag } from '../../project'

/** Its name. */
export const LAID_OUT = { code: 'laid-out', layer: null } as const

/** Told where the layers are: that is where they came in. */
export function laidOutSnags({ mount }: Project, { sheets, picture }: LaidOut): Snag[] {
  if (sheets.length === 0) return []
  const all = joinBoxes([...sheets, ...(picture ? [picture] : [])].map(({ box }) => box))
  return [
    {
      ...LAID_OUT,
      stage: 'layers',
      severity: mount.kind === 'free' ? 'caution' : 'stop',
      at: null,
      message: say`The drawing shows ${sheets.length} sheets beside each other${picture ? ' and the finished work beside them' : ''}, ${size(boxWidth(all), boxHeight(all))} in all, as they are laid out to be cut: none lies on another, and heights and pads would be those of a flat row.${picture ? ' Once they do, the picture goes.' : ''}`,
      mend: {
        label: 'Lay them on each other',
        action: { kind: 'lay-on-each-other' },
      },
    },
  ]
}
