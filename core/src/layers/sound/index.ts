/**
 * Soundness: narrow necks, turns that look right when wrong, what is too small, where a number hides, and the edits that
 * mend them.
 */
export * from './soundness'
export { weakNecks, thickened, type Neck } from './necks'
export { turnRisks, type Turn } from './turns'
export { numberPlace, NUMBER_MM } from './number-place'
export { mapMarks, noMarks, pieceMarks, type Marks } from './marks'
export { numberStrokes } from './digits'
