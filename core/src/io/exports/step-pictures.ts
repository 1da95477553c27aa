// What each step and each layer looks like, for printed sheets: just the parts it touches.
import {
  growBox,
  joinBoxes,
  mapRegion,
  rectangle,
  ellipse,
  union,
  polygonBox,
  regionBox,
  type Affine,
  type Polygon,
  type Region,
} from '../../base/geometry'
import {
  backingRect,
  builtLayers,
  colourOf,
  findLayer,
  layerBox,
  layerRegion,
  isOnPane,
  isStandOff,
  standsInFrame,
  thicknessOf,
  viewBox,
  type FrameMount,
  type Layer,
  type Project,
} from '../../project'
import { mountPictureOf, type MountPicture, type Step } from '../../stages/assembly'
import {
  lipShapes,
  padOutline,
  PIN_HEAD_MM,
  topperHold,
  type DepthPlan,
  type LayerGlue,
} from '../../stages/depth'
import type { Load } from '../../stages/sheets'
import type { SmallPicture } from '../write'

const PAD = '#ffffff'
const GLUE = '#fff2c8'
const SHEET = '#f4f4f0'
const WOOD = '#d8c9a8'
const WALL = '#6f5a3c'
const MAT = '#e2d8c2'
const PANE = '#bfe3ea'
const BOARD_MM = 2.5
/** A wall that was not measured is drawn as wide as this, mm. */
const WALL_MM = 6
/** So much of a stick is drawn below what it carries, mm. */
const STICK_BELOW_MM = 25

interface Known {
  loads: readonly Load[]
  depth: Pick<DepthPlan, 'pads' | 'pins' | 'shim' | 'lip' | 'layers'>
  glue: readonly LayerGlue[]
}

/** A layer over what is right below it. */
export function layerPicture(project: Project, layer: Layer): SmallPicture | null {
  if (layer.pieces.length === 0) return null
  const layers = builtLayers(project)
  return over(project, [layer], layers.slice(0, layers.indexOf(layer)).slice(-1))
}

/** A layer, or a part that is laid as one, over what it comes onto. */
function laidPicture(project: Project, layer: Layer, { asOne, onto = [] }: Step): SmallPicture | null {
  const named = (ids: readonly string[]) => ids.flatMap((id) => findLayer(project, id) ?? [])
  return layer.pieces.length === 0 ? null : over(project, named(asOne?.layerIds ?? [layer.id]), named(onto))
}

/** Layers in their colours over others that are pale. */
const over = (project: Project, own: readonly Layer[], below: readonly Layer[]): SmallPicture => ({
  box: growBox(joinBoxes([viewBox(project), ...own.map(layerBox)]), 1),
  shapes: [
    ...below.map((one) => ({ region: layerRegion(one), colour: colourOf(project, one), pale: true })),
    ...own.map((one) => ({ region: layerRegion(one), colour: colourOf(project, one) })),
  ],
})

/** What a step touches; null for what is about all of it. Pads and glue are seen from behind. Needs the geometry loaded. */
export function stepPicture(project: Project, step: Step, known: Known): SmallPicture | null {
  const load = known.loads.find(({ id }) => id === step.loadId)
  if (load)
    return {
      box: growBox(polygonBox(load.outline), 1),
      shapes: [
        { region: [load.outline], colour: SHEET },
        { region: load.pieces.map(({ shape }) => shape), colour: load.paper.colour },
      ],
    }
  const mounting = mountPictureOf(project, step, known.depth)
  if (mounting) return mountPicture(project, mounting, known)
  const layer = findLayer(project, step.layerId)
  if (!layer) return step.kind === 'mount' && !step.pieceId ? wholePicture(project) : null
  if (step.kind === 'pad' || step.kind === 'glue') return fromBehind(project, layer, known)
  const picture = laidPicture(project, layer, step)
  const { pins } = known.depth
  if (!picture || step.kind !== 'lay' || pins?.layerId !== layer.id) return picture
  // Heads larger than they are, so that they are seen on a small picture.
  const heads = pins.at.map(([x, y]) => ellipse([x, y], 1.5 * PIN_HEAD_MM.across))
  return { ...picture, shapes: [...picture.shapes, { region: union(heads), colour: PAD }] }
}

/** All of the stack, as it goes onto what it lives on. */
function wholePicture(project: Project): SmallPicture | null {
  const layers = builtLayers(project).filter(({ pieces }) => pieces.length > 0)
  if (layers.length === 0) return null
  return {
    box: growBox(joinBoxes([viewBox(project), ...layers.map(layerBox)]), 1),
    shapes: layers.map((layer) => ({ region: layerRegion(layer), colour: colourOf(project, layer) })),
  }
}

