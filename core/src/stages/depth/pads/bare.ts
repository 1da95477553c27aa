// What no place that was tried reaches: places for pads are looked for again round it, closer to each other and at more turns.
import Flatbush from 'flatbush'
import type { Point } from '../../../base/geometry'
import type { CardField } from './card-field'
import type { Pad } from './poses'

/** So many places are tried for a spot that nothing reaches, from the nearest to the farthest. */
const TRIES = 12

/** What the search works with. Reaches are in mm along the card. */
export interface BareTask {
  field: CardField
  /** Legal places within a reach of spots, as the crow flies. */
  posesNear: (spots: readonly Point[], reachMm: number) => Pad[]
  /** Samples within a reach of a pad. */
  reachOf: (pad: Pad, reachMm: number) => Int32Array
}

/** Finer places, in a tree. */
interface Fine {
  pads: readonly Pad[]
  index: Flatbush
}

/** Finds pads that reach what is not covered yet: by sample 1 where it is. Places are looked for once, round what is bare at first. */
export function bareSearch({ field, posesNear, reachOf }: BareTask) {
  const at = (sample: number): Point => ({ x: field.x[sample]!, y: field.y[sample]! })
  let fine: Fine | null = null
  return (covered: Uint8Array, reachMm: number): Pad[] => {
    const bare = [...covered.keys()].filter((sample) => covered[sample] === 0)
    if (bare.length === 0) return []
    fine ??= inTree(posesNear(bare.map(at), reachMm))
    const { pads, index } = fine
    // What no place reaches along the card is left alone.
    const ways = field.around(
      pads.map(({ x, y }) => [x, y] as const),
      reachMm,
    )
    const reachable = new Set(ways.samples)
    const found: Pad[] = []
    for (const sample of bare) {
      if (covered[sample] === 1 || !reachable.has(sample)) continue
      const { x, y } = at(sample)
      for (const k of spread(index.neighbors(x, y, Infinity, reachMm), TRIES)) {
        const own = reachOf(pads[k]!, reachMm)
        if (own.some((one) => covered[one] === 0)) found.push(pads[k]!)
        for (const one of own) covered[one] = 1
      }
    }
    return found
  }
}

function inTree(pads: readonly Pad[]): Fine {
  const index = new Flatbush(Math.max(1, pads.length))
  for (const { x, y } of pads) index.add(x, y, x, y)
  if (pads.length === 0) index.add(Infinity, Infinity, Infinity, Infinity)
  index.finish()
  return { pads, index }
}

/** So many of a list, evenly from the first to the last. */
const spread = <T>(list: readonly T[], most: number): T[] =>
  list.length <= most
    ? [...list]
    : Array.from({ length: most }, (_, k) => list[Math.round((k * (list.length - 1)) / (most - 1))]!)
