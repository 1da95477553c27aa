// What there is to know of a layer before it is cut: what is too narrow, too small, or goes on the wrong way round.
import {
  boxHeight,
  boxWidth,
  offset,
  polygonArea,
  polygonBox,
  regionBox,
  ringBox,
  subtract,
  union,
  type Box,
  type Point,
  type Region,
} from '../../../base/geometry'
import {
  backingRect,
  builtLayers,
  layerRegion,
  MOST,
  paperOf,
  type Layer,
  type Paper,
  type Project,
} from '../../../project'
import { makeLayer } from '../intake/intake'
import { bridgeFaces } from '../makers/bridge'
import { reshaped } from '../reshaped'
import { tiesOf, untied } from '../ties'
import { hiddenPart, numberPlace } from '../marks/number-place'
import { thickened, weakNecks, type Neck } from './necks'
import { turnRisks, type Turn } from './turns'

/** What may tear, fall out or go on wrong of one layer. Lengths in mm. */
export interface Soundness {
  id: string
  /** The strip it was measured against, mm. */
  safeMm: number
  necks: Neck[]
  /** Factor by which the design must grow for all necks to pass; null where they do. */
  passesAt: number | null
  turns: Turn[]
  /** Where the layer differs from itself the least wrong way round: the only sign of it. */
  sign: Point | null
  box: Box
  /** Openings under 2 mm across, whose waste is hard to weed. */
  smallOpenings: number
  /** Pieces under 4 mm across, for tweezers. */
  tweezerPieces: number
  /** Minutes to weed all openings. */
  weedingMin: number
  numberAt: Point | null
}

const WEED_S = 1.5
/** An opening less across than this is hard to weed. */
export const SMALL_OPENING_MM = 2
/** A piece less across than this wants tweezers. */
export const TWEEZER_MM = 4

/** What was found of a layer by itself, each of which takes its time. */
export interface Findings {
  necks: Neck[]
  turns: Turn[]
  numberAt: Point | null
}

/** Soundness of one layer against the safe strip (mm) of its paper. Needs the geometry loaded. */
export function soundness(
  project: Project,
  layer: Layer,
  { safeMm, cover }: { safeMm: number; cover?: Region },
): Soundness {
  const region = layerRegion(layer)
  const hidden = hiddenPart(project, layer.id, cover)
  return sumUp(layer, safeMm, {
    necks: weakNecks(region, safeMm),
    turns: turnRisks(region),
    numberAt: hidden && numberPlace(region, hidden),
  })
}

/** Findings with the counts that go with them. */
export function sumUp(layer: Pick<Layer, 'id' | 'pieces'>, safeMm: number, found: Findings): Soundness {
  const region = layerRegion(layer)
  const holes = region.flatMap((face) => face.holes)
  const across = (b: Box) => Math.max(boxWidth(b), boxHeight(b))
  const strips = found.necks.filter((neck) => neck.kind === 'neck')
  return {
    id: layer.id,
    safeMm,
    ...found,
    sign: signOf(found.turns),
    box: regionBox(region),
    passesAt: strips.length > 0 ? safeMm / Math.max(0.02, strips[0]!.widthMm) : null,
    smallOpenings: holes.filter((hole) => across(ringBox(hole)) < SMALL_OPENING_MM).length,
    tweezerPieces: region.filter((face) => across(polygonBox(face)) < TWEEZER_MM).length,
    weedingMin: (holes.length * WEED_S) / 60,
  }
}

/** Where the way that is the easiest to take for right differs. */
const signOf = (turns: readonly Turn[]): Point | null =>
  turns
    .filter((turn) => !turn.exact)
    .reduce<Turn | null>((least, turn) => (least && least.difference <= turn.difference ? least : turn), null)
    ?.at ?? null

/** Whether the layer looks right some way round that is wrong. */
export const looksRightWrong = (sound: Pick<Soundness, 'turns'>): boolean =>
  sound.turns.some((turn) => !turn.exact)

/** Makes every neck of a layer as wide as the safe strip. */
export function thickenLayer(project: Project, layerId: string, safeMm: number): Project {
  const layer = project.layers.find((l) => l.id === layerId)
  if (!layer || layer.blanks.length > 0) return project
  const region = layerRegion(layer)
  const weak = weakNecks(region, safeMm).some((neck) => neck.kind === 'neck')
  return weak
    ? reshaped(project, layer, { region: thickened(region, safeMm, roomRound(project, region)) })
    : project
}

/** Where a layer may grow: what goes into spacer or panel stays in it. Null where nothing limits it. */
export function roomRound(project: Project, region: Region): Region | null {
  const backing = backingRect(project)
  return backing && subtract(region, [backing]).length === 0 ? [backing] : null
}

/** Ties the loose bits of a layer to its body by strips, where higher layers hide them if that can be. */
export function bridgeLayer(project: Project, layerId: string, safeMm: number): Project {
  const layers = builtLayers(project)
  const at = layers.findIndex((l) => l.id === layerId)
  const layer = layers[at]
  if (!layer || layer.pieces.length < 2 || layer.blanks.length > 0) return project
  const cover = union(...layers.slice(at + 1).map(layerRegion))
  const { region, strips } = bridgeFaces(layerRegion(layer), safeMm, { cover })
  const laid = tiesOf(
    untied(layer),
    strips.map(({ from, to }) => ({ from, to, widthMm: safeMm })),
  )
  const ties = [...layer.ties, ...laid].slice(-MOST.ties)
  return reshaped(project, layer, { region, ties })
}

/** A new layer in front of one: its outline, as wide as given, drawn inwards from its edge. */
export function outlineOverlay(project: Project, layerId: string, widthMm: number): Project {
  const at = project.layers.findIndex((l) => l.id === layerId)
  const layer = project.layers[at]
  if (!layer) return project
  const region = layerRegion(layer)
  const outline = subtract(region, offset(region, -widthMm)).filter((face) => polygonArea(face) > 0.5)
  if (outline.length === 0) return project
  let id = `${layerId}-outline`
  for (let n = 2; project.layers.some((l) => l.id === id); n++) id = `${layerId}-outline-${n}`
  const made = makeLayer({ id, name: `${layer.name}, outline` }, outline, {
    role: 'overlay',
    colour: '#25262a',
    numbered: false,
    joint: { kind: 'glue', gapMm: 0, pinned: false },
  })
  return { ...project, layers: [...project.layers.slice(0, at + 1), made, ...project.layers.slice(at + 1)] }
}

/** Whether the paper of a layer is a dear one that a plain sheet could stand in for where little of it shows. */
export const isDear = (project: Project, layer: Layer): boolean => {
  const paper = paperOf(project, layer)
  return paper !== undefined && isDearPaper(paper)
}

/** Whether a paper is one of those that cost more for how they shine. */
export const isDearPaper = ({ finish }: Pick<Paper, 'finish'>): boolean =>
  finish === 'glitter' || finish === 'mirror' || finish === 'pearl'
