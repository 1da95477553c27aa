/**
 * Which sheet for which layer: the starter drawer, colour steps by CIEDE2000, ramps matched to what is at hand, and the
 * safe strip of each paper.
 */
export * from './stock'
export * from './colour'
export * from './assign'
export * from './strength'
