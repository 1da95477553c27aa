// What thicknesses foam gives: pads of one footprint, cut and stacked.
import { type Foam } from '../../project'
import { groupBy } from '../../base'

/** Foam pads of one size in all the thicknesses at hand. */
export interface Footprint {
  widthMm: number
  heightMm: number
  /** Strips that may be bent along a curve. */
  bends: boolean
  foams: Foam[]
}

/** Pads stacked on each other, thickest first; their heights add up. */
export interface Build {
  foams: Foam[]
  totalMm: number
}

const MAX_STACKED = 5

/** A pad that was cut out of a whole one bears this id, and is so much of it. */
const CUT = ' in two'
/** No pad is cut narrower than this, mm. */
const LEAST_CUT_MM = 2.5

/** The foam that a pad was cut of, and how much of a whole pad it is. */
export const wholeOf = (foamId: string): { foamId: string; share: number } =>
  foamId.endsWith(CUT) ? { foamId: foamId.slice(0, -CUT.length), share: 0.5 } : { foamId, share: 1 }

/** Every pad that foams give: with those that may be cut of them: whole ones, and halves across the longer side. */
export function allPads(foams: readonly Foam[]): Foam[] {
  return foams.flatMap((foam) => {
    const { widthMm, heightMm } = foam
    const half = Math.max(widthMm, heightMm) / 2
    if (!foam.mayCut || foam.form === 'dots' || Math.min(half, widthMm, heightMm) < LEAST_CUT_MM)
      return [foam]
    const cut = widthMm >= heightMm ? { widthMm: half } : { heightMm: half }
    return [foam, { ...foam, ...cut, id: foam.id + CUT, name: `${foam.name}, cut in two` }]
  })
}

/** A strip is so many times as long as it is wide. */
const STRIP_TIMES = 2

const canBend = ({ mayBend, widthMm, heightMm }: Foam): boolean =>
  mayBend && Math.max(widthMm, heightMm) >= STRIP_TIMES * Math.min(widthMm, heightMm)

/** Groups foams by size, larger pads first; whole ones before those that are cut to the same size. */
export function footprints(foams: readonly Foam[]): Footprint[] {
  const groups = groupBy(allPads(foams), (foam) => `${foam.widthMm} ${foam.heightMm} ${canBend(foam)}`)
  return [...groups.values()]
    .map((list) => ({
      widthMm: list[0]!.widthMm,
      heightMm: list[0]!.heightMm,
      bends: canBend(list[0]!),
      foams: list.toSorted(
        (a, b) => b.thicknessMm - a.thicknessMm || wholeOf(b.id).share - wholeOf(a.id).share,
      ),
    }))
    .toSorted((a, b) => b.widthMm * b.heightMm - a.widthMm * a.heightMm)
}

/** Every height that up to `most` stacked pads of a footprint reach, by the fewest pads; lowest first. */
export function builds(footprint: Footprint, most = MAX_STACKED): Build[] {
  const byHeight = new Map<number, Build>()
  const grow = (build: Build, from: number) => {
    if (build.foams.length > 0) {
      const key = Math.round(build.totalMm * 100)
      const known = byHeight.get(key)
      if (!known || known.foams.length > build.foams.length) byHeight.set(key, build)
    }
    if (build.foams.length === most) return
    for (let i = from; i < footprint.foams.length; i++) {
      const foam = footprint.foams[i]!
      grow({ foams: [...build.foams, foam], totalMm: build.totalMm + foam.thicknessMm }, i)
    }
  }
  grow({ foams: [], totalMm: 0 }, 0)
  return [...byHeight.values()].toSorted((a, b) => a.totalMm - b.totalMm)
}

/** The build nearest to a height; undefined where even the thinnest pad is more than twice too thick. */
export const nearestBuild = (footprint: Footprint, heightMm: number): Build | undefined =>
  nearestOf(builds(footprint), heightMm)

function nearestOf(all: readonly Build[], heightMm: number): Build | undefined {
  let best: Build | undefined
  for (const build of all)
    if (!best || Math.abs(build.totalMm - heightMm) < Math.abs(best.totalMm - heightMm) - 1e-9) best = build
  return best && best.totalMm <= heightMm * 2 ? best : undefined
}

/** Gaps that foam at hand makes with one pad or two, in mm, lowest first. */
export function gapChoices(foams: readonly Foam[]): { gapMm: number; partsMm: number[] }[] {
  const byGap = new Map<number, number[]>()
  for (const footprint of footprints(foams))
    for (const build of builds(footprint, 2)) {
      const partsMm = build.foams.map((foam) => foam.thicknessMm)
      const known = byGap.get(build.totalMm)
      if (!known || known.length > partsMm.length) byGap.set(build.totalMm, partsMm)
    }
  return [...byGap].map(([gapMm, partsMm]) => ({ gapMm, partsMm })).toSorted((a, b) => a.gapMm - b.gapMm)
}

/** A pad that is higher or lower than the gap by no more than this serves, mm. */
export const SERVES_MM = 0.5

/** All that can be stacked of foams, by footprint. */
export type Stacks = readonly (readonly Build[])[]

/** What the foams of a drawer can be stacked to. */
export const stacksOf = (foams: readonly Foam[]): Stacks => footprints(foams).map((size) => builds(size))

/** What pads of the foams at hand make of a gap that was typed, mm; null where none comes near it. */
export const madeGap = (stacks: Stacks, gapMm: number): number | null =>
  madeOf(stacks, gapMm)?.totalMm ?? null

/** By how much the foam of a gap gives under a press, mm. */
export const giveOfGap = (stacks: Stacks, gapMm: number): number =>
  madeOf(stacks, gapMm)?.foams.reduce((sum, { thicknessMm, give }) => sum + thicknessMm * give, 0) ?? 0

function madeOf(stacks: Stacks, gapMm: number): Build | null {
  let best: Build | null = null
  for (const all of stacks) {
    const build = nearestOf(all, gapMm)
    if (!build || Math.abs(build.totalMm - gapMm) > SERVES_MM) continue
    if (best === null || Math.abs(build.totalMm - gapMm) < Math.abs(best.totalMm - gapMm) - 1e-9) best = build
  }
  return best
}
