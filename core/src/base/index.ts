/**
 * What every part of the core stands on, beside geometry/ and units/: sentences for what a person can cause, names of
 * values, seeded randomness, remembered results, groups.
 */
export * from './bad-input'
export * from './cache'
export * from './delta'
export * from './group-by'
export * from './hash'
export * from './random'
export * from './learning'
