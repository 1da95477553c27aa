// The colours of a project: which papers its layers are cut of, and colours that have none yet.
import { groupBy } from '../../base'
import {
  assignPaper,
  builtLayers,
  colourOf,
  paperOf,
  setLayer,
  type Paper,
  type Project,
} from '../../project'

/** A colour with the layers that are of it, back to front. */
export interface ColourInUse {
  key: string
  name: string
  colour: string
  /** Null where no paper was chosen. */
  paperId: string | null
  layerIds: string[]
}

/** The colours of all layers that are built, those of most layers first. */
export function coloursInUse(project: Project): ColourInUse[] {
  const groups = groupBy(builtLayers(project), (layer) => layer.paperId ?? colourOf(project, layer))
  return [...groups]
    .map(([key, layers]) => ({
      key,
      name: paperOf(project, layers[0]!)?.name ?? `${layers[0]!.name}, no paper yet`,
      colour: colourOf(project, layers[0]!),
      paperId: layers[0]!.paperId,
      layerIds: layers.map((layer) => layer.id),
    }))
    .toSorted((a, b) => b.layerIds.length - a.layerIds.length)
}

/** Gives layers the paper of a colour in use, or the bare colour where that has no paper. */
export function giveColour(
  project: Project,
  layerIds: readonly string[],
  { to, stock }: { to: Pick<ColourInUse, 'paperId' | 'colour'>; stock: readonly Paper[] },
): Project {
  const paper = project.drawer.papers.find(({ id }) => id === to.paperId)
  if (paper) return assignPaper(project, layerIds, { paper, stock })
  return layerIds.reduce((p, id) => setLayer(p, id, { paperId: null, colour: to.colour }), project)
}
