// Ornament of n-fold symmetry: discs of falling size with scalloped or pointed rims; bands of openings that grow in number
// towards the front. Openings are sized by the room that neighbours leave less the narrowest strip, and what comes out is
// checked by shrinking and growing it: no strip may vanish, no layer may fall apart.
import {
  ellipse,
  fillRings,
  flattenCubic,
  intersect,
  mapRegion,
  offset,
  regionArea,
  rotation,
  subtract,
  translation,
  union,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import { type MandalaRecipe } from '../../../project'
import { BadInput, seededRandom } from '../../../base'
import { length, say } from '../../../base/units'
import { makeLayer } from '../intake/intake'
import { joint, withoutSpecks, type Made } from './made'

type Motif = 'petal' | 'drop' | 'round' | 'diamond'
const MOTIFS: readonly Motif[] = ['petal', 'drop', 'round', 'diamond']

/** One opening along the x axis between two radii, no wider than given at its widest. */
function motif(kind: Motif, { from, to, width }: { from: number; to: number; width: number }): Polygon[] {
  const mid = (from + to) / 2
  const half = width / 2
  if (kind === 'round') {
    const r = Math.min(half, (to - from) / 2)
    return [ellipse([mid, 0], r)]
  }
  if (kind === 'diamond')
    return fillRings([Float64Array.of(from, 0, mid, -half, to, 0, mid, half)], 'nonzero')
  const widest = kind === 'drop' ? from + (to - from) * 0.68 : mid
  const out: number[] = [from, 0]
  flattenCubic(
    out,
    [
      [from, 0],
      [from + (widest - from) * 0.6, -half * 0.7],
      [widest - (widest - from) * 0.3, -half],
      [widest, -half],
    ],
    0.02,
  )
  flattenCubic(
    out,
    [
      [widest, -half],
      [widest + (to - widest) * 0.55, -half],
      [to, kind === 'drop' ? -half * 0.6 : -half * 0.3],
      [to, 0],
    ],
    0.02,
  )
  flattenCubic(
    out,
    [
      [to, 0],
      [to, kind === 'drop' ? half * 0.6 : half * 0.3],
      [widest + (to - widest) * 0.55, half],
      [widest, half],
    ],
    0.02,
  )
  flattenCubic(
    out,
    [
      [widest, half],
      [widest - (widest - from) * 0.3, half],
      [from + (widest - from) * 0.6, half * 0.7],
      [from, 0],
    ],
    0.02,
  )
  return fillRings([Float64Array.from(out)], 'nonzero')
}

/** n copies turned evenly about 0,0. */
const around = (region: Region, n: number, startDeg: number): Polygon[] =>
  Array.from({ length: n }, (_, i) => mapRegion(rotation(startDeg + (i * 360) / n), region)).flat()

/** The narrowest strip holds if what vanishes on shrinking by half of it comes back on growing. */
function isSound(region: Region, stripMm: number): boolean {
  const half = (stripMm / 2) * 0.97
  const shrunk = offset(region, -half)
  if (shrunk.length !== 1) return false
  const lost = subtract(region, offset(shrunk, half + 0.02))
  // Points and corners lose a little; a strip loses its whole width.
  return lost.every((face) => regionArea([face]) < stripMm * stripMm * 0.6)
}

/** Layers of a mandala, back to front, about the middle of the whole. Throws BadInput. Needs the geometry loaded. */
export function makeMandala(recipe: MandalaRecipe): Made {
  const { fold, diameterMm, layers: count, stripMm, seed } = recipe
  const radius = diameterMm / 2
  const innermost = radius * (1 - 0.62 * ((count - 1) / count))
  if (2 * innermost * Math.sin(Math.PI / fold) < stripMm * 2.2)
    throw new BadInput(
      say`${fold} repeats on a front layer of ${length(innermost * 2)} leave no opening beside strips of ${length(stripMm)}: take fewer repeats, fewer layers or a larger size`,
    )
  const random = seededRandom(seed)
  const place = (region: Region): Polygon[] => mapRegion(translation(radius, radius), region)
  const half = 180 / fold
  let openingsCut = 0
  /** Folios of layers that find no room for an opening. */
  const bare: number[] = []
  const layers = Array.from({ length: count }, (_, i) => {
    const share = i / count
    const outer = radius * (1 - 0.62 * share)
    const turn = i % 2 ? half : 0
    const rim = rimOf({ outer, fold, turn, random })
    const openings = i === 0 ? [] : bands({ outer, index: i, fold, turn, stripMm, random })
    const room = offset(rim, -stripMm)
    let cut = withoutSpecks(intersect(openings, room), 0.8)
    let body = subtract(rim, cut)
    // Where bands meet the rim's bays a strip may come out short: draw the openings in until all hold.
    for (let k = 0; k < 6 && !isSound(body, stripMm); k++) {
      cut = withoutSpecks(offset(cut, -stripMm * 0.12), 0.8)
      body = subtract(rim, cut)
    }
    if (!isSound(body, stripMm)) body = rim
    if (i > 0 && body[0]!.holes.length === 0) bare.push(i + 1)
    openingsCut += body[0]!.holes.length
    const level = Math.round(70 + (i / Math.max(1, count - 1)) * 150)
    const colour = `#${[Math.round(level * 0.55), level, Math.min(255, level + 12)].map((v) => v.toString(16).padStart(2, '0')).join('')}`
    return makeLayer({ id: `ring-${i + 1}`, name: i === 0 ? 'Ground' : `Ring ${i + 1}` }, place(body), {
      role: i === 0 ? 'backing' : 'plain',
      colour,
      ...joint(i === 0 ? 0 : 1),
    })
  })
  return {
    layers,
    remarks:
      bare.length > 0
        ? [
            say`${bare.length === 1 ? `Layer ${bare[0]} has` : `Layers ${bare.join(', ')} have`} no room for an opening beside strips of ${length(stripMm)}: take fewer repeats, fewer layers or a larger size.`,
          ]
        : [],
    widthMm: diameterMm,
    heightMm: diameterMm,
    figures: [
      { name: 'Openings', value: String(openingsCut) },
      {
        name: 'Narrowest strip',
        value: say`${length(stripMm, 2)} or more`,
        basis: 'Every layer shrunk by half of it and grown again comes back whole',
      },
    ],
  }
}

/** A ring of the mandala: its outer radius (mm), repeats, turn (degrees) and where its choices come from. */
interface Ring {
  outer: number
  fold: number
  turn: number
  random: () => number
}

function rimOf({ outer, fold, turn, random }: Ring): Polygon[] {
  const pointed = random() < 0.5
  const base = outer * 0.8
  const disc: Region = [ellipse([0, 0], base)]
  const width = 2 * base * Math.sin(Math.PI / fold)
  if (pointed)
    return union(
      disc,
      around(motif('petal', { from: base * 0.4, to: outer, width: width * 0.95 }), fold, turn),
    )
  const r = Math.min(outer - base * 0.9, width * 0.62)
  return union(disc, around([ellipse([outer - r, 0], r)], fold, turn))
}

/** Rings of openings from the rim inwards; layers further in front have more of them. */
function bands({
  outer,
  fold,
  turn,
  random,
  index,
  stripMm,
}: Ring & { index: number; stripMm: number }): Polygon[] {
  const many = Math.min(1 + index, 4)
  const inner = outer * 0.16
  const span = (outer * 0.86 - inner) / many
  let out: Polygon[] = []
  for (let b = 0; b < many; b++) {
    const from = inner + b * span + stripMm / 2
    const to = inner + (b + 1) * span - stripMm / 2
    const kind = MOTIFS[Math.floor(random() * MOTIFS.length)]!
    // Neighbours stand closest where the opening is widest; leave the strip between them there.
    const widestAt = kind === 'drop' ? from + (to - from) * 0.68 : (from + to) / 2
    const width = Math.min(2 * widestAt * Math.sin(Math.PI / fold) * 0.94 - stripMm, (to - from) * 1.1)
    if (width < stripMm * 0.7 || to - from < stripMm) continue
    out = union(out, around(motif(kind, { from, to, width }), fold, (turn + (b % 2 ? 180 / fold : 0)) % 360))
  }
  return out
}
