// A topper on its sticks: where they go behind it, what holds them, how far what they do not hold sinks. Lengths in mm, the
// project's frame, y down.
import { length, say, type Said } from '../../base/units'
import {
  offset,
  polygonArea,
  regionBox,
  regionCentroid,
  union,
  type Point,
  type Region,
} from '../../base/geometry'
import {
  addLayers,
  ASSUMED_PAPER,
  builtLayers,
  layerRegion,
  moveLayer,
  paperOf,
  thicknessOf,
  type Adhesive,
  type Layer,
  type Mount,
  type Project,
} from '../../project'
import { backingRound, cardAt, lowestRun, makeLayer, sinkOf, stickPlaces } from '../layers'

/** A stick behind the topper: its middle, and from where to where it lies on card. */
export interface StickPlace {
  x: number
  widthMm: number
  /** Upper and lower end of what lies on card. */
  headMm: number
  footMm: number
  /** Card as wide as the stick is behind it there. */
  isHeld: boolean
}

/** What a glue makes of the sticks: how soon, how strong, how it looks. */
export interface StickGlue {
  adhesive: Adhesive
  /** What all sticks hold, newton, and how many times the topper's own weight that is. */
  holdsN: number
  times: number
}

/** How a topper is held. */
export interface TopperHold {
  sticks: StickPlace[]
  /** Of all card. */
  massG: number
  centre: Point
  /** From the nearest stick to the farthest end. */
  reachMm: number
  /** How far that end sinks where the topper is held level; upright it is less. */
  sagMm: number
  /** The centre of mass lies between the outer sticks, or over the only one. */
  isBalanced: boolean
  /** What would hold it better; null where nothing is known that would. */
  helpedBy: StickHelp | null
  glues: StickGlue[]
  remarks: Said[]
}

/** Places left to the plan, in place of those that the maker chose; card behind, cut round all of it; or fewer sticks. */
export type StickHelp = { kind: 'free' } | { kind: 'card' } | { kind: 'fewer'; sticks: number }

/** A mount that is a topper. */
type TopperMount = Extract<Mount, { kind: 'topper' }>

/** Of a stick's width so much lies on card: a round one touches along a line, which glue widens. */
const TOUCH = { flat: 1, toothpick: 0.4, skewer: 0.4, dowel: 0.4, own: 0.5 } as const
/** A centre of mass so far beside its only stick turns the topper (mm). */
const BESIDE_MM = 4
const GRAVITY = 9.81
/** Stiffness of card along (Pa). */
const STIFFNESS = 2.5e9

/** How the topper of a project is held; null where there is none, or nothing is drawn of it. */
export function topperHold(project: Project): TopperHold | null {
  const { mount } = project
  const layers = builtLayers(project).filter(({ pieces }) => pieces.length > 0)
  if (mount.kind !== 'topper' || layers.length === 0) return null
  const mass = massOf(project, layers)
  const back = layerRegion(backOf(layers))
  const { at, remarks } = stickXs(mount, back, mass.centre)
  const sticks = at.map((x): StickPlace => {
    const run = lowestRun(back, x, regionBox(back))
    const footMm = run?.foot ?? regionBox(back).maxY
    return {
      x,
      widthMm: mount.stick.widthMm,
      headMm: Math.max(run?.head ?? footMm, Math.min(mass.centre.y, footMm - 2 * mount.stick.widthMm)),
      footMm,
      isHeld: run !== null,
    }
  })
  const b = regionBox(layers.flatMap(layerRegion))
  const holds = at.length > 0 ? at : [mass.centre.x]
  const sink = sinkOf(b, holds, (x) => ({
    loadNPerM: weightAt(project, layers, x),
    stiffness: bendingAt(project, layers, x),
  }))
  const touchMm2 = sticks.reduce(
    (sum, { headMm, footMm, widthMm }) => sum + (footMm - headMm) * widthMm * TOUCH[mount.stick.kind],
    0,
  )
  const weightN = (mass.g / 1000) * GRAVITY
  return {
    sticks,
    massG: mass.g,
    centre: mass.centre,
    reachMm: Math.max(...[b.minX, b.maxX].map((end) => Math.min(...holds.map((x) => Math.abs(x - end))))),
    sagMm: sink,
    isBalanced: isBalanced(at, mass.centre.x),
    helpedBy: helpFor(project, mount, { sticks, back, centre: mass.centre }),
    glues: project.drawer.adhesives.map((adhesive) => {
      const holdsN = (touchMm2 * adhesive.holdsKPa) / 1000
      return { adhesive, holdsN, times: weightN > 0 ? holdsN / weightN : 0 }
    }),
    remarks: [
      ...remarks,
      ...sticks
        .filter(({ isHeld }) => !isHeld)
        .map(({ x }) => say`No card is behind the stick at ${length(x, 0)} from the left.`),
    ],
  }
}

/** The layer that sticks are glued to: the backmost that is no cover over them. */
const backOf = (layers: readonly Layer[]): Layer => layers.find(({ role }) => role !== 'cover') ?? layers[0]!

/** Whether the maker has given each stick its place. */
const areByHand = ({ sticks, stickPlacesMm }: TopperMount): boolean =>
  stickPlacesMm.length === sticks && sticks > 0

