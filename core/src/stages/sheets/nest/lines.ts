// What a search goes on from. Layouts that were found in ways that have little in common are bettered one after the other: of two that are as
// good at first, either may come further.
import type { NestLayout } from './instance'
import { SAME_SCORE } from './way'

/** Another layout waits unless it is better by this share at first, by half of it after so many steps, and so on. */
const LEAD = { share: 0.15, steps: 40 }
/** What is worse by this share by then is not worth bettering. */
const WORSE = 1.03

/** The layout that is built on, and another that waits its turn. */
export class Lines {
  private waiting: NestLayout | null = null
  /** How many steps were done when it came; null before. */
  private since: number | null = null
  /** The one that was left for the other, as far as it came. */
  private left: NestLayout | null = null

  constructor(public base: NestLayout) {}

  /** A layout that was made of the base, where it is better. */
  take(layout: NestLayout): void {
    if (layout.score < this.base.score - SAME_SCORE) this.base = layout
  }

  /** A layout that was made otherwise, after so many steps; the first of them waits, and so do better ones for as long as it does. */
  takeOther(layout: NestLayout, steps: number): void {
    if (this.since !== null && !this.waiting) return this.take(layout)
    this.since ??= steps
    if (layout.score < (this.waiting?.score ?? Infinity)) this.waiting = layout
  }

  /** Goes over to what waits, where that is much better, or the base gives way no more; and back, where that comes no further. */
  turn(steps: number, isStuck: boolean): void {
    const { waiting, base, left } = this
    if (waiting) {
      const lead = LEAD.share / (1 + (steps - (this.since ?? steps)) / LEAD.steps)
      if (!isStuck && waiting.score > (1 - lead) * base.score) return
      this.waiting = null
      if (waiting.score > WORSE * base.score) return
      this.left = base
      this.base = waiting
    } else if (left && isStuck) {
      this.left = null
      this.take(left)
    }
  }
}
