/**
 * Writing of open formats: SVG, DXF, plot text (HPGL), PDF and CSV. Writers take finished shapes in mm and know nothing of
 * the stages.
 */
export type { CutSheet } from './cut-sheet'
export { writeSvg } from './svg'
export { writeDxf } from './dxf'
export { writeHpgl } from './hpgl'
export { writeTags, type SheetTag } from './tags'
export { writeListPdf, type ListSection } from './pdf'
export { writeTemplates, writeTiledTemplates } from './templates'
export { writePrintSheet, type InkedPicture } from './prints'
export { writePadSheets, type GlueOnSheet, type PadSheet } from './pad-sheets'
export { writeCsv } from './csv'
export { writeIcs, type CalendarEntry } from './ics'
export type { Faces } from './typeface'
export type { SmallPicture } from './pictures'
export { writeLayeringGuide, type GuideLayer } from './layering-guide'
export { writeCatalogueCard, type CatalogueCard } from './catalogue-card'
export { writeColourSheets, type ColourSheet } from './colour-sheets'
