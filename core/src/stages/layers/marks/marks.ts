// What is put on a layer beside its outlines: the folio number, fold lines, and crosses where the pieces above it go.
import {
  interiorPoint,
  lineInside,
  mapRing,
  polygonContains,
  regionContains,
  type Affine,
  type Point,
  type Region,
} from '../../../base/geometry'
import {
  builtLayers,
  cutPieces,
  mirrorOf,
  layerBox,
  layerRegion,
  pieceRegion,
  type Project,
} from '../../../project'
import { numberStrokes } from './digits'
import { flagNumber, flagsOf } from './flag-order'
import { NUMBER_MM } from './number-place'
import { isSeeThrough } from '../visibility/shows'
import { looksRightWrong, type Soundness } from '../soundness/soundness'

/** Open lines x0, y0, x1, y1, …, mm. */
export interface Marks {
  number: Float64Array[]
  folds: Float64Array[]
  /** Lines that are cut and take no card away. */
  slits: Float64Array[]
  /** Crosses under the pieces that come above. */
  places: Float64Array[]
}

/** Arm of a cross, and the card that must hide it all round, mm. */
const ARM_MM = 1.5
const HIDE_MM = 0.8

/** A piece without marks. */
export const noMarks = (): Marks => ({ number: [], folds: [], slits: [], places: [] })

/** Marks moved with their piece. */
export const mapMarks = (map: Affine, marks: Marks): Marks => ({
  number: marks.number.map((line) => mapRing(map, line)),
  folds: marks.folds.map((line) => mapRing(map, line)),
  slits: marks.slits.map((line) => mapRing(map, line)),
  places: marks.places.map((line) => mapRing(map, line)),
})

/** Marks of every piece that bears some, by `layer/piece`, in the project's frame; a guest's numbers have its letter before them. */
export function pieceMarks(project: Project, sound: readonly Soundness[], letter = ''): Map<string, Marks> {
  const out = new Map<string, Marks>()
  const layers = builtLayers(project)
  const crosses = project.plan.placeMarks ? placeCrosses(project) : new Map<string, Point[]>()
  for (const { underId, at } of centreMarks(project).values())
    crosses.set(underId, [...(crosses.get(underId) ?? []), at])
  const flags = new Map(flagsOf(project).map((flag) => [flag.piece, flag]))
  layers.forEach((layer, i) => {
    const found = sound.find((s) => s.id === layer.id)
    const numberAt = project.plan.numbers === 'none' ? null : found?.numberAt
    for (const piece of cutPieces(layer)) {
      const faces = pieceRegion(piece)
      const has = (p: Point) => regionContains(faces, p.x, p.y)
      const marks: Marks = {
        number: flags.has(piece)
          ? project.plan.numbers === 'none'
            ? []
            : flagNumber(flags.get(piece)!)
          : numberAt && has(numberAt)
            ? numberStrokes(`${letter}${i + 1}`, numberAt, {
                radiusMm: NUMBER_MM / 2,
                roof: found !== undefined && looksRightWrong(found),
              })
            : [],
        folds: layer.folds.flatMap(({ line: [x1, y1, x2, y2] }) =>
          faces.flatMap((face) => lineInside(face, [x1, y1], [x2, y2])),
        ),
        slits: layer.slits.filter((slit) => has(middleOf(slit))).map((slit) => Float64Array.from(slit)),
        places: (crosses.get(layer.id) ?? [])
          .filter(has)
          .flatMap(({ x, y }) => [
            Float64Array.of(x - ARM_MM, y, x + ARM_MM, y),
            Float64Array.of(x, y - ARM_MM, x, y + ARM_MM),
          ]),
      }
      if (marks.number.length + marks.folds.length + marks.slits.length + marks.places.length > 0)
        out.set(`${layer.id}/${piece.id}`, layer.cutMirrored ? mapMarks(mirrorOf(layer), marks) : marks)
    }
  })
  return out
}

/** The middle of a line's middle stretch. */
function middleOf(line: readonly number[]): Point {
  const i = 2 * Math.floor((line.length / 2 - 1) / 2)
  return { x: (line[i]! + line[i + 2]!) / 2, y: (line[i + 1]! + line[i + 3]!) / 2 }
}

/** For pieces that do not fill the sheet: a point under each that it hides, on the highest card beneath. */
function placeCrosses(project: Project): Map<string, Point[]> {
  const layers = builtLayers(project)
  const out = new Map<string, Point[]>()
  layers.forEach((layer, i) => {
    if (layer.role === 'backing' || layer.role === 'border') return
    for (const piece of layer.pieces)
      for (const face of pieceRegion(piece)) {
        const at = interiorPoint(face.outer)
        if (!holdsCross([face], at)) continue
        const under = layers.slice(0, i).findLast((below) => regionContains(layerRegion(below), at.x, at.y))
        if (under && holdsCross(layerRegion(under), at)) out.set(under.id, [...(out.get(under.id) ?? []), at])
      }
  })
  return out
}

/** Where the middle of a layer goes, on the card that carries it. */
export interface CentreMark {
  underId: string
  at: Point
}

/**
 * Centre marks by the layer that is laid on them, where layers are aligned so: its middle is on its own card, which hides the
 * cross, and on card beneath. A layer whose middle is open, or lies over an opening, has none.
 */
export function centreMarks(project: Project): Map<string, CentreMark> {
  const out = new Map<string, CentreMark>()
  if (project.plan.alignment !== 'centre-mark') return out
  const layers = builtLayers(project)
  layers.forEach((layer, i) => {
    if (i === 0 || layer.pieces.length === 0) return
    const b = layerBox(layer)
    const at = { x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 }
    if (isSeeThrough(project, layer) || !holdsCross(layerRegion(layer), at)) return
    const under = layers.slice(0, i).findLast((below) => regionContains(layerRegion(below), at.x, at.y))
    if (under && holdsCross(layerRegion(under), at)) out.set(layer.id, { underId: under.id, at })
  })
  return out
}

function holdsCross(region: Region, { x, y }: Point): boolean {
  const r = ARM_MM + HIDE_MM
  const d = r * Math.SQRT1_2
  return region.some((face) =>
    [
      [0, 0],
      [r, 0],
      [-r, 0],
      [0, r],
      [0, -r],
      [d, d],
      [d, -d],
      [-d, d],
      [-d, -d],
    ].every(([dx, dy]) => polygonContains(face, x + dx!, y + dy!)),
  )
}
