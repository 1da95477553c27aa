// Made layers in a project: put in, and put in again after a change of the recipe with papers and joints kept.
import { polygonBox, translation } from '../../../base/geometry'
import {
  addLayers,
  assignPaper,
  backingRect,
  designBox,
  setLayer,
  slug,
  transformLayers,
  type Assembly,
  type Grown,
  type Layer,
  type Paper,
  type Project,
  type Recipe,
} from '../../../project'
import { keptPieces } from '../kept-pieces'
import type { Made } from './made'

/** Puts made layers in front of those that are there, in the middle of the backing, and keeps their recipe under an id. */
export function grow(
  project: Project,
  id: string,
  { recipe, made }: { recipe: Recipe; made: Made },
): Project {
  const before = new Set(project.layers.map((layer) => layer.id))
  const own = centred(project, made)
  const part = made.part === undefined ? null : newPart(project, made.part)
  const next = addLayers(project, part ? own.map((layer) => ({ ...layer, assemblyId: part.id })) : own)
  const layerIds = next.layers.map((layer) => layer.id).filter((layerId) => !before.has(layerId))
  return {
    ...next,
    assemblies: part ? [...next.assemblies, part] : next.assemblies,
    grown: [...next.grown, { id, recipe, layerIds }],
  }
}

/** A part with a name and an id that are free. */
function newPart({ assemblies }: Project, name: string): Assembly {
  const free = (taken: (candidate: string) => boolean, stem: string, between: string): string => {
    let next = stem
    for (let n = 2; taken(next); n++) next = `${stem}${between}${n}`
    return next
  }
  return {
    id: free((id) => assemblies.some((one) => one.id === id), slug(name) || 'part', '-'),
    name: free((own) => assemblies.some((one) => one.name === own), name, ' '),
    parentId: null,
    apart: true,
  }
}

/** Papers that a maker chose come into the project's drawer with its layers; a layer whose paper is not in stock has none. */
export const withMadePapers = (project: Project, made: Made, stock: readonly Paper[]): Project =>
  project.layers.reduce((p, { id, paperId }) => {
    const isMade = paperId !== null && made.layers.some((layer) => layer.paperId === paperId)
    if (!isMade || p.drawer.papers.some((one) => one.id === paperId)) return p
    const paper = stock.find((one) => one.id === paperId)
    return paper ? assignPaper(p, [id], { paper, stock }) : setLayer(p, id, { paperId: null })
  }, project)

/** Makes layers again: each new one keeps the paper and joint of the old one of its name or place. */
export function growAgain(
  project: Project,
  id: string,
  { recipe, made }: { recipe: Recipe; made: Made },
): Project {
  const entry = project.grown.find((grown) => grown.id === id)
  if (!entry) return grow(project, id, { recipe, made })
  const old = project.layers.filter((layer) => entry.layerIds.includes(layer.id))
  const at = project.layers.findIndex((layer) => entry.layerIds.includes(layer.id))
  const rest = project.layers.filter((layer) => !entry.layerIds.includes(layer.id))
  const taken = new Set(rest.map((layer) => layer.id))
  const names = new Set(made.layers.map((layer) => layer.name))
  const put = (layers: Layer[]): Layer[] =>
    entry.place ? transformLayers({ ...project, layers }, entry.place).layers : layers
  const fresh = put(centred(project, made)).map((layer, k): Layer => {
    // The old layer of the same name; else the one at the same place, if its own name is gone.
    const kept =
      old.find((candidate) => candidate.name === layer.name) ??
      (old[k] && !names.has(old[k].name) ? old[k] : undefined)
    let layerId = kept?.id ?? layer.id
    for (let n = 2; taken.has(layerId); n++) layerId = `${layer.id}-${n}`
    taken.add(layerId)
    // What the maker draws is new; paper, joint and the like stay.
    const { blanks, folds, ties, slits, shaping, name, colour } = layer
    // A picture stays where the maker has put it, until it is another one.
    const print = kept?.print?.pictureId === layer.print?.pictureId ? (kept?.print ?? null) : layer.print
    if (!kept) return { ...layer, id: layerId }
    const isFlat = blanks.length === 0 && kept.blanks.length === 0
    const pieces = isFlat ? keptPieces(kept.pieces, layer.pieces) : layer.pieces
    return { ...kept, id: layerId, pieces, blanks, folds, ties, slits, shaping, print, name, colour }
  })
  const place = at < 0 ? rest.length : Math.min(at, rest.length)
  const renewed: Grown = { ...entry, recipe, layerIds: fresh.map((layer) => layer.id) }
  return {
    ...project,
    layers: [...rest.slice(0, place), ...fresh, ...rest.slice(place)],
    grown: project.grown.map((grown) => (grown.id === id ? renewed : grown)),
    plan: { ...project.plan, pins: project.plan.pins.filter((pin) => !entry.layerIds.includes(pin.layerId)) },
  }
}

/** The layers moved to the middle of the backing; as they are where there is none. */
function centred(project: Project, made: Made): Layer[] {
  const backing = backingRect(project)
  if (!backing || made.inPlace) return made.layers
  const b = polygonBox(backing)
  const alone = { ...project, layers: made.layers }
  const d = designBox(alone)
  return transformLayers(
    alone,
    translation((b.minX + b.maxX - d.minX - d.maxX) / 2, (b.minY + b.maxY - d.minY - d.maxY) / 2),
  ).layers
}
