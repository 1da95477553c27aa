/**
 * What spans all stages: the results that follow from a project, its snags and their mends.
 */
export * from './derive'
export * from './mend'
