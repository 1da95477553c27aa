import type { NestLayout } from './instance'

/** A way of searching for layouts. Ways take turns; each goes on from the best layout that any of them has found. */
export interface Way {
  /** In the midst of work that takes several steps: the next step goes on with it. */
  readonly underWay?: boolean
  /**
   * One step of the search: a complete and legal layout, be it better or not; null where the step came to none.
   * @param best what there is to better
   * @param step how many steps the whole search has taken
   */
  step(best: NestLayout, step: number): NestLayout | null
}

/** A search of its own for a part of the work, or for the work put otherwise. */
export interface InnerSearch {
  readonly best: NestLayout
  /** In the midst of a step. */
  readonly underWay: boolean
  step(): boolean
  offer(layout: NestLayout): void
}

/** So little better is no better. */
export const SAME_SCORE = 1e-9
