/**
 * From drawings to layers, and what there is to know of a layer by its shape alone: pieces, loose bits, what shows.
 */
export * from './intake/intake'
export * from './figures'
export type { Smallest } from './smallest'
export * from './visibility/shows'
export * from './visibility/merge'
export { addBacking } from './backing'
export { sequenceLayers } from './intake/sequence'
export { colourName } from './intake/colour-name'
export * from './soundness'
export * from './marks'
export * from './visibility/fewest'
export * from './shape-tools'
export * from './edges'
export * from './snags'
export * from './mends'
export * from './nodes'
