/**
 * What the work will live in and how large it may be: backing size, largest safe size, scale and borders, depth at hand.
 * Everything here is plain arithmetic on boxes, so the interface may call it on every keystroke.
 */
export * from './measure'
export * from './laid-out'
export { partedIn, partsWithin } from './parts-within'
export { TOLERANCE_MM } from './tolerance'
export * from './snags'
export * from './mends'
export * from './things'
export * from './nodes'
