// Choosing papers for layers, and what is wrong with a choice.
import {
  assignPaper,
  builtLayers,
  colourOf,
  paperOf,
  type Layer,
  type Paper,
  type Project,
  type Snag,
} from '../../project'
import { colourDifference, matchPapers, ramp, TOO_ALIKE } from './colour'

/** Papers of a ramp over the chosen layers (back to front), matched to the stock. */
export function rampPapers(
  layerIds: readonly string[],
  from: string,
  to: string,
  stock: readonly Paper[],
): { layerId: string; wanted: string; paper: Paper }[] {
  const wanted = ramp(from, to, layerIds.length)
  return matchPapers(wanted, usable(stock)).map((paper, i) => ({
    layerId: layerIds[i]!,
    wanted: wanted[i]!,
    paper,
  }))
}

/** Assigns a ramp between two colours to the chosen layers. */
export const assignRamp = (
  project: Project,
  layerIds: readonly string[],
  from: string,
  to: string,
  stock: readonly Paper[],
): Project =>
  rampPapers(layerIds, from, to, stock).reduce(
    (p, { layerId, paper }) => assignPaper(p, [layerId], paper, stock),
    project,
  )

/** Gives each layer the paper nearest to the colour it came with; equal colours get the same paper. */
export function assignNearest(
  project: Project,
  layerIds: readonly string[],
  stock: readonly Paper[],
): Project {
  const layers = project.layers.filter((layer) => layerIds.includes(layer.id))
  const colours = [...new Set(layers.map((layer) => layer.colour))]
  const papers = matchPapers(colours, usable(stock))
  return layers.reduce((p, layer) => {
    const paper = papers[colours.indexOf(layer.colour)]
    return paper ? assignPaper(p, [layer.id], paper, stock) : p
  }, project)
}

/** Stock that a plain layer may be made of: clear sheets and board are chosen by hand only. */
const usable = (stock: readonly Paper[]): Paper[] => {
  const plain = stock.filter(
    (p) =>
      p.finish !== 'acetate' &&
      p.finish !== 'vellum' &&
      p.finish !== 'chipboard' &&
      Math.min(p.widthMm, p.heightMm) > 200,
  )
  return plain.length > 0 ? plain : [...stock]
}

/** Pairs of neighbours in the stack with the CIEDE2000 difference of their colours. */
export function neighbourSteps(project: Project): { below: Layer; above: Layer; difference: number }[] {
  const layers = builtLayers(project)
  return layers.slice(1).map((above, i) => {
    const below = layers[i]!
    return { below, above, difference: colourDifference(colourOf(project, below), colourOf(project, above)) }
  })
}

/** Findings of the paper stage. The stock is what other papers there are to swap to. */
export function paperSnags(project: Project, stock: readonly Paper[]): Snag[] {
  const snags: Snag[] = []
  const bare = builtLayers(project).filter((layer) => !paperOf(project, layer))
  if (bare.length > 0)
    snags.push({
      code: 'no-paper',
      stage: 'paper',
      severity: 'caution',
      layer: bare[0]!.id,
      at: null,
      message:
        bare.length === 1
          ? `Layer “${bare[0]!.name}” has no paper yet; smooth 216 gsm is assumed.`
          : `${bare.length} layers have no paper yet; smooth 216 gsm is assumed.`,
      mend: {
        label: 'Take the nearest papers in the drawer',
        action: { kind: 'nearest-papers', layerIds: bare.map((l) => l.id) },
      },
    })
  for (const { below, above, difference } of neighbourSteps(project)) {
    if (difference >= TOO_ALIKE) continue
    const swap = swapFor(project, above, stock)
    snags.push({
      code: 'too-alike',
      stage: 'paper',
      severity: 'caution',
      layer: above.id,
      at: null,
      message: `“${below.name}” and “${above.name}” are too alike to tell apart (difference ${difference.toFixed(1)}; ${TOO_ALIKE} or more is safe).`,
      ...(swap
        ? {
            mend: {
              label: `Take ${swap.name} for “${above.name}”`,
              action: { kind: 'swap-paper' as const, layerId: above.id, paperId: swap.id },
            },
          }
        : {}),
    })
  }
  return snags
}

/** The paper nearest to a layer's own that stands clear of both its neighbours. */
function swapFor(project: Project, layer: Layer, stock: readonly Paper[]): Paper | undefined {
  const layers = builtLayers(project)
  const i = layers.indexOf(layer)
  const neighbours = [layers[i - 1], layers[i + 1]]
    .filter((l) => l !== undefined)
    .map((l) => colourOf(project, l))
  const own = colourOf(project, layer)
  return usable(stock)
    .filter(
      (p) =>
        p.id !== layer.paperId && neighbours.every((c) => colourDifference(c, p.colour) >= TOO_ALIKE + 2),
    )
    .toSorted((a, b) => colourDifference(own, a.colour) - colourDifference(own, b.colour))[0]
}
