// Colour steps as the eye judges them: differences by CIEDE2000, ramps in Oklab.
import { differenceCiede2000, formatHex, interpolate } from 'culori'
import type { Paper } from '../../project'

const difference = differenceCiede2000()

/** CIEDE2000 difference of two #rrggbb colours: 1 is just visible side by side, under 5 is hard to tell apart in a stack. */
export const colourDifference = (a: string, b: string): number => difference(a, b)

/** Neighbours closer than this cannot be told apart at arm's length under glass. */
export const TOO_ALIKE = 6

/** n colours from one to another in even steps, both ends included; one step is the first colour. */
export function ramp(from: string, to: string, n: number): string[] {
  const at = interpolate([from, to], 'oklab')
  return Array.from({ length: n }, (_, i) => formatHex(at(n === 1 ? 0 : i / (n - 1))))
}

/** The paper nearest to a colour; undefined where there is none to choose from. */
export function nearestPaper(colour: string, papers: readonly Paper[]): Paper | undefined {
  let best: Paper | undefined
  let least = Infinity
  for (const paper of papers) {
    const d = difference(colour, paper.colour)
    if (d < least) {
      least = d
      best = paper
    }
  }
  return best
}

/**
 * A paper for each colour of those that serve for it, no paper twice while others remain: the pair that fits best is settled first.
 * Empty where there are no papers.
 * @param servesFor by the number of the colour; where no paper serves, all do
 */
export function matchPapers(
  colours: readonly string[],
  papers: readonly Paper[],
  servesFor: (paper: Paper, i: number) => boolean = () => true,
): Paper[] {
  if (papers.length === 0) return []
  const serving = colours.map((_, i) => {
    const own = papers.filter((paper) => servesFor(paper, i))
    return own.length > 0 ? own : papers
  })
  const pairs = colours.flatMap((colour, i) =>
    serving[i]!.map((paper) => ({ i, paper, d: difference(colour, paper.colour) })),
  )
  pairs.sort((a, b) => a.d - b.d)
  const out: (Paper | undefined)[] = colours.map(() => undefined)
  const used = new Set<string>()
  for (const { i, paper } of pairs) {
    if (out[i] || used.has(paper.id)) continue
    out[i] = paper
    used.add(paper.id)
  }
  return out.map((paper, i) => paper ?? nearestPaper(colours[i]!, serving[i]!)!)
}
