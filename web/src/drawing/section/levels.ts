// Where layers stand in the section: heights, strips side by side, rows of the list.
import { builtLayers, isOnPane, thicknessOf, type Project } from '@feuillet/core/project'
import type { ViewOf } from '@feuillet/core/stages'
import { ROW } from './sizes'

/** How high a layer stands, as the planner has it. */
export type LayerLevel = ViewOf<'levels'>[number]

export interface Level {
  bottomMm: number
  topMm: number
  /** Each height at which pieces of it lie, with its share of the layer's card. */
  parts: readonly { bottomMm: number; topMm: number; share: number }[]
}

/** Heights from the worker where it has answered for these layers; else one on the other, so that nothing waits. */
export function levelsOf(project: Project, depths: readonly LayerLevel[]): Map<string, Level> {
  const known = new Map(depths.map((d) => [d.layerId, d]))
  const out = new Map<string, Level>()
  let top = 0
  for (const layer of builtLayers(project)) {
    const depth = known.get(layer.id)
    const { kind, gapMm } = layer.joint
    const bottom = kind === 'tab' ? gapMm : top + (kind === 'foam' ? gapMm : 0)
    const level =
      depth && Number.isFinite(depth.bottomMm)
        ? { bottomMm: depth.bottomMm, topMm: depth.topMm, parts: depth.parts }
        : flatAt(bottom, bottom + thicknessOf(project, layer))
    out.set(layer.id, level)
    if (kind !== 'tab' && !isOnPane(layer)) top = level.topMm
  }
  return out
}

/** All of a layer at one height. */
const flatAt = (bottomMm: number, topMm: number): Level => ({
  bottomMm,
  topMm,
  parts: [{ bottomMm, topMm, share: 1 }],
})

/** Which strip of the bars' width a layer takes: layers that lie at one height beside each other share it. */
export interface Lane {
  at: number
  of: number
}

/** Lanes for layers sorted back to front; only neighbours whose card overlaps in height share the width. */
export function sideBySide(
  levels: readonly (Pick<Level, 'bottomMm' | 'topMm'> & { id: string })[],
): Map<string, Lane> {
  const lanes = new Map<string, Lane>()
  for (let i = 0; i < levels.length;) {
    let topMm = levels[i]!.topMm
    let end = i + 1
    while (end < levels.length && levels[end]!.bottomMm < topMm - 0.01)
      topMm = Math.max(topMm, levels[end++]!.topMm)
    for (let k = i; k < end; k++) lanes.set(levels[k]!.id, { at: k - i, of: end - i })
    i = end
  }
  return lanes
}

/** Moves rows apart to at least a row's height, as near to where they belong as that allows. */
export function spread(wanted: readonly number[], least: number, most: number): number[] {
  const out = [...wanted]
  for (let i = 0; i < out.length; i++) out[i] = Math.max(out[i]!, i === 0 ? least : out[i - 1]! + ROW)
  for (let i = out.length - 1; i >= 0; i--)
    out[i] = Math.min(out[i]!, i === out.length - 1 ? most : out[i + 1]! - ROW)
  return out
}
