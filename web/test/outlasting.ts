// What outlasts a file of tests: files share the document, the application and its workers' code, as one page has them.

/** What the code of a worker offered last to what it runs in. */
export const offered: { last: object } = { last: {} }

/** Files that the page handed to the browser to save, the newest last. */
export const saved: { name: string; content: unknown }[] = []

/** What leaves things at the end of a file as they were before it, in the order in which it was asked for. */
export const atEnd: (() => unknown)[] = []
