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
export * from './parts'
export { cheapestMix, type SheetMix } from './sizes'
export * from './settings'
export * from './loads'
export { cutPath, strokeWay, type CutPath, type Stroke } from './cut-path'
export * from './run'
export * from './off-cuts'
