// Several searches of one layout from different seeds, where there is much time. What a seed leads to in its first seconds differs by more than
// what a minute gains: all have their turn at first, and the worse half is given up twice (successive halving).
import type { NestInstance, NestLayout } from './instance'
import { Nester } from './nester'

/** How many are searched until which share of the time is over. */
const ROUNDS = [
  { until: 0.5, many: 4 },
  { until: 0.75, many: 2 },
  { until: Infinity, many: 1 },
] as const
/** In less time one alone comes further (s). */
const WORTH_S = 30
/** Each keeps what it knows of every outline: of more corners than this that takes too much room. */
const MOST_CORNERS = 40_000
const SEED_STEP = 104_729

/** What is to be laid, the seed of the first, and how long all of them have (s). */
interface Task {
  instance: NestInstance
  seed: number
  seconds: number
}

/** Whether there is time and room for more than one. */
function isWorthIt({ instance, seconds }: Task): boolean {
  const corners = instance.pieces.reduce((sum, { shape }) => sum + shape.outer.length / 2, 0)
  return seconds >= WORTH_S && corners <= MOST_CORNERS
}

/** A search as a nester is one: its best layout is always complete and legal. Same seed and shares, same result. */
export class Rivals {
  best: NestLayout
  private rivals: Nester[]
  private begun = 1
  private readonly most: number
  private making: Generator<undefined, Nester> | null = null
  private turn = 0

  /** @param first a nester of the task's instance and seed */
  constructor(
    private readonly task: Task,
    first: Nester,
  ) {
    this.rivals = [first]
    this.best = first.best
    this.most = isWorthIt(task) ? ROUNDS[0].many : 1
  }

  /** True where nothing can be better. */
  get done(): boolean {
    return this.rivals.some((rival) => rival.done)
  }

  /** How many are still searched. */
  get left(): number {
    return this.rivals.length
  }

  /**
   * A step of the one whose turn it is, or a part of laying the first layout of the next. True where the best layout got better.
   * @param share of the time that is over
   */
  step(share: number): boolean {
    const many = Math.min(this.most, ROUNDS.find(({ until }) => share < until)!.many)
    if (this.begun < this.most && many === this.most) return this.begin()
    this.making = null
    if (this.rivals.length > many)
      this.rivals = this.rivals.toSorted((a, b) => a.best.score - b.best.score).slice(0, many)
    const rival = this.rivals[this.turn++ % this.rivals.length]!
    rival.step()
    return this.keep(rival.best)
  }

  private begin(): boolean {
    const { instance, seed } = this.task
    this.making ??= Nester.inParts(instance, seed + this.begun * SEED_STEP)
    const made = this.making.next()
    if (!made.done) return false
    this.making = null
    this.begun++
    this.rivals.push(made.value)
    return this.keep(made.value.best)
  }

  private keep(layout: NestLayout): boolean {
    if (layout.score >= this.best.score) return false
    this.best = layout
    return true
  }
}
