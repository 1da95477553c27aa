/**
 * A picture as layers: its greys or colours parted into tones (`otsu`, `palette`) after its contrast was raised, it was smoothed
 * and its background taken away (`picture`, `subject`), with what the maker painted over it (`steps`).
 */
export { bestThresholds, histogramOf } from './otsu'
export { coloursOf, fromBase64, greysOf, toBase64 } from './bytes'
export { thresholdsOf } from './thresholds'
export { makeTones } from './tones'
