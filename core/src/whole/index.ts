/**
 * What spans all stages: the results that follow from a project, its snags, their mends, and the files of a project.
 */
export * from './derive'
export * from './mend'
export * from './cut-files'
