/**
 * What to do next and when it is done: the graph of jobs from the joints (jobs/), put into words (words.ts) and to times
 * on cutter and hands (schedule.ts). How long the hands take is in times.ts.
 */
export type { AssemblyPlan, Job, Resource, Step, StepKind, Task } from './task'
export { handsMinutesOf } from './task'
export * from './learned'
export * from './mishap'
export * from './mounting'
export * from './order'
export * from './plan'
export { BENCH } from './times'
export { schedule } from './schedule'
export * from './evenings'
export * from './due'
export * from './nodes'
