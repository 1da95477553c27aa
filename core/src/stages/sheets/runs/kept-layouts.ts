// Layouts that a longer search or the maker's hand found, as they are kept: by the names of their runs, parts in frames of their own.
import { fresh, type Memo } from '../../../base'
import type { NestInstance, NestLayout } from '../nest/instance'
import { formerRunName } from './names'
import { inOwnFrames, layoutInOwnFrames, layoutInPicture } from './own-frames'
import type { NestedRun, PaperRun } from './paper-runs'

/** A layout as it is kept, and the fingerprint of its run. */
export type KeptLayout = [fingerprint: string, layout: NestLayout]

/** A layout of a run, to be kept. */
export const keptLayout = ({ run, layout }: NestedRun): KeptLayout => [
  run.fingerprint,
  layoutInOwnFrames(run.instance, layout),
]

/** The layout of a run that was kept; undefined where there is none. */
export function knownLayout(
  run: PaperRun,
  kept: ReadonlyMap<string, unknown>,
  memo: Memo = fresh,
): NestLayout | undefined {
  const own = kept.get(run.fingerprint) as NestLayout | undefined
  if (own) return layoutInPicture(run.instance, own)
  return kept.size > 0 ? (kept.get(formerRunName(run, memo)) as NestLayout | undefined) : undefined
}

/** A run with its layout, to be searched: what is found for it can be kept as it is. */
export interface Searched {
  fingerprint: string
  instance: NestInstance
  /** The layout to beat. */
  layout: NestLayout
}

export const toSearch = ({ run, layout }: NestedRun, memo: Memo = fresh): Searched => ({
  fingerprint: run.fingerprint,
  instance: inOwnFrames(run.instance, memo),
  layout: layoutInOwnFrames(run.instance, layout),
})
