// Pads that are set: how many of which kind, how long it takes, the foam that they use up.
import { groupBy } from '../../../base'
import type { FoamCount, Project } from '../../../project'
import { wholeOf, type Shim } from '../../depth'
import type { PadCount } from '../task'
import { BENCH } from '../times'
import type { Known } from './known'

/** To peel and set the foams of one pad, s. */
const peelSeconds = ({ drawer }: Project, foamIds: readonly string[]): number =>
  foamIds.reduce(
    (total, id) =>
      total + (drawer.foams.find((foam) => foam.id === wholeOf(id).foamId)?.peelS ?? BENCH.padSeconds),
    0,
  )

/** Pads of each layer by their kind, the most frequent first. */
export function padCounts({ depth, project }: Known): Map<string, PadCount[]> {
  const foams = new Map(project.drawer.foams.map((foam) => [foam.id, foam]))
  const nameOf = (id: string) => {
    const { foamId, share } = wholeOf(id)
    const name = foams.get(foamId)?.name ?? foamId
    return share < 1 ? `${name} cut in two` : name
  }
  const byLayer = groupBy(depth?.pads ?? [], ({ layerId }) => layerId)
  return new Map(
    [...byLayer].map(([layerId, pads]) => {
      const kinds = groupBy(
        pads,
        (pad) => `${pad.widthMm} ${pad.heightMm} ${pad.foamIds.join(' ')} ${pad.bendMm !== undefined}`,
      )
      const counts = [...kinds.values()].map((same): PadCount => {
        const { thicknessMm, widthMm, heightMm, bendMm, foamIds } = same[0]!
        const own = { mm: thicknessMm, size: [widthMm, heightMm], foams: foamIds.map(nameOf) } as const
        const seconds = peelSeconds(project, foamIds)
        return { ...own, count: same.length, seconds, bent: bendMm !== undefined }
      })
      return [layerId, counts.toSorted((a, b) => b.count - a.count)]
    }),
  )
}

/** To peel and set pads. */
export const settingMinutes = (pads: readonly PadCount[]): number =>
  pads.reduce((total, { count, seconds }) => total + count * seconds, 0) / 60

/** The foam that a layer's pads use up. */
export const foamOf = ({ depth }: Known, layerId: string) => ({
  takes: depth?.layers.find((one) => one.layerId === layerId)?.foams ?? [],
})

/** The names of foams that are stacked, the thickest first. */
export const namesOf = ({ drawer }: Project, foamIds: readonly string[]): string[] =>
  foamIds.map((id) => drawer.foams.find((foam) => foam.id === wholeOf(id).foamId)?.name ?? id)

/** Foam of pads of one build. */
export function foamsOfShim({
  foamIds,
  at,
}: Pick<Shim, 'foamIds'> & { at: readonly unknown[] }): FoamCount[] {
  const counts = groupBy(foamIds, (id) => wholeOf(id).foamId)
  return [...counts].map(([foamId, ids]) => ({
    foamId,
    count: Math.ceil(at.length * ids.reduce((n, id) => n + wholeOf(id).share, 0)),
  }))
}

/** To peel and set pads of one build. */
export const shimMinutes = (
  project: Project,
  { foamIds, at }: Pick<Shim, 'foamIds'> & { at: readonly unknown[] },
): number => (at.length * peelSeconds(project, foamIds)) / 60

/** How many in all. */
export const sum = (counts: readonly { count: number }[]): number =>
  counts.reduce((total, { count }) => total + count, 0)
