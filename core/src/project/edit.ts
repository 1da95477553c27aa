// Edits: each takes a project and gives a new one; nothing is changed in place. The interface's history keeps the old.
import {
  compose,
  mapPoint,
  mapRegion,
  meanScale,
  pathToRegion,
  polygonToPath,
  rotation,
  scaling,
  translation,
  type Affine,
} from '../base/geometry'
import { movePads } from './hand-pads'
import { setPlan } from './set-plan'
import { pieceRegion } from './faces'
import { findLayer, sameButSize } from './lookup'
import type { Fold, Layer, Paper, Piece, PieceJoint, Pin, Print, Project } from './schema'

const mapLayers = (project: Project, change: (layer: Layer) => Layer): Project => ({
  ...project,
  layers: project.layers.map(change),
})

/** Sets some keys of one layer. */
export const setLayer = (project: Project, layerId: string, patch: Partial<Layer>): Project =>
  mapLayers(project, (layer) => (layer.id === layerId ? { ...layer, ...patch } : layer))

/** Makes a layer film that is pressed onto what is right below it: cut in the mirror, its parts in their places. */
export const pressOn = (project: Project, layerId: string): Project =>
  setLayer(project, layerId, {
    joint: { kind: 'heat', gapMm: 0, pinned: true },
    cutMirrored: true,
    inOne: true,
  })

/**
 * Gives pieces a joint of their own: of a layer on foam they are glued flat, of a glued one with a glue of theirs.
 * @param adhesiveId null for the layer's glue; undefined where they are held as the layer is again
 */
export function setPieceJoint(
  project: Project,
  { layerId, pieceIds }: { layerId: string; pieceIds: readonly string[] },
  adhesiveId: string | null | undefined,
): Project {
  const layer = findLayer(project, layerId)
  if (!layer) return project
  const { joint } = layer
  // Of pieces that are gone nothing is kept.
  const held = (joint.pieces ?? []).filter(
    (own) => !pieceIds.includes(own.pieceId) && layer.pieces.some(({ id }) => id === own.pieceId),
  )
  const own =
    adhesiveId === undefined
      ? held
      : [...held, ...pieceIds.map((pieceId): PieceJoint => ({ pieceId, adhesiveId }))]
  const { pieces, ...rest } = joint
  void pieces
  return setLayer(project, layerId, { joint: own.length > 0 ? { ...rest, pieces: own } : rest })
}

/** Puts pieces on foam of a height of their own, mm. */
export function setPieceFoam(
  project: Project,
  where: { layerId: string; pieceIds: readonly string[] },
  gapMm: number,
): Project {
  const held = setPieceJoint(project, where, null)
  const layer = findLayer(held, where.layerId)
  if (!layer || gapMm <= 0) return held
  const pieces = layer.joint.pieces!.map((own) =>
    where.pieceIds.includes(own.pieceId) ? { ...own, gapMm } : own,
  )
  return setLayer(held, layer.id, { joint: { ...layer.joint, pieces } })
}

/** Moves a layer to a place counted from the back (0 is the backmost). */
export function moveLayer(project: Project, layerId: string, to: number): Project {
  const layers = [...project.layers]
  const from = layers.findIndex((layer) => layer.id === layerId)
  if (from < 0) return project
  const [layer] = layers.splice(from, 1)
  layers.splice(Math.max(0, Math.min(layers.length, to)), 0, layer!)
  return { ...project, layers }
}

/** A copy of a layer right in front of it, left and right exchanged about an upright line at `x` (mm): the other wing of a pair. */
export function addMirrored(project: Project, layerId: string, x: number): Project {
  const at = project.layers.findIndex((layer) => layer.id === layerId)
  const layer = project.layers[at]
  if (!layer) return project
  const copied = addLayers(project, [{ ...layer, name: `${layer.name}, mirrored` }])
  const copy = copied.layers.at(-1)!
  return moveLayer(transformLayers(copied, [-1, 0, 0, 1, 2 * x, 0], [copy.id]), copy.id, at + 1)
}

