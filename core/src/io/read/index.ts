/**
 * Reading of open formats: SVG and DXF into shapes in mm, in the drawing's frame; tables of a spreadsheet. What cannot be read throws BadInput with
 * one sentence. Readers know nothing of the stages.
 */
export { HAIRLINE_MM } from './svg/drawing'
export type { Drawing, LeftOut, Outlines, PaintedShape, ReadOptions } from './svg/drawing'
export { readSvg } from './svg/read'
export { readDxf } from './dxf/read'
export { readDrawing } from './drawing'
export { cellFault, cellNumber, decodeTable, readTable, type Table, type TableRow } from './table'
