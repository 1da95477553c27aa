/**
 * What it took and what it is worth: timers per stage, sheets used, cost so far against the plan.
 */
export * from './timers'
export * from './cost'
export * from './parts'
export * from './to-buy'
export * from './price'
export * from './rights'
export * from './fair'
export * from './candidate'
export * from './wants'
export * from './over-all'
export * from './makes'
export * from './mentions'
export * from './nodes'
