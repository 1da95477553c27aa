/** Stands in for Node's `module` in pages, where the clipper never asks for it. */
export const createRequire = (): never => {
  throw new Error('only Node can require')
}
