// How a sheet goes onto the machine where that is not plain: a quarter turned, or larger than the bed.
import { length, say, type Said } from '../../../base/units'
import { bedOf, type Cutter } from '../../../project'
import { onBed } from '../runs/sizes'

/** How a sheet lies on the bed. */
export interface OnTheBed {
  /** A quarter turned: more of it can be cut so. */
  turned: boolean
  /** So much of it hangs over the bed and is not cut, mm. */
  overMm: number
  /** What lies on the bed, from its corner as it is drawn, mm. */
  widthMm: number
  heightMm: number
}

/** Hanging over by less is a matter of how true the sheet is laid, mm. */
const HAIR_MM = 0.5

/** How a sheet of a size lies on a cutter's bed; null where it lies there as it is drawn, or is cut by knife. */
export function onTheBed(sheet: { widthMm: number; heightMm: number }, cutter: Cutter): OnTheBed | null {
  if (cutter.tool === 'knife') return null
  const { widthMm, heightMm, turned } = onBed(sheet, { rimMm: cutter.rimMm, ...bedOf(cutter) })
  const over = Math.max(sheet.widthMm - widthMm, sheet.heightMm - heightMm)
  const overMm = over > HAIR_MM ? over : 0
  return turned || overMm > 0 ? { turned, overMm, widthMm, heightMm } : null
}

/** What to mind when a sheet is laid on the bed; nothing where it lies there as it is drawn. */
export function bedWords({
  lies,
  widthMm,
  heightMm,
}: {
  lies: OnTheBed | null
  widthMm: number
  heightMm: number
}): Said[] {
  if (!lies) return []
  const across = lies.turned ? heightMm : widthMm
  return [
    ...(lies.turned ? [say`It goes in a quarter turned, its side of ${length(across)} across the bed.`] : []),
    ...(lies.overMm > 0
      ? [
          say`${length(lies.overMm)} of the sheet hang over the bed and are not cut: hold them up while it runs.`,
        ]
      : []),
  ]
}
