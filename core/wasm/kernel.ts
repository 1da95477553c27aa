// The hot part of parting overlaps, as WebAssembly (AssemblyScript): how much a piece overlaps with all that lies near it, and where it would overlap
// least. core/src/stages/sheets/nest/overlap/kernel.ts tells what it computes.
export { allocate, begin, loss, probe, reserve, setGaps, settle, standing, weigh } from './overlap'
export { beside, move, pose } from './move'
export { sow } from './random'
