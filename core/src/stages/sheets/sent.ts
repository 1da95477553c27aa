// A load that goes to the machine. The run takes minutes, in which the work may be changed: what is cut, shown and noted is what was
// sent.
import type { CutSheet, Paper, Project } from '../../project'
import { sheetOf } from './frozen'
import { strokeWay } from './loads/cut-path'
import type { Load } from './loads/loads'
import { leftOvers } from './off-cuts/off-cuts'
import { drawSheet, leftView, loadView, type LeftView, type LoadView, type SheetDrawing } from './views'

/** A load as it was sent. */
export interface Sent {
  /** What is noted once it is cut. */
  sheet: CutSheet
  /** Clean off-cuts that it leaves. */
  kept: LeftView[]
  load: LoadView
  drawn: SheetDrawing
  /** The ways of the tool in the order of the plot: [x0, y0, x1, y1, …] in mm from the sheet's corner. */
  ways: Float64Array[]
}

/** Takes down a load that is sent. Needs the geometry loaded. */
export const toSend = (project: Project, load: Load, stock: readonly Paper[]): Sent => ({
  sheet: sheetOf(project, load, { stock }),
  kept: leftOvers(load)
    .filter(({ kind }) => kind === 'clean')
    .map(leftView),
  load: loadView(load),
  drawn: drawSheet(load),
  ways: load.path.strokes.map((stroke) => strokeWay(stroke, project.drawer.cutter.overcutMm)),
})
