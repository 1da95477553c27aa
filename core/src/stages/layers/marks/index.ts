/**
 * What is put on a layer beside its outlines: the folio number where it hides, fold lines, crosses.
 */
export { numberPlace, NUMBER_MM } from './number-place'
export { centreMarks, mapMarks, noMarks, pieceMarks, type Marks } from './marks'
export { flagNumber, flagsOf, type Flag } from './flag-order'
export { numberStrokes } from './digits'
