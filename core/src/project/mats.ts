// What a sheet is stuck to while it is cut: which mat of those at hand, and what the mats let a cutter reach.
import type { Cutter, Mat } from './schema'

/** How far a blade or a hand reaches, mm: the bed, and no farther than the largest mat at hand. */
export function bedOf({
  bedWidthMm,
  bedHeightMm,
  mats,
}: Pick<Cutter, 'bedWidthMm' | 'bedHeightMm' | 'mats'>): Pick<Cutter, 'bedWidthMm' | 'bedHeightMm'> {
  if (mats.length === 0) return { bedWidthMm, bedHeightMm }
  const reach = mats.map((mat) => ({
    bedWidthMm: Math.min(bedWidthMm, mat.widthMm),
    bedHeightMm: Math.min(bedHeightMm, mat.heightMm),
  }))
  return reach.reduce((a, b) => (b.bedWidthMm * b.bedHeightMm > a.bedWidthMm * a.bedHeightMm ? b : a))
}

/** How much a mat still holds: good, worn (from three quarters of its loads on), or done. */
export const wearOf = ({ loads, lasts }: Pick<Mat, 'loads' | 'lasts'>): 'good' | 'worn' | 'done' =>
  loads >= lasts ? 'done' : loads >= 0.75 * lasts ? 'worn' : 'good'

const TACK_ORDER = ['low', 'medium', 'high'] as const

/** A mat for a sheet, and what to mind where it is not the one that was asked for. */
export interface MatChoice {
  matId: string
  name: string
  /** It is not of the tack that was asked for, too small for the sheet, or worn. */
  mind: ('holds less' | 'holds more' | 'too small' | 'worn' | 'done')[]
}

/**
 * The mat of a cutter that suits a sheet best: of the tack asked for and large enough, the least worn one; where none is, the one
 * that comes nearest. Null where no mats are noted.
 * @param sheet width and height of what is laid on it, mm
 */
export function matFor(
  { mats }: Pick<Cutter, 'mats'>,
  tack: Mat['tack'],
  sheet: { widthMm: number; heightMm: number },
): MatChoice | null {
  const mindOf = (mat: Mat): MatChoice['mind'] => {
    const off = TACK_ORDER.indexOf(mat.tack) - TACK_ORDER.indexOf(tack)
    const wear = wearOf(mat)
    return [
      ...(off < 0 ? (['holds less'] as const) : off > 0 ? (['holds more'] as const) : []),
      ...(holds(mat, sheet) ? [] : (['too small'] as const)),
      ...(wear === 'good' ? [] : [wear]),
    ]
  }
  const cost = (mat: Mat): number[] => [
    holds(mat, sheet) ? 0 : 1,
    // Too little hold is mended with tape, too much tears the sheet.
    TACK_ORDER.indexOf(mat.tack) > TACK_ORDER.indexOf(tack) ? 2 : mat.tack === tack ? 0 : 1,
    wearOf(mat) === 'done' ? 1 : 0,
    mat.widthMm * mat.heightMm,
    mat.loads,
  ]
  const best = mats.toSorted((a, b) => {
    const [own, other] = [cost(a), cost(b)]
    const at = own.findIndex((value, k) => value !== other[k])
    return at < 0 ? 0 : own[at]! - other[at]!
  })[0]
  return best ? { matId: best.id, name: best.name, mind: mindOf(best) } : null
}

/** Whether a sheet lies on a mat, straight or a quarter turned. */
const holds = (mat: Mat, { widthMm, heightMm }: { widthMm: number; heightMm: number }): boolean => {
  const [a, b] = [mat.widthMm, mat.heightMm].toSorted((p, q) => p - q) as [number, number]
  const [c, d] = [widthMm, heightMm].toSorted((p, q) => p - q) as [number, number]
  return c <= a + 0.5 && d <= b + 0.5
}

/** Notes loads cut on mats: each wears by one for every load on it. */
export const wearMats = (cutters: readonly Cutter[], matIds: readonly string[]): readonly Cutter[] => {
  const times = (id: string) => matIds.filter((one) => one === id).length
  return matIds.length === 0
    ? cutters
    : cutters.map((cutter) =>
        cutter.mats.some(({ id }) => times(id) > 0)
          ? { ...cutter, mats: cutter.mats.map((mat) => ({ ...mat, loads: mat.loads + times(mat.id) })) }
          : cutter,
      )
}
