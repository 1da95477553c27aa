// Where two letters hold together: letters are moved until both, drawn in by half the width that a joint shall have, touch;
// a disc of that width then lies in both, so the joint is nowhere narrower.
import { intersect, offset, regionRings, type Region } from '../../../../base/geometry'

/** How far b must move left (mm) so that it first touches a; −Infinity where they never meet on one line. */
export function horizontalGap(a: Region, b: Region): number {
  const profile = (region: Region, right: boolean) => {
    const rings = regionRings(region)
    return (y: number): number => {
      let best = right ? -Infinity : Infinity
      for (const ring of rings)
        for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
          const [ay, by] = [ring[j + 1]!, ring[i + 1]!]
          if ((ay < y && by < y) || (ay > y && by > y)) continue
          const x =
            ay === by
              ? right
                ? Math.max(ring[j]!, ring[i]!)
                : Math.min(ring[j]!, ring[i]!)
              : ring[j]! + ((ring[i]! - ring[j]!) * (y - ay)) / (by - ay)
          best = right ? Math.max(best, x) : Math.min(best, x)
        }
      return best
    }
  }
  const rightOf = profile(a, true)
  const leftOf = profile(b, false)
  // The least gap lies at a vertex of one of the two.
  let gap = Infinity
  for (const ring of [...regionRings(a), ...regionRings(b)])
    for (let i = 1; i < ring.length; i += 2) gap = Math.min(gap, leftOf(ring[i]!) - rightOf(ring[i]!))
  return gap === Infinity ? -Infinity : gap
}

/** Where two neighbours hold together. */
export interface Joint {
  between: string
  /** The two letters where they stand. */
  letters: [Region, Region]
}

const JOINT_ROUNDS = 7

/** Width of the largest disc that lies in both of two letters that overlap: what holds them together, up to a most. */
function jointWidth([a, b]: Joint['letters'], mostMm: number): number {
  let [low, high] = [0, mostMm]
  for (let k = 0; k < JOINT_ROUNDS; k++) {
    const mid = (low + high) / 2
    if (intersect(offset(a, -mid / 2), offset(b, -mid / 2)).length > 0) low = mid
    else high = mid
  }
  return (low + high) / 2
}

/** The joint that gives way first, and how wide it is; null where nothing is joined. */
export function weakestJoint(
  joints: readonly Joint[],
  joinMm: number,
): { between: string; widthMm: number } | null {
  const all = joints.map(({ between, letters }) => ({ between, widthMm: jointWidth(letters, joinMm * 3) }))
  return all.toSorted((a, b) => a.widthMm - b.widthMm)[0] ?? null
}
