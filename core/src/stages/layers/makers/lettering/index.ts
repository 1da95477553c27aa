export { makeLettering } from './lettering'
export { horizontalGap } from './joints'
export { sagMm } from './sticks'
