// Choosing papers for layers, and what is wrong with a choice.
import {
  assignPaper,
  builtLayers,
  colourOf,
  cutPieces,
  pieceRegion,
  setPlan,
  type Layer,
  type Paper,
  type Project,
  isStandOff,
} from '../../project'
import { boxHeight, boxWidth, regionBox } from '../../base/geometry'
import { isSeeThrough } from '../layers'
import { colourDifference, matchPapers, ramp } from './colour'

/** The two colours between which a ramp runs, back to front (hex). */
export type Ends = readonly [from: string, to: string]

/** Papers of a ramp over the chosen layers (back to front), matched to those of the stock on which the layers fit. */
export function rampPapers(
  project: Project,
  { layerIds, ends: [from, to], stock }: { layerIds: readonly string[]; ends: Ends; stock: readonly Paper[] },
): { layerId: string; wanted: string; paper: Paper }[] {
  const wanted = ramp(from, to, layerIds.length)
  const fits = layerIds.map((id) =>
    fitting(
      project,
      project.layers.filter((layer) => layer.id === id),
    ),
  )
  return matchPapers(wanted, usable(stock), (paper, i) => fits[i]!(paper)).map((paper, i) => ({
    layerId: layerIds[i]!,
    wanted: wanted[i]!,
    paper,
  }))
}

/** Assigns a ramp between two colours to the chosen layers, which are meant as one from then on. */
export const assignRamp = (
  project: Project,
  { layerIds, ends, stock }: { layerIds: readonly string[]; ends: Ends; stock: readonly Paper[] },
): Project =>
  rampPapers(project, { layerIds, ends, stock }).reduce(
    (p, { layerId, paper }) => assignPaper(p, [layerId], { paper, stock }),
    setPlan(project, {
      ramps: [...project.plan.ramps.filter((ids) => !ids.some((id) => layerIds.includes(id))), [...layerIds]],
    }),
  )

/** Gives each layer the paper nearest to the colour it came with; equal colours get the same paper. */
export function assignNearest(
  project: Project,
  layerIds: readonly string[],
  stock: readonly Paper[],
): Project {
  const layers = project.layers.filter((layer) => layerIds.includes(layer.id))
  const colours = [...new Set(layers.map((layer) => layer.colour))]
  const all = fitting(project, layers)
  const own = colours.map((colour) =>
    fitting(
      project,
      layers.filter((layer) => layer.colour === colour),
    ),
  )
  const papers = matchPapers(colours, usable(stock, all), (paper, i) => own[i]!(paper))
  return layers.reduce((p, layer) => {
    const paper = papers[colours.indexOf(layer.colour)]
    return paper ? assignPaper(p, [layer.id], { paper, stock }) : p
  }, project)
}

/** Sheets of so little breadth are offered only where it is known that everything fits on them (mm). */
const SMALL_MM = 200

/** Whether every piece of some layers fits on a sheet less its rim, straight or turned a quarter. */
export function fitting({ drawer }: Project, layers: readonly Layer[]): (paper: Paper) => boolean {
  const boxes = layers.flatMap((layer) =>
    cutPieces(layer).map((piece) => {
      const box = regionBox(pieceRegion(piece))
      return [boxWidth(box), boxHeight(box)].toSorted((a, b) => a - b)
    }),
  )
  const rim = 2 * drawer.cutter.rimMm
  return ({ widthMm, heightMm }) => {
    const [short, long] = [widthMm - rim, heightMm - rim].toSorted((a, b) => a - b)
    return boxes.every(([a, b]) => a! <= short! && b! <= long!)
  }
}

const isLarge = ({ widthMm, heightMm }: Paper): boolean => Math.min(widthMm, heightMm) > SMALL_MM

/** Stock that a plain layer may be made of, of sheets that serve: clear sheets and board are chosen by hand only. */
export const usable = (stock: readonly Paper[], serves: (paper: Paper) => boolean = isLarge): Paper[] => {
  const plain = stock.filter(
    (p) =>
      p.finish !== 'acetate' &&
      p.finish !== 'vellum' &&
      p.finish !== 'chipboard' &&
      p.finish !== 'craft foam',
  )
  // Where nothing serves, what is to be cut in parts lies on large sheets.
  const best = [plain.filter(serves), plain.filter(isLarge), plain].find((papers) => papers.length > 0)
  return best ?? [...stock]
}

/** Layers whose colours are told apart, back to front: clear sheets, printed ones and covers behind have none. */
export const colouredLayers = (project: Project): Layer[] =>
  builtLayers(project).filter(
    (layer) =>
      layer.print === null && layer.role !== 'cover' && !isStandOff(layer) && !isSeeThrough(project, layer),
  )

/** Pairs of neighbours in the stack with the CIEDE2000 difference of their colours. */
export function neighbourSteps(project: Project): { below: Layer; above: Layer; difference: number }[] {
  const layers = colouredLayers(project)
  return layers.slice(1).map((above, i) => {
    const below = layers[i]!
    return { below, above, difference: colourDifference(colourOf(project, below), colourOf(project, above)) }
  })
}