function mountPicture(project: Project, what: MountPicture, { depth }: Known): SmallPicture | null {
  if (what === 'frame') return project.mount.kind === 'frame' ? fromSide(project, project.mount, depth) : null
  if (what === 'lip') {
    const whole = wholePicture(project)
    const pads = depth.lip && { region: lipShapes(depth.lip), colour: PAD }
    return whole && pads && { ...whole, shapes: [...whole.shapes, pads] }
  }
  const layers = builtLayers(project).filter(({ pieces }) => pieces.length > 0)
  const [back] = layers
  if (!back) return null
  const shown = what === 'shims' ? [back] : layers.toReversed()
  const box = joinBoxes(shown.map(layerBox))
  const over: Affine = [-1, 0, 0, 1, box.minX + box.maxX, 0]
  const laid = what === 'shims' ? shimPads(depth.shim) : sticksOf(project, box.maxY)
  const all = [box, ...laid.map(polygonBox)]
  return {
    box: growBox(joinBoxes(all), 1),
    shapes: [
      ...shown.map((layer) => ({
        region: mapRegion(over, layerRegion(layer)),
        colour: colourOf(project, layer),
      })),
      ...(laid.length > 0
        ? [{ region: mapRegion(over, union(laid)), colour: what === 'shims' ? PAD : WOOD }]
        : []),
    ],
  }
}

const shimPads = (shim: DepthPlan['shim']): Polygon[] =>
  (shim?.at ?? []).map(([x, y]) =>
    rectangle([x - shim!.widthMm / 2, y - shim!.heightMm / 2], shim!.widthMm, shim!.heightMm),
  )

/** Sticks from their upper ends to beyond the topper's foot. */
const sticksOf = (project: Project, footMm: number): Polygon[] =>
  (topperHold(project)?.sticks ?? []).map(({ x, widthMm, headMm }) =>
    rectangle([x - widthMm / 2, headMm], widthMm, Math.max(0, footMm - headMm) + STICK_BELOW_MM),
  )

/** Heights of a frame are drawn so much taller that it is this part of its width. */
const TALL = 0.5

/** The frame cut through, the pane on top: back board, pads, layers, spacer, mat and pane at their heights. */
function fromSide(project: Project, mount: FrameMount, depth: Known['depth']): SmallPicture | null {
  const backing = backingRect(project)
  if (!backing) return null
  const { minX, maxX } = polygonBox(backing)
  const wallMm = mount.ring.wallMm || WALL_MM
  const paneMm = mount.pane.kind === 'none' ? 0 : mount.pane.thicknessMm
  const matMm = mount.mat?.thicknessMm ?? 0
  const shimMm = depth.shim?.mm ?? 0
  const [left, right] = [minX - wallMm, maxX + wallMm]
  const scale = ((right - left) * TALL) / (mount.depthMm + paneMm + BOARD_MM)
  /** What lies from one height over the board to another; never thinner than a line. */
  const bar = (
    [fromX, toX]: readonly [number, number],
    [bottomMm, topMm]: readonly [number, number],
    colour: string,
  ) => {
    const high = Math.max((topMm - bottomMm) * scale, (right - left) * 0.006)
    return { region: [rectangle([fromX, (mount.depthMm - topMm) * scale], toX - fromX, high)], colour }
  }
  const wallHighMm = mount.ring.heightMm || mount.depthMm
  const shapes = [
    bar([left, right], [-BOARD_MM, 0], WOOD),
    ...(mount.ring.kept
      ? [bar([left, minX], [0, wallHighMm], WALL), bar([maxX, right], [0, wallHighMm], WALL)]
      : []),
    ...(depth.shim?.at ?? []).map(([x]) =>
      bar([x - depth.shim!.widthMm / 2, x + depth.shim!.widthMm / 2], [0, shimMm], PAD),
    ),
    ...builtLayers(project).flatMap((layer) => {
      const at = depth.layers.find(({ layerId }) => layerId === layer.id)
      if (!at || layer.pieces.length === 0) return []
      // What the frame or the pane bears is not lifted by pads behind the backing sheet.
      const topMm = at.topMm + (isOnPane(layer) || isStandOff(layer) || standsInFrame(layer) ? 0 : shimMm)
      const own = layerBox(layer)
      return [
        bar([own.minX, own.maxX], [topMm - thicknessOf(project, layer), topMm], colourOf(project, layer)),
      ]
    }),
    ...(depth.lip?.at ?? []).map(({ x, widthMm }) =>
      bar(
        [x - widthMm / 2, x + widthMm / 2],
        [depth.lip!.bottomMm, depth.lip!.bottomMm + depth.lip!.mm],
        PAD,
      ),
    ),
    ...(matMm > 0 ? [bar([left, right], [mount.depthMm - matMm, mount.depthMm], MAT)] : []),
    ...(paneMm > 0 ? [bar([left, right], [mount.depthMm, mount.depthMm + paneMm], PANE)] : []),
  ]
  return { box: growBox(joinBoxes(shapes.map(({ region }) => regionBox(region))), 1), shapes }
}

function fromBehind(project: Project, layer: Layer, { depth, glue }: Known): SmallPicture | null {
  if (layer.pieces.length === 0) return null
  const box = layerBox(layer)
  const over: Affine = [-1, 0, 0, 1, box.minX + box.maxX, 0]
  const pads = depth.pads
    .filter(({ layerId }) => layerId === layer.id)
    .map((pad) => ({ outer: padOutline(pad), holes: [] }))
  const zone: Region = glue.find(({ layerId }) => layerId === layer.id)?.zone ?? []
  return {
    box: growBox(box, 1),
    shapes: [
      { region: mapRegion(over, layerRegion(layer)), colour: colourOf(project, layer) },
      ...(zone.length > 0 ? [{ region: mapRegion(over, zone), colour: GLUE }] : []),
      ...(pads.length > 0 ? [{ region: mapRegion(over, union(pads)), colour: PAD }] : []),
    ],
  }
}
