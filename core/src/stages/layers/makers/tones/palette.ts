// A picture in a few colours: those that lie nearest to its own (k-means in Oklab), or the best few of the papers at hand
// (k-medoids: chosen one by one, then swapped while that helps; Kaufman and Rousseeuw 1987).
import { converter, formatHex } from 'culori'

/** A colour of a palette, and the paper it is, if it is one. */
export interface Tint {
  colour: string
  paperId?: string
}

type Lab = readonly [number, number, number]

/** Colours this coarse are taken together before (bits of each channel that count). */
const BITS = 5
const ROUNDS = 24

const oklab = converter('oklab')
const labOf = (r: number, g: number, b: number): Lab => {
  const { l, a, b: bb } = oklab({ mode: 'rgb', r: r / 255, g: g / 255, b: b / 255 })
  return [l, a, bb]
}
const labOfHex = (colour: string): Lab => {
  const { l, a, b } = oklab(colour)!
  return [l, a, b]
}
const apart = (p: Lab, q: Lab): number => (p[0] - q[0]) ** 2 + (p[1] - q[1]) ** 2 + (p[2] - q[2]) ** 2

interface Bin {
  lab: Lab
  weight: number
}

/** Colours of a picture that are taken together, with how many pixels each has; and the bin of each pixel. */
function binned(
  [r, g, b]: readonly Float64Array[],
  skip: Uint8Array | null,
): { bins: Bin[]; of: Int32Array } {
  const shift = 8 - BITS
  const places = new Int32Array(1 << (3 * BITS)).fill(-1)
  const bins: Bin[] = []
  const of = new Int32Array(r!.length)
  const middle = (v: number) => (v << shift) + (1 << (shift - 1))
  for (let i = 0; i < of.length; i++) {
    const [cr, cg, cb] = [r![i]! >> shift, g![i]! >> shift, b![i]! >> shift]
    const code = (cr << (2 * BITS)) | (cg << BITS) | cb
    if (places[code]! < 0) {
      places[code] = bins.length
      bins.push({ lab: labOf(middle(cr), middle(cg), middle(cb)), weight: 0 })
    }
    of[i] = places[code]!
    if (!skip?.[i]) bins[of[i]!]!.weight++
  }
  return { bins, of }
}

const nearestOf = (lab: Lab, centres: readonly Lab[]): number => {
  let best = 0
  for (let k = 1; k < centres.length; k++) if (apart(lab, centres[k]!) < apart(lab, centres[best]!)) best = k
  return best
}

const spreadOf = (bins: readonly Bin[], centres: readonly Lab[]): number =>
  bins.reduce((sum, { lab, weight }) => sum + weight * apart(lab, centres[nearestOf(lab, centres)]!), 0)

/** Centres of least spread: the first is the commonest colour, each next the one that is farthest off and common. */
function means(bins: readonly Bin[], n: number): Lab[] {
  const centres: Lab[] = []
  while (centres.length < n) {
    const score = ({ lab, weight }: Bin) =>
      weight * (centres.length === 0 ? 1 : apart(lab, centres[nearestOf(lab, centres)]!))
    const next = bins.reduce((best, bin) => (score(bin) > score(best) ? bin : best))
    if (centres.length > 0 && score(next) === 0) break
    centres.push(next.lab)
  }
  for (let round = 0; round < ROUNDS; round++) {
    const sums = centres.map(() => [0, 0, 0, 0])
    for (const { lab, weight } of bins) {
      const sum = sums[nearestOf(lab, centres)]!
      for (let c = 0; c < 3; c++) sum[c]! += weight * lab[c]!
      sum[3]! += weight
    }
    sums.forEach(([l, a, b, weight], k) => {
      if (weight! > 0) centres[k] = [l! / weight!, a! / weight!, b! / weight!]
    })
  }
  return centres
}

/** The n of some colours that are nearest to the picture's, by their places. */
function medoids(bins: readonly Bin[], choices: readonly Lab[], n: number): number[] {
  const spread = (chosen: readonly number[]) =>
    spreadOf(
      bins,
      chosen.map((k) => choices[k]!),
    )
  const chosen: number[] = []
  const rest = () => choices.flatMap((_, k) => (chosen.includes(k) ? [] : [k]))
  while (chosen.length < Math.min(n, choices.length))
    chosen.push(
      rest()
        .map((k) => ({ k, cost: spread([...chosen, k]) }))
        .reduce((best, one) => (one.cost < best.cost ? one : best)).k,
    )
  let cost = spread(chosen)
  for (let better = true; better;) {
    better = false
    for (let at = 0; at < chosen.length; at++)
      for (const k of rest()) {
        const next = spread(chosen.with(at, k))
        if (next >= cost - 1e-12) continue
        chosen[at] = k
        cost = next
        better = true
      }
  }
  return chosen
}

/**
 * A picture in so many colours, the lightest first, and the place of each pixel's in that list.
 * @param channels red, green and blue, 0 to 255, one a pixel
 * @param skip 1 for pixels that do not count
 * @param choices papers to choose from; null for the colours that fit best
 */
export function paletteOf(
  channels: readonly Float64Array[],
  { skip, n, choices }: { skip: Uint8Array | null; n: number; choices: readonly Tint[] | null },
): { tints: Tint[]; places: Uint8Array } {
  const { bins, of } = binned(channels, skip)
  const labs = choices?.map(({ colour }) => labOfHex(colour)) ?? null
  const tints: { lab: Lab; tint: Tint }[] = labs
    ? medoids(bins, labs, n).map((k) => ({ lab: labs[k]!, tint: choices![k]! }))
    : means(bins, n).map((lab) => ({
        lab,
        tint: { colour: formatHex({ mode: 'oklab', l: lab[0], a: lab[1], b: lab[2] }) },
      }))
  tints.sort((p, q) => q.lab[0] - p.lab[0])
  const centres = tints.map(({ lab }) => lab)
  const placeOf = Uint8Array.from(bins, ({ lab }) => nearestOf(lab, centres))
  return { tints: tints.map(({ tint }) => tint), places: Uint8Array.from(of, (bin) => placeOf[bin]!) }
}
