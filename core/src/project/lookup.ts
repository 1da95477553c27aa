// Small questions to a project that every stage asks.
import { rectangle, regionBox, joinBoxes, type Affine, type Box, type Polygon } from '../base/geometry'
import { length, say, type Said } from '../base/units'
import { layerBox } from './faces'
import type { Adhesive, Joint, Layer, Mount, Paper, PieceJoint, Project } from './schema'
import { safeStripMm } from './strength'

/** The paper taken for a layer that has none yet. */
export const ASSUMED_PAPER = { finish: 'smooth', gsm: 216, thicknessMm: 0.29 } as const

/** What is cut of the sheets for a layer. */
export const cutPieces = ({ pieces, blanks }: Pick<Layer, 'pieces' | 'blanks'>): Layer['pieces'] =>
  blanks.length > 0 ? blanks : pieces

/** The map that mirrors a layer about the middle of what is cut for it. */
export function mirrorOf(layer: Pick<Layer, 'pieces' | 'blanks'>): Affine {
  const { minX, maxX } = layerBox({ pieces: cutPieces(layer) })
  return [-1, 0, 0, 1, minX + maxX, 0]
}

/** Whether a layer is part of the picture, or only keeps the work off the pane. */
export const isStandOff = ({ role }: Pick<Layer, 'role'>): boolean => role === 'stand-off'

/** Whether a layer is held by the frame round it, by its tabs. */
export const standsInFrame = ({ joint, lives }: Pick<Layer, 'joint' | 'lives'>): boolean =>
  joint.kind === 'tab' && lives === 'stack'

/** Whether a layer is stuck to the pane and not to the stack. */
export const isOnPane = ({ lives }: Pick<Layer, 'lives'>): boolean => lives !== 'stack'

/** What holds a layer, in the few words of a list; one at the back rests on nothing of the work. */
export function heldBy({ joint, lives, leftOut }: Layer, { atBack }: { atBack: boolean }): Said {
  if (leftOut) return 'left out'
  if (lives !== 'stack') return lives === 'on-pane' ? 'on the pane' : 'behind the pane'
  if (joint.kind === 'pins') return 'on pins'
  if (joint.kind === 'heat') return 'pressed on'
  if (joint.kind === 'none') return 'laid or hung'
  if (atBack) return 'at the back'
  if (joint.kind === 'foam') return say`${length(joint.gapMm)} foam`
  return joint.kind === 'tab' ? 'held by tabs' : 'glued'
}

/** Whether a layer is film that is pressed onto what is right below it. */
export const isPressed = ({ joint }: Pick<Layer, 'joint'>): boolean => joint.kind === 'heat'

/** What is stuck to the stack, layer on layer; what the frame holds by tabs comes after. */
export const isStacked = (layer: Layer): boolean =>
  layer.joint.kind !== 'tab' &&
  !isPressed(layer) &&
  !isOnPane(layer) &&
  layer.role !== 'cover' &&
  !isStandOff(layer)

/** Film whose parts keep their distance from each other: it is brought on in one. */
export const keepsPlaces = (layer: Pick<Layer, 'inOne' | 'lives'>): boolean => layer.inOne || isOnPane(layer)

/** Whether a layer's pieces are cut in their places, as one: film whose parts keep their distance. */
export const isLaidAsOne = (layer: Layer): boolean => keepsPlaces(layer) && layer.pieces.length > 1

/** Layers that are really built: all but the optional ones left out. Back to front. */
export const builtLayers = (project: Project): Layer[] => project.layers.filter((layer) => !layer.leftOut)

/** The layer's folio: its number from the back, counted over the layers that are built; null where it is left out. */
export function folioOf(project: Project, layerId: string): number | null {
  const index = builtLayers(project).findIndex((layer) => layer.id === layerId)
  return index < 0 ? null : index + 1
}

/** A layer by its id; none for null. */
export const findLayer = (project: Project, layerId: string | null): Layer | undefined =>
  project.layers.find((layer) => layer.id === layerId)

/** The paper a layer is cut of; none where none is chosen. */
export const paperOf = (project: Project, layer: Layer): Paper | undefined =>
  project.drawer.papers.find((p) => p.id === layer.paperId)

/** Whether two papers are one paper in sheets of different size. */
export const sameButSize = (a: Paper, b: Paper): boolean =>
  a.id !== b.id &&
  a.name.trim().toLowerCase() === b.name.trim().toLowerCase() &&
  a.colour.toLowerCase() === b.colour.toLowerCase() &&
  a.finish === b.finish &&
  a.core === b.core &&
  a.gsm === b.gsm &&
  a.oneWay === b.oneWay &&
  (a.widthMm !== b.widthMm || a.heightMm !== b.heightMm)

/** The glue that is chosen. */
export const adhesiveOf = (project: Project): Adhesive | undefined =>
  project.drawer.adhesives.find((a) => a.id === project.plan.adhesiveId) ?? project.drawer.adhesives[0]

/** The glue of a layer's joint, or of one of its pieces: its own, else the layer's, else the project's. */
export function glueOf(
  project: Project,
  { joint }: Pick<Layer, 'joint'>,
  pieceId?: string,
): Adhesive | undefined {
  const find = (adhesiveId: string | null | undefined) =>
    adhesiveId ? project.drawer.adhesives.find(({ id }) => id === adhesiveId) : undefined
  return find(pieceJoint(joint, pieceId)?.adhesiveId) ?? find(joint.adhesiveId) ?? adhesiveOf(project)
}

/** How a piece is held otherwise than its layer; none where it is held like it. */
export const pieceJoint = (joint: Joint, pieceId: string | undefined): PieceJoint | undefined =>
  pieceId === undefined ? undefined : joint.pieces?.find((own) => own.pieceId === pieceId)

