// How papers look: colour, gloss and what light they let through, by their finish.
import {
  CanvasTexture,
  Color,
  MeshPhysicalMaterial,
  MeshStandardMaterial,
  RepeatWrapping,
  type Material,
  type Texture,
} from 'three'
import { colourOf, paperOf, type Layer, type Project } from '@feuillet/core/project'
import { transmission } from '@feuillet/core/stages/depth'

const GLOSS = {
  smooth: { roughness: 0.92, metalness: 0 },
  textured: { roughness: 1, metalness: 0 },
  pearl: { roughness: 0.42, metalness: 0.25 },
  glitter: { roughness: 0.38, metalness: 0.7 },
  mirror: { roughness: 0.12, metalness: 1 },
  vellum: { roughness: 0.8, metalness: 0 },
  acetate: { roughness: 0.1, metalness: 0 },
  'craft foam': { roughness: 1, metalness: 0 },
  chipboard: { roughness: 1, metalness: 0 },
} as const

/**
 * An eye that has grown used to the dark, and a screen that goes no brighter than white, tell shares of light by their order, not by
 * their size: 60 % is shown as 81 %, 3 % as 23 %, 0.2 % as 7 %.
 */
const SEEN = 0.42

const WHITE_CORE = '#f3f1ea'

/** Of one sort of paper: its faces and its cut edge. */
export function paperMaterials(
  project: Project,
  layer: Layer,
  { lit, picture, grain }: { lit: boolean; picture: Texture | null; grain: Texture },
): Material[] {
  const paper = paperOf(project, layer)
  const finish = paper?.finish ?? 'smooth'
  const colour = new Color(picture ? '#ffffff' : colourOf(project, layer))
  const through = lit
    ? transmission(project, layer) ** SEEN
    : finish === 'acetate'
      ? 0.92
      : finish === 'vellum'
        ? 0.3
        : 0
  const look = {
    color: colour,
    map: picture,
    ...GLOSS[finish],
    ...(finish === 'textured' || finish === 'glitter'
      ? { bumpMap: grain, bumpScale: finish === 'glitter' ? 2.5 : 0.8 }
      : {}),
    transparent: through > 0.002,
    opacity: 1 - through,
    // Light that comes through must not be hidden by a pane before it.
    depthWrite: through < 0.5,
  }
  const face =
    finish === 'pearl'
      ? new MeshPhysicalMaterial({ ...look, clearcoat: 0.6 })
      : new MeshStandardMaterial(look)
  const edge = new MeshStandardMaterial({
    color: paper?.core === 'white' ? WHITE_CORE : colourOf(project, layer),
    roughness: 1,
    transparent: look.transparent,
    opacity: look.opacity,
  })
  return [face, edge]
}

const GRAIN_PX = 128
/** Mm from edge to edge of the grain. */
const GRAIN_MM = 24

/** A grain for rough and for glittering papers: the same specks each time. */
export function grainTexture(): Texture {
  const canvas = document.createElement('canvas')
  canvas.width = canvas.height = GRAIN_PX
  const context = canvas.getContext('2d')!
  const image = context.createImageData(GRAIN_PX, GRAIN_PX)
  let seed = 1
  for (let i = 0; i < image.data.length; i += 4) {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0
    image.data.set([seed >>> 24, seed >>> 24, seed >>> 24, 255], i)
  }
  context.putImageData(image, 0, 0)
  const texture = new CanvasTexture(canvas)
  texture.wrapS = texture.wrapT = RepeatWrapping
  texture.repeat.set(1 / GRAIN_MM, 1 / GRAIN_MM)
  return texture
}
