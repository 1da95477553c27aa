/**
 * Reading of open formats: SVG and DXF into shapes in mm, in the drawing's frame, zips of them, and tables of a spreadsheet. A drawing that
 * cannot be read throws BadInput with one sentence; of a table the rows that can be read are taken. Readers know nothing of the stages.
 */
export { HAIRLINE_MM } from './svg/drawing'
export type { Drawing, LeftOut, Outlines, PaintedShape, ReadOptions, Unseen } from './svg/drawing'
export { readSvg } from './svg/read'
export { readDxf } from './dxf/read'
export { readDrawing } from './drawing'
export { drawingsIn, type PackedFile } from './archive'
export { cellFault, cellNumber, decodeTable, readTable, type Table, type TableRow } from './table'
