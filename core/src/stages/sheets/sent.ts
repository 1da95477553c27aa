// A load that goes to the machine. The run takes minutes, in which the work may be changed: what is cut, shown and noted is what was
// sent.
import type { Paper, Project } from '../../project'
import { strokeWay } from './loads/cut-path'
import type { Load } from './loads/loads'
import { takeDown, type TakenDown } from './taken-down'
import { drawSheet, loadView, type LoadView, type SheetDrawing } from './views'

/** A load as it was sent. */
export interface Sent extends TakenDown {
  load: LoadView
  drawn: SheetDrawing
  /** The ways of the tool in the order of the plot: [x0, y0, x1, y1, …] in mm from the sheet's corner. */
  ways: Float64Array[]
}

/** Takes down a load that is sent. Needs the geometry loaded. */
export const toSend = (project: Project, load: Load, stock: readonly Paper[]): Sent => ({
  ...takeDown(project, load, stock),
  load: loadView(load),
  drawn: drawSheet(load),
  ways: load.path.strokes.map((stroke) => strokeWay(stroke, project.drawer.cutter.overcutMm)),
})
