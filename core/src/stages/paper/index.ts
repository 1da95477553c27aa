/**
 * Which sheet for which layer: the starter drawer, colour steps by CIEDE2000, and ramps matched to what is at hand.
 */
export * from './stock'
export * from './colour'
export * from './assign'
export * from './contrast'
export * from './snags'
export * from './mends'
export * from './nodes'
export * from './in-use'
