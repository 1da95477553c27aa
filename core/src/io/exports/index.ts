/**
 * The files a project goes out as: cut files per load, templates, build sheet, lists.
 */
export * from './cut-files'
export * from './papers-csv'
export * from './settings-csv'
export * from './supplies-csv'
export { calendarOf } from './calendar'
export { catalogueCard } from './card'
export { wantRows } from './shopping'