/** Takes a layer out, with its pins, and lets go of makers that grew it. */
export function removeLayer(project: Project, layerId: string): Project {
  return {
    ...project,
    layers: project.layers.filter((layer) => layer.id !== layerId),
    plan: {
      ...project.plan,
      pins: project.plan.pins.filter((pin) => pin.layerId !== layerId),
      handPads: project.plan.handPads.filter((pad) => pad.layerId !== layerId),
      padFree: project.plan.padFree.filter((spot) => spot.layerId !== layerId),
    },
  }
}

/** Puts layers in front of those that are there, with ids that are free. */
export function addLayers(project: Project, layers: readonly Layer[]): Project {
  const taken = new Set(project.layers.map((layer) => layer.id))
  const added = layers.map((layer) => {
    let id = layer.id
    for (let n = 2; taken.has(id); n++) id = `${layer.id}-${n}`
    taken.add(id)
    return { ...layer, id }
  })
  return { ...project, layers: [...project.layers, ...added] }
}

/**
 * Chooses a paper for layers and keeps a copy of its record in the project, so that the file stands on its own; of a stock
 * the same paper in sheets of other sizes comes along.
 */
export function assignPaper(
  project: Project,
  layerIds: readonly string[],
  { paper, stock = [] }: { paper: Paper; stock?: readonly Paper[] },
): Project {
  const next = mapLayers(project, (layer) =>
    layerIds.includes(layer.id) ? { ...layer, paperId: paper.id } : layer,
  )
  const others = next.drawer.papers.filter((p) => p.id !== paper.id)
  const fresh = stock.filter((p) => sameButSize(p, paper) && !others.some((other) => other.id === p.id))
  return withPapers(next, [...others, paper, ...fresh])
}

/** Keeps of some paper records those that layers are cut of, in all sizes. */
function withPapers(project: Project, papers: readonly Paper[]): Project {
  const used = papers.filter((paper) => project.layers.some((layer) => layer.paperId === paper.id))
  return {
    ...project,
    drawer: {
      ...project.drawer,
      papers: papers.filter((p) => used.includes(p) || used.some((other) => sameButSize(p, other))),
    },
  }
}

/** Lets a project plan with the other sizes in which the drawer holds some of its papers. */
export const takeSizes = (project: Project, stock: readonly Paper[], paperIds: readonly string[]): Project =>
  withPapers(project, [
    ...project.drawer.papers,
    ...stock.filter((p) => paperIds.includes(p.id) && !project.drawer.papers.some((own) => own.id === p.id)),
  ])

/**
 * Brings the project's copies of paper records up to the shared drawer's. Off-cuts that came into the drawer since do not
 * turn a plan over; those that are gone from it fall away, unless the project's sheets are cut already.
 */
export function refreshPapers(project: Project, stock: readonly Paper[]): Project {
  // Sheets that were noted before cut ones were kept as they are still need what they were cut of.
  const cut = project.journal.sheetsUsed.length > 0 && project.cut.length === 0
  const papers = project.drawer.papers.map((paper) => {
    const shared = stock.find((p) => p.id === paper.id)
    if (!shared) return paper
    return {
      ...shared,
      offCuts: paper.offCuts.filter((own) => cut || shared.offCuts.some((offCut) => offCut.id === own.id)),
    }
  })
  return { ...project, drawer: { ...project.drawer, papers } }
}

/** Lets a project plan with the off-cuts that the shared drawer holds of some of its papers. */
export const takeOffCuts = (
  project: Project,
  stock: readonly Paper[],
  paperIds: readonly string[],
): Project => ({
  ...project,
  drawer: {
    ...project.drawer,
    papers: project.drawer.papers.map((paper) =>
      paperIds.includes(paper.id)
        ? { ...paper, offCuts: stock.find((p) => p.id === paper.id)?.offCuts ?? paper.offCuts }
        : paper,
    ),
  },
})

