// Glue that is used: which, for how many pieces, how long it takes.
import { regionPerimeter } from '../../../base/geometry'
import {
  foamUnder,
  glueOf,
  isGluedFlat,
  pieceJoint,
  layerRegion,
  type Adhesive,
  type Layer,
  type Project,
} from '../../../project'
import type { GlueCount } from '../task'
import { BENCH } from '../times'
import type { Known } from './known'

/** Whether a layer goes on with glue: by choice, or because of so many pads none was planned (0: no pad fits). */
export const isGlued = ({ depth }: Known, { joint }: Layer, pads: number): boolean =>
  joint.kind === 'glue' || (joint.kind === 'foam' && depth !== null && pads === 0)

/** So many pieces of a layer with each glue. */
export function byGlue(project: Project, layer: Layer, pieceIds: readonly string[]): GlueCount[] {
  const counts = new Map<Adhesive | null, number>()
  for (const pieceId of pieceIds) {
    const used = glueOf(project, layer, pieceId) ?? null
    counts.set(used, (counts.get(used) ?? 0) + 1)
  }
  return [...counts].map(([glue, count]) => ({ glue, count }))
}

/** Pieces of a glued layer that take another glue than the layer. */
export const othersOf = (project: Project, layer: Layer): GlueCount[] =>
  byGlue(
    project,
    layer,
    layer.pieces.flatMap(({ id }) =>
      pieceJoint(layer.joint, id)?.adhesiveId && foamUnder(layer, id) === 0 ? [id] : [],
    ),
  ).filter(({ glue }) => glue?.id !== glueOf(project, layer)?.id)

/** All glues that hold pieces of a layer: its own, and those of single pieces. */
export const gluesOf = (project: Project, layer: Layer): Adhesive[] => [
  ...new Set(
    layer.pieces.flatMap(({ id }) =>
      foamUnder(layer, id) > 0 && !isGluedFlat(layer, id) ? [] : (glueOf(project, layer, id) ?? []),
    ),
  ),
]

/** Of several glues the one that takes longest; null where none is named. */
export const slowestOf = (glues: readonly Adhesive[], by: 'handleMin' | 'dryMin'): Adhesive | null =>
  glues.toSorted((a, b) => b[by] - a[by])[0] ?? null

/** By the part and by the length of its outline. */
export function glueMinutes(layer: Layer): number {
  const outlineCm = Math.min(BENCH.glueCmMost, regionPerimeter(layerRegion(layer)) / 10)
  return (layer.pieces.length * BENCH.gluePartSeconds + outlineCm * BENCH.glueCmSeconds) / 60
}
