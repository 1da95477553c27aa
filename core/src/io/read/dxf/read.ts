// A DXF drawing as closed shapes, one per layer (or per colour, where all lies on one layer). Lines, arcs and splines that
// meet end to end are chained to rings; what stays open is left out and said so.
import {
  boxHeight,
  boxWidth,
  compose,
  fillRings,
  mapRegion,
  regionBox,
  rotation,
  scaling,
  translation,
  type Affine,
} from '../../../base/geometry'
import { BadInput, groupBy } from '../../../base'
import { numberOf, parseDxf, textOf, type DxfEntity, type DxfFile } from '../../dxf-pairs'
import { foldLines, type Drawing, type LeftOut, type ReadOptions } from '../svg/drawing'
import { chain, type Outline } from '../chain'
import { nested } from '../outlined'
import { outlineOf } from './entities'

const MAX_ENTITIES = 200_000
const MAX_DEPTH = 12
/** Lines to fold along that are kept. */
const MOST_FOLDS = 2000
/** Coordinates beyond this are damage, not drawing. */
const MOST = 1e6

/** mm per drawing unit by $INSUNITS; 0 says none. */
const UNITS: Record<number, number> = {
  1: 25.4,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  8: 25.4e-6,
  9: 0.0254,
  10: 914.4,
  14: 100,
}

/** The first seven colours by index; others by the number's own spread of hues. */
const COLOURS: Record<number, string> = {
  1: '#d03a3a',
  2: '#d9b93a',
  3: '#3a9a4a',
  4: '#3a9ab0',
  5: '#3a55b0',
  6: '#a03a9a',
  7: '#3a3d42',
  8: '#808080',
  9: '#c0c0c0',
}
const colourOf = (index: number): string =>
  COLOURS[index] ??
  `#${[0, 1, 2].map((k) => (90 + ((index * (37 + k * 29)) % 130)).toString(16).padStart(2, '0')).join('')}`

/** Line types that are drawn with gaps. */
const isDashed = (lineType: string): boolean => /dash|hidden|dot|phantom|center/i.test(lineType)
/** Layers whose lines are to be folded along. */
const FOLDS = /(^|[^a-z])(fold|score)s?([^a-z]|$)/i

/** A line of the drawing in mm, y down. */
interface Curve extends Outline {
  layer: string
  colour: number
  /** Drawn in dashes, or on a layer that is named so: a line to fold along. */
  isFold: boolean
  /** It, or its layer, is switched off. */
  isOff: boolean
}

/** Reads a DXF file (text). Shapes lie in mm, y down, from the top left of all that is drawn. Throws BadInput. */
export function readDxf(text: string, options: Pick<ReadOptions, 'unitMm' | 'unseen'> = {}): Drawing {
  const file = parseDxf(text)
  const told = UNITS[file.insUnits]
  const unit = told ?? options.unitMm ?? 1
  const left = new Map<string, number>()
  const leave = (what: string, n = 1) => left.set(what, (left.get(what) ?? 0) + n)
  const all = curvesOf(file, unit, leave)
  const [on, off] = [all.filter(({ isOff }) => !isOff), all.filter(({ isOff }) => isOff)]
  const isWhole = on.length === 0 || options.unseen?.includes('hidden')
  const curves = isWhole ? all : on
  if (!isWhole && off.length > 0) leave('hidden line', off.length)
  const byName = new Set(all.filter((curve) => !curve.isFold).map((curve) => curve.layer)).size > 1
  const groups = groupBy(
    curves.filter((curve) => !curve.isFold),
    ({ layer, colour }) => (byName ? layer : String(colour)),
  )
  const lines = curves
    .filter((curve) => curve.isFold)
    .flatMap(({ points, closed }) => foldLines(points, closed, null))
  const folds = lines.slice(0, MOST_FOLDS)
  if (lines.length > MOST_FOLDS) leave('fold line', lines.length - MOST_FOLDS)
  const drawn = [...groups].flatMap(([key, list]) => {
    const { rings, open } = chain(list)
    if (open > 0) leave('open line', open)
    const region = nested(rings.map((ring) => [ring])) ?? fillRings(rings, 'evenodd')
    return region.length === 0
      ? []
      : [
          {
            region,
            colour: colourOf(list[0]!.colour),
            group: byName ? key : null,
            part: null,
            drawnBy: 'outline' as const,
          },
        ]
  })
  if (drawn.length === 0) throw new BadInput('the drawing holds no closed shapes that can be cut')
  const box = regionBox(drawn.flatMap((shape) => shape.region))
  const move = translation(-box.minX, -box.minY)
  return {
    shapes: drawn.map((shape) => {
      const region = mapRegion(move, shape.region)
      return { ...shape, region, box: regionBox(region) }
    }),
    leftOut: [...left].map(([what, count]): LeftOut => ({ what, count })),
    widthMm: boxWidth(box),
    heightMm: boxHeight(box),
    unitMm: told === undefined ? unit : null,
    cornerMm: { x: box.minX, y: box.minY },
    leftAt: [],
    folds: folds.map(({ line: [x1, y1, x2, y2], group }) => ({
      line: [x1 - box.minX, y1 - box.minY, x2 - box.minX, y2 - box.minY],
      group,
    })),
    linesOnly: false,
    unseen: on.length > 0 && off.length > 0 ? ['hidden'] : [],
  }
}

/** All lines that are drawn, those of blocks where they are put; what is no line is left out. */
function curvesOf(file: DxfFile, unit: number, leave: (what: string) => void): Curve[] {
  const curves: Curve[] = []
  let count = 0
  const take = (entities: readonly DxfEntity[], map: Affine, depth: number) => {
    for (const entity of entities) {
      if (++count > MAX_ENTITIES)
        throw new BadInput(`the drawing has more than ${MAX_ENTITIES.toLocaleString('en')} parts`)
      if (entity.type === 'INSERT') {
        const block = file.blocks.get(textOf(entity, 2) ?? '')
        if (block && depth < MAX_DEPTH)
          take(block.entities, compose(map, insertMap(entity, block.base)), depth + 1)
        continue
      }
      const outline = outlineOf(entity)
      if (!outline) {
        leave(entity.type.toLowerCase())
        continue
      }
      const layer = textOf(entity, 8) ?? '0'
      const own = numberOf(entity, 62, 256)
      curves.push({
        points: mapPoints(map, outline.points),
        closed: outline.closed,
        layer,
        colour: own > 0 && own < 256 ? own : (file.layerColours.get(layer) ?? 7),
        isFold: isDashed(textOf(entity, 6) ?? file.layerLines.get(layer) ?? '') || FOLDS.test(layer),
        isOff: file.layersOff.has(layer) || numberOf(entity, 60) === 1,
      })
    }
  }
  take(file.entities, scaling(unit, -unit), 0)
  return curves
}

/** Points mapped; those that cannot be meant are left out. */
function mapPoints(map: Affine, points: readonly number[]): number[] {
  const out: number[] = []
  for (let i = 0; i + 1 < points.length; i += 2) {
    const [x, y] = [points[i]!, points[i + 1]!]
    if (Math.abs(x) < MOST && Math.abs(y) < MOST)
      out.push(map[0] * x + map[2] * y + map[4], map[1] * x + map[3] * y + map[5])
  }
  return out
}

function insertMap(entity: DxfEntity, base: { x: number; y: number }): Affine {
  const scale = scaling(numberOf(entity, 41, 1), numberOf(entity, 42, 1))
  return compose(
    translation(numberOf(entity, 10), numberOf(entity, 20)),
    compose(rotation(numberOf(entity, 50)), compose(scale, translation(-base.x, -base.y))),
  )
}
