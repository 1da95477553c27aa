export { makeLettering } from './lettering'
export { horizontalGap } from './joints'
