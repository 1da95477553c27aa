/**
 * From drawings to layers, and what there is to know of a layer by its shape alone: pieces, loose bits, what shows.
 */
export * from './intake'
export * from './figures'
export * from './shows'
export * from './merge'
export { addBacking } from './backing'
export { sequenceLayers } from './sequence'
export { colourName } from './colour-name'
export * from './sound'
export * from './fewest'
