// Several designs side by side in one drawing: told apart, and parted into projects of their own that are cut from the same sheets.
import { joinBoxes, regionBox, translation, type Box } from '../base/geometry'
import { nothingDone } from './anew'
import { isSomeCut } from './cut-record'
import { takeAlong } from './guests'
import { backingRect, builtLayers, isOnPane } from './lookup'
import { transformLayers } from './edit'
import type { Layer, Project } from './schema'
import { apartMm, clusters, isIn, partOf, partsOf, type Part } from './together'

/** A design is made of so many layers at least: what lies beside in one sheet alone belongs to its neighbour. */
const LEAST_LAYERS = 2

/** One of several designs that lie side by side. */
export interface Variant {
  /** mm in the project's frame. */
  box: Box
  /** Ids of its pieces by the id of their layer. */
  pieces: ReadonlyMap<string, ReadonlySet<string>>
}

/** Designs that lie side by side, from the left, then from above; none where all of it is one, or something is cut already. */
export function variantsOf(project: Project): Variant[] {
  if (isSomeCut(project) || project.plan.cutWith || project.mount.kind === 'garland') return []
  const parts = builtLayers(project)
    .filter((layer) => !isOnPane(layer))
    .flatMap(partsOf)
  if (parts.length < 2 * LEAST_LAYERS) return []
  const groups = clusters(parts)
  const layersOf = (group: readonly Part[]) => new Set(group.map(({ layerId }) => layerId)).size
  const designs = groups.filter((group) => layersOf(group) >= LEAST_LAYERS)
  if (designs.length < 2) return []
  const boxes = designs.map((group) => joinBoxes(group.map(({ box }) => box)))
  // What belongs to no design goes to the nearest.
  for (const stray of groups.filter((group) => !designs.includes(group))) {
    const box = joinBoxes(stray.map((part) => part.box))
    const nearest = boxes
      .map((other, k) => ({ k, mm: apartMm(box, other) }))
      .reduce((best, next) => (next.mm < best.mm ? next : best)).k
    designs[nearest]!.push(...stray)
  }
  return designs
    .map((group): Variant => {
      const pieces = new Map<string, Set<string>>()
      for (const { layerId, pieceIds } of group) {
        if (!pieces.has(layerId)) pieces.set(layerId, new Set())
        for (const id of pieceIds) pieces.get(layerId)!.add(id)
      }
      return { box: joinBoxes(group.map(({ box }) => box)), pieces }
    })
    .toSorted((a, b) => a.box.minX - b.box.minX || a.box.minY - b.box.minY)
}

/**
 * Parts a project into one for each design, moved to the middle of what it lives in. The first keeps the project's id and takes the
 * others along onto its sheets; those are new and bear `ids`. What was grown is plain layers from then on.
 */
export function partVariants(
  project: Project,
  variants: readonly Variant[],
  ids: readonly string[],
): { host: Project; others: Project[] } {
  const [first, ...rest] = variants.map((variant) => onlyVariant(project, variant))
  const others = rest.map((own, k): Project => ({
    ...own,
    id: ids[k]!,
    name: `${project.name}, design ${k + 2}`,
    plan: { ...own.plan, guests: [], loadOrder: [] },
    ...nothingDone(),
  }))
  return { host: others.reduce(takeAlong, first!), others }
}

/** The project with one design alone. */
function onlyVariant(project: Project, { box, pieces }: Variant): Project {
  const layers = project.layers.flatMap((layer): Layer[] => {
    if (isOnPane(layer) || layer.leftOut) return []
    const own = pieces.get(layer.id)
    if (!own) return []
    return [partOf(layer, { pieceIds: own, box })]
  })
  const isThere = ({ layerId, pieceId }: { layerId: string; pieceId: string }) =>
    pieces.get(layerId)?.has(pieceId) ?? false
  const parted: Project = {
    ...project,
    layers,
    grown: [],
    assemblies: project.assemblies.filter(({ id }) => layers.some(({ assemblyId }) => assemblyId === id)),
    plan: {
      ...project.plan,
      pins: [],
      layoutSeeds: {},
      handPads: project.plan.handPads.filter(isThere),
      padFree: project.plan.padFree.filter(({ layerId, x, y }) => pieces.has(layerId) && isIn(box, x, y)),
    },
  }
  const backing = backingRect(project)
  const middle = backing ? regionBox([backing]) : null
  if (!middle) return parted
  return transformLayers(
    parted,
    translation(
      (middle.minX + middle.maxX) / 2 - (box.minX + box.maxX) / 2,
      (middle.minY + middle.maxY) / 2 - (box.minY + box.maxY) / 2,
    ),
    layers.map(({ id }) => id),
  )
}
