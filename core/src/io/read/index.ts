/**
 * Reading of open formats: SVG and DXF into shapes in mm, in the drawing's frame. What cannot be read throws BadInput with
 * one sentence. Readers know nothing of the stages.
 */
export {
  readSvg,
  HAIRLINE_MM,
  type Drawing,
  type LeftOut,
  type Outlines,
  type ReadOptions,
  type PaintedShape,
} from './svg/read'
export { readDxf } from './dxf/read'
export { readDrawing } from './drawing'
