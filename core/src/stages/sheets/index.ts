/**
 * How few sheets, in which order: nesting of true shapes per paper (nest/), loads with setting, tack and time, off-cuts,
 * and the sheets to buy.
 */
export * from './nest/instance'
export { Nester } from './nest/nester'
export { summarise } from './nest/summary'
export { readInstance } from './nest/file'
export { placedShape, whyIllegal } from './nest/exact/legal'
export { firstFree, settle } from './nest/exact/settle'
export * from './runs/paper-runs'
export { cheapestMix, type SheetMix } from './runs/sizes'
export * from './loads/settings'
export * from './loads/loads'
export { cutPath, strokeWay, type CutPath, type Stroke } from './loads/cut-path'
export * from './runs/nest-runs'
export * from './off-cuts/off-cuts'
