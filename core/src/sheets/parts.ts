// Which pieces are to be cut of which paper, and the layout that comes of it.
import { pathToRegion, polygonArea } from '../geometry'
import { builtLayers, fingerprint, paperOf, type Layer, type Paper, type Project } from '../project'
import type { NestInstance, NestLayout, NestPiece, OffCutSheet, Placement } from './nest/instance'

/** Everything that is cut of one paper. */
export interface PaperRun {
  paper: Paper
  layers: Layer[]
  instance: NestInstance
  /** Of the search for its first layout. */
  seed: number
  /** Names this run's inputs: equal fingerprints lead to equal layouts. */
  fingerprint: string
}

/** A layout with the run it belongs to. */
export interface NestedRun {
  run: PaperRun
  layout: NestLayout
}

const SEPARATOR = '/'

/** Name of a part in an instance: layer and piece. */
export const partId = (layerId: string, pieceId: string): string => `${layerId}${SEPARATOR}${pieceId}`

/** The layer and the piece of a part's name. */
export function splitPartId(id: string): { layerId: string; pieceId: string } {
  const cut = id.lastIndexOf(SEPARATOR)
  return { layerId: id.slice(0, cut), pieceId: id.slice(cut + 1) }
}

/** Stand-in for layers without a paper, so that their sheets can be planned too. */
export const plainPaper = (project: Project): Paper => ({
  id: 'no-paper',
  name: 'paper not chosen',
  colour: '#d8d5cc',
  finish: 'smooth',
  gsm: 216,
  thicknessMm: 0.29,
  core: 'solid',
  widthMm: project.drawer.cutter.bedWidthMm,
  heightMm: project.drawer.cutter.bedHeightMm,
  count: 0,
  price: 0,
  oneWay: false,
  note: '',
  offCuts: [],
})

/** Kept free along the edges of an off-cut, mm: it is laid on the mat by eye. */
const OFF_CUT_RIM_MM = 3

/** Off-cuts of a paper as sheets, small ones first: a large one may serve for something large. */
export function offCutSheets(paper: Paper): OffCutSheet[] {
  return paper.offCuts
    .flatMap((offCut): OffCutSheet[] => {
      const outline = pathToRegion(offCut.path)[0]
      return outline ? [{ id: offCut.id, outline, margin: OFF_CUT_RIM_MM }] : []
    })
    .toSorted((a, b) => polygonArea(a.outline) - polygonArea(b.outline) || a.id.localeCompare(b.id))
}

/** One run per paper, in the order in which the papers first appear from the back. */
export function paperRuns(project: Project): PaperRun[] {
  const groups = new Map<string, { paper: Paper; layers: Layer[] }>()
  for (const layer of builtLayers(project)) {
    const paper = paperOf(project, layer) ?? plainPaper(project)
    const group = groups.get(paper.id)
    if (group) group.layers.push(layer)
    else groups.set(paper.id, { paper, layers: [layer] })
  }
  const { cutter } = project.drawer
  return [...groups.values()].map(({ paper, layers }) => {
    const turns = paper.oneWay ? 'fixed' : project.plan.turns
    const pieces = layers.flatMap((layer) =>
      layer.pieces.flatMap((piece): NestPiece[] => {
        const shape = pathToRegion(piece.path)[0]
        return shape
          ? [
              {
                id: partId(layer.id, piece.id),
                shape,
                qty: layer.copies,
                turns,
                ...(layer.sharing === 'any' ? {} : { sharing: layer.sharing }),
                group: layer.id,
              },
            ]
          : []
      }),
    )
    const ids = new Set(pieces.map((piece) => piece.id))
    const pinned: Placement[] = project.plan.pins
      .map(({ layerId, pieceId, ...place }) => ({ id: partId(layerId, pieceId), ...place }))
      .filter((pin) => ids.has(pin.id) && pin.copy < (layers.find((l) => l.id === splitPartId(pin.id).layerId)?.copies ?? 0))
    const offCuts = project.plan.useOffCuts ? offCutSheets(paper) : []
    const sheet = { w: paper.widthMm, h: paper.heightMm, margin: cutter.rimMm }
    const instance: NestInstance = { sheet, gap: project.plan.gapMm, pieces, offCuts, pinned }
    const names = layers.map((layer) => [layer.id, layer.copies, layer.pieces, layer.sharing])
    const seed = project.plan.layoutSeeds[paper.id] ?? 1
    return { paper, layers, instance, seed, fingerprint: fingerprint([sheet, instance.gap, turns, pinned, names, offCuts.map((o) => o.id), seed]) }
  })
}
