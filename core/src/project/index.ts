/**
 * The project document: its schema (the only place where the model is declared), reading, writing, defaults, the small
 * questions every stage asks of it, and the edits. Results are never stored here; stages compute them.
 */
export * from './schema'
export * from './recipes'
export * from './file'
export { tidyName } from './heal'
export * from './limits'
export * from './defaults'
export * from './lookup'
export * from './mounts'
export * from './meant'
export * from './edit'
export * from './hand-pads'
export * from './assemblies'
export * from './arrange'
export * from './prints'
export * from './guests'
export * from './snag'
export * from './stock-changes'
export * from './supplies'
export * from './progress'
export * from './strength'
