/**
 * Soundness: narrow necks, turns that look right when wrong, what is too small, and the edits that mend them.
 */
export * from './soundness'
export { narrowestStrip, weakNecks, thickened, type Neck } from './necks'
export { turnRisks, type Turn } from './turns'