function stickXs(mount: TopperMount, back: Region, centre: Point) {
  const { sticks, stick, stickPlacesMm } = mount
  if (areByHand(mount)) return { at: [...stickPlacesMm], remarks: [] }
  return stickPlaces(back, { sticks, stickMm: stick.widthMm }, centre)
}

function helpFor(
  project: Project,
  mount: TopperMount,
  now: { sticks: readonly StickPlace[]; back: Region; centre: Point },
): StickHelp | null {
  if (areByHand(mount)) return isBetterFreed(mount, now) ? { kind: 'free' } : null
  const found = now.sticks.length
  if (found >= mount.sticks) return null
  if (stickXs(mount, backingRound(project), now.centre).at.length >= mount.sticks) return { kind: 'card' }
  return found > 0 ? { kind: 'fewer', sticks: found } : null
}

/** Whether sticks that are placed by hand hold less well than they would elsewhere. */
function isBetterFreed(
  mount: TopperMount,
  { sticks, back, centre }: { sticks: readonly StickPlace[]; back: Region; centre: Point },
): boolean {
  const held = sticks.filter(({ isHeld }) => isHeld).length
  const found = stickXs({ ...mount, stickPlacesMm: [] }, back, centre).at
  const isNow = isBalanced(
    sticks.map(({ x }) => x),
    centre.x,
  )
  return found.length > held || (found.length === held && !isNow && isBalanced(found, centre.x))
}

const isBalanced = (at: readonly number[], x: number): boolean =>
  at.length === 0 ||
  (at.length === 1
    ? Math.abs(at[0]! - x) <= BESIDE_MM
    : x > Math.min(...at) - BESIDE_MM && x < Math.max(...at) + BESIDE_MM)

const gsmOf = (project: Project, layer: Layer): number => (paperOf(project, layer) ?? ASSUMED_PAPER).gsm

/** Mass of all card (g) and its middle. */
function massOf(project: Project, layers: readonly Layer[]): { g: number; centre: Point } {
  let [g, x, y] = [0, 0, 0]
  for (const layer of layers)
    for (const face of layerRegion(layer)) {
      const { x: cx, y: cy } = regionCentroid([face])
      const own = (polygonArea(face) / 1e6) * gsmOf(project, layer)
      g += own
      x += own * cx
      y += own * cy
    }
  return { g, centre: g > 0 ? { x: x / g, y: y / g } : { x: 0, y: 0 } }
}

/** Weight of all card in a column, newton a metre across. */
const weightAt = (project: Project, layers: readonly Layer[], x: number): number =>
  layers.reduce(
    (sum, layer) => sum + ((cardAt(layerRegion(layer), x) / 1000) * gsmOf(project, layer) * GRAVITY) / 1000,
    0,
  )

/**
 * Bending stiffness of a column, N m²: sheets that are glued to each other bend as one (parallel axes), sheets on foam each by itself,
 * since foam gives sideways.
 */
function bendingAt(project: Project, layers: readonly Layer[], x: number): number {
  let sum = 0
  let pack: { w: number; t: number; y: number }[] = []
  let top = 0
  const close = () => {
    const area = pack.reduce((a, { w, t }) => a + w * t, 0)
    if (area > 0) {
      const axis = pack.reduce((a, { w, t, y }) => a + w * t * y, 0) / area
      sum += pack.reduce((a, { w, t, y }) => a + (w * t ** 3) / 12 + w * t * (y - axis) ** 2, 0)
    }
    pack = []
    top = 0
  }
  layers.forEach((layer, i) => {
    if (i > 0 && layer.joint.kind !== 'glue') close()
    const t = thicknessOf(project, layer) / 1000
    pack.push({ w: cardAt(layerRegion(layer), x) / 1000, t, y: top + t / 2 })
    top += t
  })
  close()
  return STIFFNESS * sum
}

/** A cover is drawn in by so much, so that it does not show from the front (mm). */
const COVER_IN_MM = 0.5

/** The cover over a topper's sticks, where there is one. */
export const coverOf = (project: Project): Layer | undefined =>
  builtLayers(project).find(({ role }) => role === 'cover')

/**
 * A piece that hides the sticks behind a topper: the back's outline without its openings, drawn in a little, its good side to the back.
 * It is cut and counted like any layer. Needs the geometry loaded.
 */
export function addCover(project: Project): Project {
  const layers = builtLayers(project).filter(({ pieces }) => pieces.length > 0)
  if (project.mount.kind !== 'topper' || layers.length === 0 || coverOf(project)) return project
  const back = backOf(layers)
  const outline = union(...layerRegion(back).map(({ outer }) => [{ outer, holes: [] }]))
  const own = makeLayer({ id: 'cover', name: 'Cover behind the sticks' }, offset(outline, -COVER_IN_MM), {
    role: 'cover',
    numbered: false,
    cutMirrored: true,
    colour: back.colour,
    paperId: back.paperId,
    joint: { kind: 'glue', gapMm: 0, pinned: false },
  })
  const added = addLayers(project, [own])
  return moveLayer(added, added.layers.at(-1)!.id, 0)
}
