export type { Fonts } from './typeset'
export { makeLettering } from './lettering'
export { horizontalGap } from './joints'