function mapPoints(map: Affine, points: readonly number[]): number[] {
  const out: number[] = []
  for (let i = 0; i + 1 < points.length; i += 2) out.push(...mapPoint(map, points[i]!, points[i + 1]!))
  return out
}

const mapLine = (map: Affine, [x1, y1, x2, y2]: Fold['line']): Fold['line'] => [
  ...mapPoint(map, x1, y1),
  ...mapPoint(map, x2, y2),
]

const composed = (map: Affine, print: Print['map']): Print['map'] => [...compose(map, print)] as Print['map']

/** A layer with all that lies on it mapped. */
export function transformLayer(layer: Layer, map: Affine): Layer {
  const mapPiece = (piece: Piece): Piece => ({
    ...piece,
    path: mapRegion(map, pieceRegion(piece)).map(polygonToPath).join(''),
  })
  return {
    ...layer,
    folds: layer.folds.map((fold) => ({ ...fold, line: mapLine(map, fold.line) })),
    ties: layer.ties.map((tie) => ({
      ...tie,
      line: mapLine(map, tie.line),
      widthMm: tie.widthMm * meanScale(map),
      added: mapRegion(map, pathToRegion(tie.added)).map(polygonToPath).join(''),
    })),
    slits: layer.slits.map((slit) => mapPoints(map, slit)),
    pieces: layer.pieces.map(mapPiece),
    blanks: layer.blanks.map(mapPiece),
    print: layer.print && { ...layer.print, map: composed(map, layer.print.map) },
  }
}

/**
 * Maps every piece of the chosen layers (all by default), proportions as the map has them. What is only moved stays where it is pinned
 * on the sheets; pins of what is turned or scaled fall away.
 */
export function transformLayers(project: Project, by: Affine, layerIds?: readonly string[]): Project {
  const map = inThousandths(by)
  const chosen = (id: string) => !layerIds || layerIds.includes(id)
  const next = mapLayers(project, (layer) => (chosen(layer.id) ? transformLayer(layer, map) : layer))
  return setPlan(next, {
    pins: next.plan.pins.flatMap((pin) => (chosen(pin.layerId) ? (pinMoved(pin, map) ?? []) : pin)),
    ...movePads(next, map, chosen),
  })
}

const isMove = ([a, b, c, d]: Affine): boolean => a === 1 && b === 0 && c === 0 && d === 1

/** A move by whole thousandths of a mm, as outlines are written: what is moved is the same shape to the last digit. Other maps as they are. */
export const inThousandths = (map: Affine): Affine => {
  const whole = (mm: number) => Math.round(mm * 1000) / 1000
  return isMove(map) ? translation(whole(map[4]), whole(map[5])) : map
}

/** The pin that holds a piece where it lies once its layer is moved in the picture; null where it is more than moved. */
function pinMoved(pin: Pin, map: Affine): Pin | null {
  if (!isMove(map)) return null
  const [dx, dy] = mapPoint(rotation(pin.rotation), map[4], map[5])
  return { ...pin, x: pin.x - dx, y: pin.y - dy }
}

/** The map that scales about a point and then moves that point elsewhere. */
export const scaleAndMove = (
  factor: number,
  from: { x: number; y: number },
  to: { x: number; y: number },
): Affine => compose(translation(to.x, to.y), compose(scaling(factor), translation(-from.x, -from.y)))

/** Fixes a piece at a place on a sheet, or moves an earlier pin of it. */
export function setPin(project: Project, pin: Pin): Project {
  return setPlan(project, { pins: [...dropPin(project, pin).plan.pins, pin] })
}

/** Lets a pinned copy of a piece go. */
export function dropPin(project: Project, pin: Pick<Pin, 'layerId' | 'pieceId' | 'copy'>): Project {
  const same = (other: Pin) =>
    other.layerId === pin.layerId && other.pieceId === pin.pieceId && other.copy === pin.copy
  return setPlan(project, { pins: project.plan.pins.filter((other) => !same(other)) })
}