/** Whether a piece of a layer on foam is to be glued flat to what is beneath. */
export const isGluedFlat = ({ joint }: Pick<Layer, 'joint'>, pieceId: string): boolean =>
  joint.kind === 'foam' && pieceJoint(joint, pieceId) !== undefined && !foamOfPiece(joint, pieceId)

/** The foam that a piece has for itself, mm; 0 where it has none. */
const foamOfPiece = (joint: Joint, pieceId: string): number => pieceJoint(joint, pieceId)?.gapMm ?? 0

/** The foam that a piece is lifted by, its own or its layer's, mm; 0 where it is on none. One that is to be glued flat is lifted before it is lowered. */
export const foamUnder = ({ joint }: Pick<Layer, 'joint'>, pieceId: string): number =>
  foamOfPiece(joint, pieceId) || (joint.kind === 'foam' ? joint.gapMm : 0)

/** The glue that holds a topper's sticks. */
export function stickGlueOf(project: Project): Adhesive | undefined {
  const { mount, drawer } = project
  const own =
    mount.kind === 'topper' ? drawer.adhesives.find(({ id }) => id === mount.stickGlueId) : undefined
  return own ?? adhesiveOf(project)
}

/** Smallest strip (mm) of a layer's card that survives cutting and weeding, by what cuts it. */
export const safeStripOf = (project: Project, layer: Layer): number =>
  safeStripMm(paperOf(project, layer), project.drawer.cutter.tool)

/** Thickness of a layer’s card, mm; that of the assumed paper where none is chosen. */
export const thicknessOf = (project: Project, layer: Layer): number =>
  paperOf(project, layer)?.thicknessMm ?? ASSUMED_PAPER.thicknessMm

/** The colour a layer is drawn in: what it is coloured by hand, else its paper's, else the colour it came with. */
export const colourOf = (project: Project, layer: Layer): string =>
  layer.tint?.colour ?? paperOf(project, layer)?.colour ?? layer.colour

/** From the back board to the glazing, or to the mat before it (mm), and the air to keep in front; null where nothing limits the height. */
export function depthAtHand(mount: Mount): { depthMm: number; clearanceMm: number } | null {
  if (mount.kind === 'garland' || mount.kind === 'free') return null
  // A mat lies behind the pane: it takes its thickness from the depth.
  const matMm = mount.kind === 'frame' ? (mount.mat?.thicknessMm ?? 0) : 0
  return { depthMm: mount.depthMm - matMm, clearanceMm: mount.clearanceMm }
}

/** Whether there is something flat behind the stack that all of it can rest on. */
export const hasBoardBehind = ({ kind }: Mount): boolean =>
  kind === 'frame' || kind === 'card' || kind === 'panel'

/** Whether a layer bears its folio number: as the maker says, else on all but backing sheets and front borders. */
export const bearsNumber = (layer: Layer): boolean =>
  layer.numbered ?? !['backing', 'border', 'stand-off'].includes(layer.role)

/** The layers that are built of the design: a ring that stands it off from the pane belongs to the frame. */
export const designLayers = (project: Project): Layer[] =>
  builtLayers(project).filter((layer) => !isStandOff(layer))

/** Box of the design, mm; empty where there is none. */
export const designBox = (project: Project): Box => joinBoxes(designLayers(project).map(layerBox))

/** Backing sheet at 0,0 of the project's frame; null for toppers and free work. */
export function backingRect(project: Project): Polygon | null {
  const { mount } = project
  if (mount.kind === 'frame') return rectangle([0, 0], mount.spacer.widthMm, mount.spacer.heightMm)
  if (mount.kind === 'card' || mount.kind === 'panel')
    return rectangle([0, 0], mount.panel.widthMm, mount.panel.heightMm)
  return null
}

/** Where the design is to lie: a frame's opening, within a mat's where there is one; a card's panel; null where nothing limits it. */
export function openingRect(project: Project): Polygon | null {
  const { mount } = project
  if (mount.kind !== 'frame') return backingRect(project)
  const { spacer, opening, openingShift, mat } = mount
  const widthMm = Math.min(opening.widthMm, mat?.opening.widthMm ?? Infinity)
  const heightMm = Math.min(opening.heightMm, mat?.opening.heightMm ?? Infinity)
  return rectangle(
    [(spacer.widthMm - widthMm) / 2 + openingShift.xMm, (spacer.heightMm - heightMm) / 2 + openingShift.yMm],
    widthMm,
    heightMm,
  )
}

/** What one looks through: a frame's opening; null where nothing covers the edge of the work, as on a card. */
export const windowOf = (project: Project): Polygon | null =>
  project.mount.kind === 'frame' ? openingRect(project) : null

/** What the kept ring of a frame leaves free inside; null where there is none, or its wall was not measured. */
export function insideRing({ mount }: Pick<Project, 'mount'>): Polygon | null {
  if (mount.kind !== 'frame' || !mount.ring.kept || mount.ring.wallMm === 0) return null
  const { spacer, ring } = mount
  return rectangle(
    [ring.wallMm, ring.wallMm],
    Math.max(0, spacer.widthMm - 2 * ring.wallMm),
    Math.max(0, spacer.heightMm - 2 * ring.wallMm),
  )
}

/** The part of the frame that drawings show: backing and design together. */
export function viewBox(project: Project): Box {
  const backing = backingRect(project)
  const boxes = [designBox(project), ...(backing ? [regionBox([backing])] : [])].filter(
    (b) => b.minX <= b.maxX,
  )
  return boxes.length > 0 ? joinBoxes(boxes) : { minX: 0, minY: 0, maxX: 100, maxY: 100 }
}
