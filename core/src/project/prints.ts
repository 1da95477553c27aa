// Pictures that are printed on layers: where they lie, how fine they come out, and what of the card they leave bare.
import {
  compose,
  mapPoint,
  rotation,
  scaling,
  translation,
  type Affine,
  type Box,
  type Point,
} from '../base/geometry'
import { MM_PER_INCH } from '../base/units'
import { setLayer } from './edit'
import { layerBox } from './faces'
import { findLayer } from './lookup'
import type { Layer, Picture, Print, Project } from './schema'

/** A picture's pixels, without its data. */
export type Pixels = Pick<Picture, 'pixelsWide' | 'pixelsHigh'>

/** Where a picture lies: its middle and size, mm, its turn clockwise, degrees. */
export interface PrintPlace {
  middle: Point
  widthMm: number
  heightMm: number
  turnDeg: number
  /** Left and right of it are exchanged. */
  mirrored: boolean
}

/** The picture a layer is printed with; none where it is plain or the picture is gone. */
export const pictureOf = (
  { pictures }: Pick<Project, 'pictures'>,
  { print }: Pick<Layer, 'print'>,
): Picture | undefined => (print ? pictures.find(({ id }) => id === print.pictureId) : undefined)

/** Those of a project's pictures that layers are printed with. */
export const picturesOf = ({ pictures }: Pick<Project, 'pictures'>, layers: readonly Layer[]): Picture[] =>
  pictures.filter(({ id }) => layers.some(({ print }) => print?.pictureId === id))

/** Where a picture lies by its map. */
export function placeOfPrint(map: Print['map'], { pixelsWide, pixelsHigh }: Pixels): PrintPlace {
  const [a, b, c, d] = map
  const [x, y] = mapPoint(map, pixelsWide / 2, pixelsHigh / 2)
  const mirrored = a * d - b * c < 0
  const side = mirrored ? -1 : 1
  return {
    middle: { x, y },
    widthMm: Math.hypot(a, b) * pixelsWide,
    heightMm: Math.hypot(c, d) * pixelsHigh,
    turnDeg: (Math.atan2(b * side, a * side) * 180) / Math.PI,
    mirrored,
  }
}

/** The map of a picture that lies so, its proportions kept: its height follows from its width. */
export function mapOfPrint(
  { middle, widthMm, turnDeg, mirrored }: Omit<PrintPlace, 'heightMm'>,
  { pixelsWide, pixelsHigh }: Pixels,
): Print['map'] {
  const scale = widthMm / pixelsWide
  const own = compose(
    scaling(mirrored ? -scale : scale, scale),
    translation(-pixelsWide / 2, -pixelsHigh / 2),
  )
  return [...compose(translation(middle.x, middle.y), compose(rotation(turnDeg), own))] as Print['map']
}

/** The smallest upright picture that covers a box and its bleed, in its middle. */
export function coveringMap(b: Box, bleedMm: number, picture: Pixels): Print['map'] {
  const [wide, high] = [b.maxX - b.minX + 2 * bleedMm, b.maxY - b.minY + 2 * bleedMm]
  const scale = Math.max(wide / picture.pixelsWide, high / picture.pixelsHigh)
  const middle = { x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 }
  return mapOfPrint({ middle, widthMm: scale * picture.pixelsWide, turnDeg: 0, mirrored: false }, picture)
}

/** Pixels an inch where they are fewest. */
export function printDpi([a, b, c, d]: Print['map']): number {
  // The longer half axis of the ellipse that a round pixel becomes.
  const [sum, diff] = [Math.hypot(a + d, b - c), Math.hypot(a - d, b + c)]
  return MM_PER_INCH / ((sum + diff) / 2)
}

/** The corners of a picture where it lies, mm: x, y, x, y, … */
export const printCorners = (map: Affine, { pixelsWide, pixelsHigh }: Pixels): Float64Array =>
  Float64Array.of(
    ...mapPoint(map, 0, 0),
    ...mapPoint(map, pixelsWide, 0),
    ...mapPoint(map, pixelsWide, pixelsHigh),
    ...mapPoint(map, 0, pixelsHigh),
  )

const DEFAULT_BLEED_MM = 2

/** Prints a picture on a layer, as small as covers it, and keeps the picture with the project. */
export function printOn(project: Project, layerId: string, picture: Picture): Project {
  const layer = findLayer(project, layerId)
  if (!layer || layer.pieces.length === 0) return project
  const bleedMm = layer.print?.bleedMm ?? DEFAULT_BLEED_MM
  const print = { pictureId: picture.id, map: coveringMap(layerBox(layer), bleedMm, picture), bleedMm }
  return withoutIdlePictures(setLayer(keepPictures(project, [picture]), layerId, { print }))
}

/** The picture of a layer made as small as covers its outline and bleed. */
export function coverWithPrint(project: Project, layerId: string): Project {
  const layer = findLayer(project, layerId)
  const picture = layer && pictureOf(project, layer)
  if (!layer?.print || !picture) return project
  const { bleedMm } = layer.print
  return setLayer(project, layerId, {
    print: { ...layer.print, map: coveringMap(layerBox(layer), bleedMm, picture) },
  })
}

/** A layer plain again. */
export const takeOffPrint = (project: Project, layerId: string): Project =>
  withoutIdlePictures(setLayer(project, layerId, { print: null }))

/** Keeps pictures with a project, each once. */
export const keepPictures = (project: Project, pictures: readonly Picture[]): Project => {
  const fresh = pictures.filter(({ id }) => !project.pictures.some((own) => own.id === id))
  return fresh.length === 0 ? project : { ...project, pictures: [...project.pictures, ...fresh] }
}

/** Lets go of pictures that nothing is printed or grown with. */
export function withoutIdlePictures(project: Project): Project {
  const used = new Set([
    ...project.layers.map(({ print }) => print?.pictureId),
    ...project.grown.map(({ recipe }) => (recipe.kind === 'window' ? recipe.picture?.id : undefined)),
  ])
  const pictures = project.pictures.filter(({ id }) => used.has(id))
  return pictures.length === project.pictures.length ? project : { ...project, pictures }
}
