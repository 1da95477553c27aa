// A picture in three to six tones. Each layer is all that is as far from the back's tone as its own or farther, so it
// fills under everything above it and always has card to stand on. Outlines are contours of the blurred greys.
import { blur2 } from 'd3-array'
import { contours } from 'd3-contour'
import {
  ellipse,
  fillRings,
  intersect,
  rectangle,
  regionArea,
  simplify,
  subtract,
  union,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import { type TonesRecipe } from '../../../project'
import { BadInput } from '../../../base'
import { length, say, type Said } from '../../../base/units'
import { makeLayer } from '../intake/intake'
import { bridgeFaces, stripRegion } from './bridge'
import { joint, withoutSpecks, type Made } from './made'
import { bestThresholds, histogramOf } from './otsu'

const BASE64 = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/'

/** Bytes as base64; the core has neither Node's nor a page's own. */
export function toBase64(bytes: Uint8Array): string {
  let out = ''
  for (let i = 0; i < bytes.length; i += 3) {
    const n = (bytes[i]! << 16) | ((bytes[i + 1] ?? 0) << 8) | (bytes[i + 2] ?? 0)
    out +=
      BASE64[n >> 18]! +
      BASE64[(n >> 12) & 63]! +
      (i + 1 < bytes.length ? BASE64[(n >> 6) & 63]! : '=') +
      (i + 2 < bytes.length ? BASE64[n & 63]! : '=')
  }
  return out
}

/** Bytes of a base64 text. Throws BadInput where it is none. */
export function fromBase64(text: string): Uint8Array {
  const clean = text.replace(/=+$/, '')
  const out = new Uint8Array(Math.floor((clean.length * 3) / 4))
  let bits = 0
  let value = 0
  let k = 0
  for (const sign of clean) {
    value = ((value << 6) | BASE64.indexOf(sign)) & 0xffffff
    bits += 6
    if (bits < 8) continue
    bits -= 8
    out[k++] = (value >> bits) & 255
  }
  return out
}

/** Greys of RGBA pixels by luminance (Rec. 709), clear parts on white. */
export function greysOf(rgba: ArrayLike<number>): Uint8Array {
  const out = new Uint8Array(rgba.length / 4)
  for (let i = 0; i < out.length; i++) {
    const a = rgba[i * 4 + 3]! / 255
    out[i] = Math.round(
      (0.2126 * rgba[i * 4]! + 0.7152 * rgba[i * 4 + 1]! + 0.0722 * rgba[i * 4 + 2]!) * a + 255 * (1 - a),
    )
  }
  return out
}

/** The thresholds a recipe works with: the maker's, or the best. */
export function thresholdsOf(recipe: TonesRecipe, greys = fromBase64(recipe.greys)): number[] {
  return recipe.thresholds.length === recipe.levels - 1
    ? recipe.thresholds.toSorted((a, b) => a - b)
    : bestThresholds(histogramOf(greys), recipe.levels)
}

const hex = (grey: number): string => '#' + Math.round(grey).toString(16).padStart(2, '0').repeat(3)

/** Layers of tones, back to front. Throws BadInput where the picture holds a single tone. Needs the geometry loaded. */
export function makeTones(recipe: TonesRecipe): Made {
  const { pixelsWide: w, pixelsHigh: h, widthMm, levels } = recipe
  const greys = fromBase64(recipe.greys)
  if (greys.length !== w * h) throw new BadInput('the picture is damaged: its size and its pixels differ')
  const scale = widthMm / w
  const heightMm = h * scale
  const thresholds = thresholdsOf(recipe, greys)
  const smooth = blur2({ data: Float64Array.from(greys), width: w, height: h }, recipe.smoothMm / scale)
    .data as Float64Array
  const fromLight = recipe.back === 'light'
  // Contours enclose high values: turn the greys over where dark lies in front.
  const values = fromLight ? smooth.map((v) => 255 - v) : smooth
  const levelsUp = fromLight ? thresholds.map((t) => 255 - t).toReversed() : thresholds
  const page: Region = [rectangle(0, 0, widthMm, heightMm)]
  const frame = cropRegion(recipe.crop, widthMm, heightMm)
  const trace = contours().size([w, h]).smooth(true)
  let below: Region = frame
  const regions: Region[] = [frame]
  const ties: number[] = []
  for (const level of levelsUp) {
    const rings = trace
      .contour(Array.from(values), level + 1e-6)
      .coordinates.flat()
      .map((ring) => Float64Array.from(ring.flatMap(([x, y]) => [x! * scale, y! * scale])))
    const drawn = simplify(fillRings(rings, 'evenodd'), recipe.detailMm)
    const own = intersect(withoutSpecks(intersect(drawn, page), recipe.speckMm2), below)
    below = recipe.tieMm > 0 && own.length > 1 ? tied(own, below, recipe.tieMm, ties) : own
    regions.push(below)
  }
  const edges = [0, ...thresholds, 256]
  const means = edges.slice(1).map((to, k) => meanGrey(greys, edges[k]!, to))
  const tones = fromLight ? means.toReversed() : means
  const layers = regions.flatMap((region, k) =>
    region.length === 0
      ? []
      : [
          makeLayer(`tone-${k + 1}`, k === 0 ? 'Backing tone' : `Tone ${k + 1}`, region as Polygon[], {
            role: k === 0 ? 'backing' : 'plain',
            colour: hex(tones[k]!),
            ...joint(k === 0 ? 0 : 1),
          }),
        ],
  )
  if (layers.length < 2) throw new BadInput('the picture holds a single tone: there is nothing to part')
  const remarks: Said[] =
    layers.length < levels
      ? [
          `${levels} tones were asked for; the picture gives ${layers.length} after smoothing and dropping specks.`,
        ]
      : []
  if (ties.length > 0)
    remarks.push(
      say`${ties.length} ${ties.length === 1 ? 'strip ties' : 'strips tie'} the pieces, ${length(Math.max(...ties), 0)} at the longest; each lies on the layer beneath and shows, for nothing in front covers more than the layer itself.`,
    )
  return {
    layers,
    remarks,
    widthMm,
    heightMm,
    figures: [
      {
        name: 'Thresholds',
        value: thresholds.map((t) => Math.round(t)).join(' · '),
        basis: recipe.thresholds.length
          ? 'Set by hand'
          : 'Least spread within the tones (multi-level Otsu, exact)',
      },
      { name: 'Pieces', value: String(layers.reduce((n, l) => n + l.pieces.length, 0)) },
    ],
  }
}

/** Pieces made one by strips that stay on the layer beneath; a strip that would leave it is not laid. */
function tied(own: Region, below: Region, widthMm: number, ties: number[]): Region {
  const { strips } = bridgeFaces(own, widthMm)
  const laid = strips.filter(
    ({ from, to }) => regionArea(subtract(stripRegion(from, to, widthMm), below)) < 0.05 * widthMm * widthMm,
  )
  ties.push(...laid.map((strip) => strip.lengthMm))
  return intersect(union(own, ...laid.map(({ from, to }) => stripRegion(from, to, widthMm))), below)
}

function cropRegion(crop: TonesRecipe['crop'], w: number, h: number): Region {
  if (crop === 'oval') return [ellipse(w / 2, h / 2, w / 2, h / 2)]
  if (crop === 'none') return [rectangle(0, 0, w, h)]
  const r = Math.min(w, h) * 0.12
  const corners = [ellipse(r, r, r), ellipse(w - r, r, r), ellipse(w - r, h - r, r), ellipse(r, h - r, r)]
  return fillRings(
    [
      ...corners.map((c) => c.outer),
      rectangle(r, 0, w - 2 * r, h).outer,
      rectangle(0, r, w, h - 2 * r).outer,
    ],
    'nonzero',
  )
}

function meanGrey(greys: Uint8Array, from: number, to: number): number {
  let sum = 0
  let n = 0
  for (const g of greys)
    if (g >= from && g < to) {
      sum += g
      n++
    }
  return n ? sum / n : (from + to) / 2
}
