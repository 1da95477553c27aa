/**
 * What to do next and when it is done: steps from the joints (steps.ts) and their times on cutter and hands
 * (schedule.ts).
 */
export * from './steps'
export { schedule } from './schedule'
export * from './nodes'
