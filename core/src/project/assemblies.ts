// Assemblies: layers that are one part with a name. Parts may lie in parts; each moves, turns and is copied as one.
import { removeLayer, setLayer } from './edit'
import type { Assembly, Layer, Project } from './schema'

/** The assembly and all that lie in it, however deep. */
function withInner(project: Project, assemblyId: string): Set<string> {
  const found = new Set([assemblyId])
  // A part comes to lie in another after it was made: a few rounds find all.
  for (let grew = true; grew;) {
    grew = false
    for (const { id, parentId } of project.assemblies)
      if (parentId !== null && found.has(parentId) && !found.has(id)) {
        found.add(id)
        grew = true
      }
  }
  return found
}

/** Layers of an assembly and of those within it, back to front. */
export function membersOf(project: Project, assemblyId: string): Layer[] {
  const ids = withInner(project, assemblyId)
  return project.layers.filter((layer) => layer.assemblyId !== null && ids.has(layer.assemblyId))
}

/** The outermost assembly that a layer lies in; null where it lies in none. */
export function outermost(project: Project, layer: Layer): Assembly | null {
  let found: Assembly | null = null
  const seen = new Set<string>()
  for (let id = layer.assemblyId; id !== null && !seen.has(id);) {
    seen.add(id)
    const next = project.assemblies.find((assembly) => assembly.id === id)
    if (!next) break
    found = next
    id = next.parentId
  }
  return found
}

/** What moves along with layers: all members of the parts that they lie in. Back to front. */
export function movedWith(project: Project, layerIds: readonly string[]): string[] {
  const chosen = new Set(layerIds)
  for (const layer of project.layers) {
    const part = chosen.has(layer.id) ? outermost(project, layer) : null
    if (part) for (const member of membersOf(project, part.id)) chosen.add(member.id)
  }
  return project.layers.filter((layer) => chosen.has(layer.id)).map((layer) => layer.id)
}

/** The single things among layers, back to front: each part once, and each layer that lies in none. */
export function unitsOf(
  project: Project,
  layerIds: readonly string[],
): { name: string; layerIds: string[] }[] {
  const units = new Map<string, { name: string; layerIds: string[] }>()
  for (const id of movedWith(project, layerIds)) {
    const layer = project.layers.find((one) => one.id === id)!
    const part = outermost(project, layer)
    const key = part ? `part ${part.id}` : `layer ${id}`
    const unit = units.get(key) ?? { name: part?.name ?? layer.name, layerIds: [] }
    unit.layerIds.push(id)
    units.set(key, unit)
  }
  return [...units.values()]
}

/** Makes one part of layers; parts among them come to lie in it whole. */
export function assemble(
  project: Project,
  layerIds: readonly string[],
  { id, name }: { id: string; name: string },
): Project {
  const chosen = movedWith(project, layerIds)
  if (chosen.length === 0 || project.assemblies.some((assembly) => assembly.id === id)) return project
  const inner = new Set(
    project.layers.flatMap((layer) =>
      chosen.includes(layer.id) ? (outermost(project, layer)?.id ?? []) : [],
    ),
  )
  return {
    ...project,
    assemblies: [
      ...project.assemblies.map((assembly) =>
        inner.has(assembly.id) ? { ...assembly, parentId: id } : assembly,
      ),
      { id, name, parentId: null, apart: true },
    ],
    layers: project.layers.map((layer) =>
      chosen.includes(layer.id) && layer.assemblyId === null ? { ...layer, assemblyId: id } : layer,
    ),
  }
}

/** Takes a part apart: what lay in it lies in what it lay in. */
export function disassemble(project: Project, assemblyId: string): Project {
  const part = project.assemblies.find((assembly) => assembly.id === assemblyId)
  if (!part) return project
  const up = (id: string | null) => (id === assemblyId ? part.parentId : id)
  return {
    ...project,
    assemblies: project.assemblies
      .filter((assembly) => assembly.id !== assemblyId)
      .map((assembly) => ({ ...assembly, parentId: up(assembly.parentId) })),
    layers: project.layers.map((layer) => ({ ...layer, assemblyId: up(layer.assemblyId) })),
  }
}

/** Sets some keys of a part. */
export const setAssembly = (
  project: Project,
  assemblyId: string,
  patch: Partial<Omit<Assembly, 'id'>>,
): Project => ({
  ...project,
  assemblies: project.assemblies.map((assembly) =>
    assembly.id === assemblyId ? { ...assembly, ...patch } : assembly,
  ),
})

/** Has all parts built on the bench, or none. */
export const buildApart = (project: Project, apart: boolean): Project => ({
  ...project,
  assemblies: project.assemblies.map((part) => ({ ...part, apart })),
})

/** Draws all layers of a part, or none. */
export const hideAssembly = (project: Project, assemblyId: string, hidden: boolean): Project =>
  membersOf(project, assemblyId).reduce((p, layer) => setLayer(p, layer.id, { hidden }), project)

/** Takes a part out with all its layers. */
export function removeAssembly(project: Project, assemblyId: string): Project {
  const ids = withInner(project, assemblyId)
  const bare = membersOf(project, assemblyId).reduce((p, layer) => removeLayer(p, layer.id), project)
  return { ...bare, assemblies: bare.assemblies.filter((assembly) => !ids.has(assembly.id)) }
}
