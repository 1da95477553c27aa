// Which of several projects to make for a fair, and how many of each: for the most profit or the fewest left-overs, within the
// sheets, the foam, the frames and their kin and the evenings at hand. An integer program, solved exactly (branch and cut).
import { solve } from 'yalps'
import { BadInput } from '../../base'

/** A project that may be made, what one of it takes and brings. */
export interface Candidate {
  id: string
  name: string
  /** What is left of its price when all but the hands are paid. */
  bringsEach: number
  /** Minutes of hands for one. */
  minutesEach: number
  /** Sheets (or shares of one) by paper, and single pads by foam, for one. */
  sheetsEach: Readonly<Record<string, number>>
  padsEach: Readonly<Record<string, number>>
  /** Of things that are counted: frames, sticks, metres of twine. */
  thingsEach: Readonly<Record<string, number>>
  /** At least and at most so many; null for no bound. */
  least: number
  most: number | null
}

/** What there is to make them of. */
export interface AtHand {
  /** By paper, by foam and by thing. */
  sheets: Readonly<Record<string, number>>
  pads: Readonly<Record<string, number>>
  things: Readonly<Record<string, number>>
  /** Minutes of hands until the fair. */
  minutes: number
}

/** What the best plan is after: money, or using up what lies there. */
export type FairGoal = 'profit' | 'left-overs'

/** How many of each, and what that comes to. */
export interface FairPlan {
  counts: { id: string; name: string; count: number }[]
  brings: number
  minutes: number
  /** Sheets, pads and things that are used, by paper, foam and thing. */
  sheets: Record<string, number>
  pads: Record<string, number>
  things: Record<string, number>
  /** What runs out first: the names of what leaves no room for one more of anything. */
  limits: string[]
}

/** So many of one project no fair takes. */
const MOST_EACH = 1000
const SOLVE_MS = 10_000

/**
 * The best numbers. What a project takes of a paper that is not at hand at all cannot be made. Throws BadInput where the least
 * numbers asked for do not fit.
 */
export function planFair(candidates: readonly Candidate[], atHand: AtHand, goal: FairGoal): FairPlan {
  if (candidates.length === 0) throw new BadInput('choose at least one project')
  const constraints: Record<string, { max?: number; min?: number }> = { minutes: { max: atHand.minutes } }
  const variables: Record<string, Record<string, number>> = {}
  const integers: string[] = []
  candidates.forEach((one, k) => {
    const variable: Record<string, number> = { minutes: one.minutesEach, [`count ${k}`]: 1 }
    for (const [of, each, there] of [
      ['sheet', one.sheetsEach, atHand.sheets],
      ['pad', one.padsEach, atHand.pads],
      ['thing', one.thingsEach, atHand.things],
    ] as const)
      for (const [id, amount] of Object.entries(each)) {
        if (amount <= 0) continue
        variable[`${of} ${id}`] = amount
        constraints[`${of} ${id}`] = { max: there[id] ?? 0 }
      }
    // Using up counts whole sheets and, at a hundredth of one, the work that goes into them, so that ties fall to what brings more.
    const used = Object.values(one.sheetsEach).reduce((sum, amount) => sum + amount, 0)
    variable['worth'] = goal === 'profit' ? one.bringsEach : used + 1e-6 * Math.max(0, one.bringsEach)
    constraints[`count ${k}`] = { min: one.least, max: Math.min(MOST_EACH, one.most ?? MOST_EACH) }
    variables[`make ${k}`] = variable
    integers.push(`make ${k}`)
  })
  const solved = solve(
    { direction: 'maximize', objective: 'worth', constraints, variables, integers },
    { timeout: SOLVE_MS, tolerance: 0 },
  )
  if (solved.status === 'infeasible')
    throw new BadInput('what you want at least is more than what is at hand, or than the evenings allow')
  if (solved.status !== 'optimal')
    throw new BadInput('no best plan was found in time: take fewer projects, or narrower bounds')
  const found = new Map(solved.variables)
  const counts = candidates.map((one, k) => ({
    id: one.id,
    name: one.name,
    count: Math.round(found.get(`make ${k}`) ?? 0),
  }))
  return summary(candidates, counts, atHand)
}

function summary(candidates: readonly Candidate[], counts: FairPlan['counts'], atHand: AtHand): FairPlan {
  const total = (of: (one: Candidate) => number) =>
    candidates.reduce((sum, one, k) => sum + counts[k]!.count * of(one), 0)
  const byId = (each: (one: Candidate) => Readonly<Record<string, number>>) => {
    const ids = new Set(candidates.flatMap((one) => Object.keys(each(one))))
    return Object.fromEntries([...ids].map((id) => [id, total((one) => each(one)[id] ?? 0)]))
  }
  const [sheets, pads, things, minutes] = [
    byId((one) => one.sheetsEach),
    byId((one) => one.padsEach),
    byId((one) => one.thingsEach),
    total((one) => one.minutesEach),
  ]
  const limits = new Set<string>()
  candidates.forEach((one, k) => {
    if (counts[k]!.count >= (one.most ?? MOST_EACH)) return
    if (minutes + one.minutesEach > atHand.minutes + 1e-9) limits.add('minutes')
    for (const [id, amount] of Object.entries(one.sheetsEach))
      if ((sheets[id] ?? 0) + amount > (atHand.sheets[id] ?? 0) + 1e-9) limits.add(`sheet ${id}`)
    for (const [id, amount] of Object.entries(one.padsEach))
      if ((pads[id] ?? 0) + amount > (atHand.pads[id] ?? 0) + 1e-9) limits.add(`pad ${id}`)
    for (const [id, amount] of Object.entries(one.thingsEach))
      if ((things[id] ?? 0) + amount > (atHand.things[id] ?? 0) + 1e-9) limits.add(`thing ${id}`)
  })
  return {
    counts,
    brings: total((one) => one.bringsEach),
    minutes,
    sheets,
    pads,
    things,
    limits: [...limits],
  }
}
