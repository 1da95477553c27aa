// Which layers to keep when there are only a few sheets of card at hand.
import { builtLayers, type Project } from '../../../project'
import type { VisibleArea } from './shows'

/**
 * Ids of the n layers that still read: the backmost, which holds the rest, and those of which most is seen. Layers that
 * come near nobody's eye go first.
 */
export function fewestLayers(project: Project, visible: readonly VisibleArea[], n: number): string[] {
  const layers = builtLayers(project)
  const seen = new Map(visible.map((v) => [v.id, v.visibleMm2]))
  const rest = layers.slice(1).toSorted((a, b) => (seen.get(b.id) ?? 0) - (seen.get(a.id) ?? 0))
  const kept = new Set([layers[0]?.id, ...rest.slice(0, Math.max(0, n - 1)).map((layer) => layer.id)])
  return layers.filter((layer) => kept.has(layer.id)).map((layer) => layer.id)
}

/** Leaves out, as optional, all layers but the given. */
export const keepLayers = (project: Project, ids: readonly string[]): Project => ({
  ...project,
  layers: project.layers.map((layer) =>
    ids.includes(layer.id) || layer.leftOut ? layer : { ...layer, optional: true, leftOut: true },
  ),
})
