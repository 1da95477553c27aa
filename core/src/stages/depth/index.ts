/**
 * What holds each layer and how high: local heights (heights.ts), pads that hold it (pads.ts), gaps fitted to the frame
 * (gaps.ts), parts that are built apart (bodies.ts), foam to buy (depth.ts) and shims (shim.ts).
 */
export * from './depth'
export * from './held'
export * from './shim'
export { lipShapes, type LipPads } from './lip'
export * from './foam'
export { amountOf, type GlueAmount, type LayerGlue } from './glue'
export * from './stand-off'
export * from './gaps'
export type { PieceHeight, Support } from './heights'
export { padSpan, SPANS_MM, type Pad } from './pads/pads'
export { addCover, coverOf, topperHold, type StickPlace, type TopperHold } from './topper'
export { cutThrough, type CutCard, type CutLine, type CutPad, type SectionCut } from './section-cut'
export { spaceOf, type Space, type SpacePad, type SpacePart, type SpacePiece } from './space'
export type { WhyNot } from './pads/why-not'
export { transmission } from './pads/hiding'
export { carriersOf, heatSnags, pressesOf } from './heat'
export { mayBePinned, PIN_HEAD_MM, pinSnags, pinsOf, type Pins } from './pins'
export * from './snags'
export * from './mends'
export * from './nodes'
