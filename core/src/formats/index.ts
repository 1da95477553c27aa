/**
 * Reading and writing of open formats: SVG and DXF in; SVG, DXF, HPGL, PDF and CSV out. Readers give shapes in mm and throw
 * BadInput; writers take finished shapes and know nothing of the stages.
 */
export { readSvg, HAIRLINE_MM, type Drawing, type LeftOut, type Outlines, type ReadOptions, type PaintedShape } from './svg/read'
export { readDxf } from './read-dxf'
export { readDrawing } from './read-drawing'
export type { CutSheet } from './cut-sheet'
export { writeSvg } from './write-svg'
export { writeDxf } from './write-dxf'
export { writeHpgl } from './write-hpgl'
export { writeTags, type SheetTag } from './write-tags'
export { writeTemplates, writeListPdf, type ListSection } from './write-pdf'
export { writeCsv } from './write-csv'
