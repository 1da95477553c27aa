/**
 * Shapes of card: rings, polygons with holes, regions; their measures, booleans, offsets and path data. All lengths in
 * mm, y down. `loadGeometry()` must have finished before booleans or offsets are asked for; all else needs nothing.
 */
export * from './types'
export * from './box'
export * from './ring'
export { convexHull } from './hull'
export * from './calipers'
export { isSimple } from './simple'
export * from './region'
export * from './affine'
export * from './path'
export * from './clip'
export * from './disc'
export * from './cells'
export * from './curve'
export * from './congruent'
export { plainPath } from './plain-path'
