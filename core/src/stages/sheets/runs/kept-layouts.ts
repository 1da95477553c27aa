// Layouts that a longer search or the maker's hand found, or that files were saved of, as they are kept: by the names of their runs, parts
// in frames of their own, with what was laid.
import { fresh, type Memo } from '../../../base'
import { boxHeight, boxWidth, polygonBox } from '../../../base/geometry'
import type { NestInstance, NestLayout } from '../nest/instance'
import { formerRunName, taskName } from './names'
import { inOwnFrames, layoutInOwnFrames, layoutInPicture, outlineName } from './own-frames'
import { binName, type NestedRun, type PaperRun } from './paper-runs'

/** What a layout was found for. */
export interface WhatWasLaid {
  runId: string
  /** Names the sheets and off-cuts, the gap, the turns, and the seed. */
  task: string
  /** Names of outlines and the sizes of their boxes, mm, by part. */
  outlines: Readonly<Record<string, readonly [name: string, widthMm: number, heightMm: number]>>
  /** What was pinned, as `part#copy`. */
  pinned: readonly string[]
}

/** A layout as it is kept; what it was found for is not known of those that were kept long ago. */
export interface Kept extends NestLayout {
  laid?: WhatWasLaid
  /** It came of an edit: of many on the way the last count. */
  carried?: true
}

/** A layout as it is kept, and the fingerprint of its run. */
export type KeptLayout = [fingerprint: string, layout: Kept]

/** What a run lays. */
export const laidOf = ({ id, instance, bins, seed }: PaperRun, memo: Memo): WhatWasLaid => ({
  runId: id,
  task: taskName(
    instance,
    bins.map((_, k) => binName(bins, k)),
    seed,
  ),
  outlines: Object.fromEntries(
    instance.pieces.map((piece) => {
      const box = polygonBox(piece.shape)
      return [piece.id, [outlineName(piece, memo), boxWidth(box), boxHeight(box)]]
    }),
  ),
  pinned: (instance.pinned ?? []).map(({ id: part, copy }) => `${part}#${copy}`),
})

/** A layout of a run, to be kept. */
export const keptLayout = ({ run, layout }: NestedRun, memo: Memo = fresh): KeptLayout => [
  run.fingerprint,
  { ...layoutInOwnFrames(run.instance, layout), laid: laidOf(run, memo) },
]

/** The layout of a run that was kept; undefined where there is none. */
export function knownLayout(
  run: PaperRun,
  kept: ReadonlyMap<string, unknown>,
  memo: Memo = fresh,
): NestLayout | undefined {
  const own = kept.get(run.fingerprint) as Kept | undefined
  if (own) {
    const { placements, sheets, score, utilisation } = own
    return layoutInPicture(run.instance, { placements, sheets, score, utilisation })
  }
  return kept.size > 0 ? (kept.get(formerRunName(run, memo)) as NestLayout | undefined) : undefined
}

/** A run with its layout, to be searched: what is found for it can be kept as it is, with what is laid. */
export interface Searched {
  fingerprint: string
  instance: NestInstance
  /** The layout to beat. */
  layout: NestLayout
  laid: WhatWasLaid
}

export const toSearch = ({ run, layout }: NestedRun, memo: Memo = fresh): Searched => ({
  fingerprint: run.fingerprint,
  instance: inOwnFrames(run.instance, memo),
  layout: layoutInOwnFrames(run.instance, layout),
  laid: laidOf(run, memo),
})
