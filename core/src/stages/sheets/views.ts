// What the page gets of runs, loads and left-overs: numbers and words, and drawings as path data.
import {
  boxHeight,
  boxWidth,
  mapPolygon,
  polygonArea,
  polygonBox,
  polygonToPath,
  rotation,
  plainPath,
  translation,
  type Box,
  type Polygon,
} from '../../base/geometry'
import type { LeftOver } from './off-cuts/off-cuts'
import { measureOf, type Measure } from './measures'
import type { LaidPiece, Load } from './loads/loads'
import type { NestedRun, PaperRun } from './runs/paper-runs'

/** A run without its shapes. */
export interface RunView extends Pick<PaperRun, 'id' | 'fingerprint'> {
  paper: string
  /** Off-cuts and sheets of other sizes, in the order of their negative numbers. */
  bins: {
    paper: { name: string; widthMm: number; heightMm: number }
    offCut: { id: string; label: string } | null
  }[]
  sheets: number
  score: number
  utilisation: number
  /** Pieces that no sheet takes, so that they are not laid. */
  tooLarge: number
}

/** A run as the page has it: without shapes. */
export const runView = ({ run, layout }: NestedRun): RunView => ({
  id: run.id,
  fingerprint: run.fingerprint,
  paper: run.paper.name,
  bins: run.bins.map(({ paper: { name, widthMm, heightMm }, offCut }) => ({
    paper: { name, widthMm, heightMm },
    offCut: offCut && { id: offCut.id, label: offCut.label },
  })),
  sheets: layout.sheets,
  score: layout.score,
  utilisation: layout.utilisation,
  tooLarge: run.tooLarge?.parts.length ?? 0,
})

/** A piece on a sheet without its shape. */
export type PieceView = Omit<LaidPiece, 'shape' | 'marks'> & {
  box: Box
  holes: number
  /** How it is cut by measure; null where it wants a template. */
  measure: Measure | null
}

/** A load without its shapes. */
export interface LoadView extends Omit<Load, 'pieces' | 'path' | 'outline'> {
  pieces: PieceView[]
  /** Of the sheet or off-cut that is cut into. */
  areaMm2: number
  /** With the tool lifted; and piece by piece as they lie in the list. */
  travelMm: number
  plainTravelMm: number
}

/** A load as the page has it: without shapes. */
export function loadView({ pieces, path, outline, ...load }: Load): LoadView {
  return {
    ...load,
    pieces: pieces.map(({ shape, marks, ...piece }) => {
      void marks
      return {
        ...piece,
        box: polygonBox(shape),
        measure: measureOf(mapPolygon(rotation(-piece.placement.rotation), shape)),
        holes: shape.holes.length,
      }
    }),
    areaMm2: polygonArea(outline),
    travelMm: path.travelMm,
    plainTravelMm: path.plainTravelMm,
  }
}

/** A sheet as it is drawn: path data in mm from its corner, pieces in the order of the load's. */
export interface SheetDrawing {
  outline: string
  pieces: { path: string; number: string; folds: string; slits: string; places: string }[]
}

/** How far outlines of sheets drawn small may stray, mm. */
export const SKETCH_MM = 0.4
/** Far under what a screen shows of a whole sheet. */
const DRAWN_MM = 0.02

/** A load as it is drawn, outlines true to so many mm. */
export const drawSheet = ({ outline, pieces }: Load, strayMm = DRAWN_MM): SheetDrawing => ({
  outline: polygonToPath(outline),
  pieces: pieces.map(({ shape, marks }) => ({
    path: plainPath(shape, strayMm),
    number: linesToPath(marks.number),
    folds: linesToPath(marks.folds),
    slits: linesToPath(marks.slits),
    places: linesToPath(marks.places),
  })),
})

function linesToPath(lines: readonly Float64Array[]): string {
  let d = ''
  for (const line of lines)
    for (let i = 0; i < line.length; i += 2)
      d += `${i === 0 ? 'M' : 'L'}${round(line[i]!)} ${round(line[i + 1]!)}`
  return d
}

const round = (value: number): number => Math.round(value * 100) / 100

/** A left-over as it goes into the drawer: its outline with its box at 0,0. */
export interface LeftView extends Pick<LeftOver, 'id' | 'loadId' | 'paperId' | 'kind' | 'label'> {
  path: string
  /** Of its box. */
  widthMm: number
  heightMm: number
}

/** A left-over as the page has it. */
export function leftView({ shape, ...left }: LeftOver): LeftView {
  const box = polygonBox(shape)
  return { ...left, path: offCutPath(shape), widthMm: boxWidth(box), heightMm: boxHeight(box) }
}

/** The outline of an off-cut in the drawer. */
export function offCutPath(shape: Polygon): string {
  const { minX, minY } = polygonBox(shape)
  return polygonToPath(mapPolygon(translation(-minX, -minY), shape))
}
