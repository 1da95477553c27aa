// What each step and each layer looks like, for printed sheets: just the parts it touches.
import {
  growBox,
  joinBoxes,
  mapPolygon,
  mapRegion,
  rectangle,
  rotation,
  translation,
  compose,
  ellipse,
  union,
  polygonBox,
  type Affine,
  type Region,
} from '../../base/geometry'
import {
  builtLayers,
  colourOf,
  findLayer,
  layerBox,
  layerRegion,
  viewBox,
  type Layer,
  type Project,
} from '../../project'
import type { Step } from '../../stages/assembly'
import { PIN_HEAD_MM, type DepthPlan, type LayerGlue } from '../../stages/depth'
import type { Load } from '../../stages/sheets'
import type { SmallPicture } from '../write'

const PAD = '#ffffff'
const GLUE = '#fff2c8'
const SHEET = '#f4f4f0'

interface Known {
  loads: readonly Load[]
  depth: Pick<DepthPlan, 'pads' | 'pins'>
  glue: readonly LayerGlue[]
}

/** A layer over what is right below it. */
export function layerPicture(project: Project, layer: Layer): SmallPicture | null {
  if (layer.pieces.length === 0) return null
  const layers = builtLayers(project)
  const below = layers[layers.indexOf(layer) - 1]
  return {
    box: growBox(joinBoxes([viewBox(project), layerBox(layer)]), 1),
    shapes: [
      ...(below ? [{ region: layerRegion(below), colour: colourOf(project, below), pale: true }] : []),
      { region: layerRegion(layer), colour: colourOf(project, layer) },
    ],
  }
}

/** A part that is laid as one, or a layer of it over what lies on the bench. */
function partPicture(project: Project, layer: Layer, { asOne, onBench }: Step): SmallPicture | null {
  const own = (asOne?.layerIds ?? [layer.id]).flatMap((id) => findLayer(project, id) ?? [])
  const lying = onBench?.flatMap((id) => findLayer(project, id) ?? [])
  const layers = builtLayers(project)
  const below = lying ? lying.at(-1) : layers[layers.indexOf(layer) - 1]
  return {
    box: growBox(joinBoxes([viewBox(project), ...own.map(layerBox)]), 1),
    shapes: [
      ...(below ? [{ region: layerRegion(below), colour: colourOf(project, below), pale: true }] : []),
      ...own.map((one) => ({ region: layerRegion(one), colour: colourOf(project, one) })),
    ],
  }
}

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
  const layer = findLayer(project, step.layerId)
  if (!layer) return null
  if (step.kind === 'pad' || step.kind === 'glue') return fromBehind(project, layer, known)
  const picture =
    step.asOne || step.onBench ? partPicture(project, layer, step) : layerPicture(project, layer)
  const { pins } = known.depth
  if (!picture || step.kind !== 'lay' || pins?.layerId !== layer.id) return picture
  // Heads larger than they are, so that they are seen on a small picture.
  const heads = pins.at.map(([x, y]) => ellipse(x, y, 1.5 * PIN_HEAD_MM.across))
  return { ...picture, shapes: [...picture.shapes, { region: union(heads), colour: PAD }] }
}

function fromBehind(project: Project, layer: Layer, { depth, glue }: Known): SmallPicture | null {
  if (layer.pieces.length === 0) return null
  const box = layerBox(layer)
  const over: Affine = [-1, 0, 0, 1, box.minX + box.maxX, 0]
  const pads = depth.pads
    .filter(({ layerId }) => layerId === layer.id)
    .map((pad) =>
      mapPolygon(
        compose(translation(pad.x, pad.y), rotation(pad.rotation)),
        rectangle(-pad.widthMm / 2, -pad.heightMm / 2, pad.widthMm, pad.heightMm),
      ),
    )
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
