// Long work in parts, so that no step of a search takes long, whatever the pieces are like.

/**
 * Work that stops now and then and says how much of it was done since the last time: about a microsecond a unit, as counted and not as
 * measured, so that it stops at the same places on any machine.
 */
export type Parts<T> = Generator<number, T, void>

/** So much of it makes a step. */
const STEP = 30_000

/** Work under way. */
export class InParts<T> {
  /** What was done so far. */
  work = 0

  constructor(private readonly parts: Parts<T>) {}

  /** Goes on with it for a step. Gives what it came to; null where there is more to do. */
  step(): { value: T } | null {
    for (const end = this.work + STEP; this.work < end;) {
      const next = this.parts.next()
      if (next.done) return { value: next.value }
      this.work += next.value
    }
    return null
  }
}

/** All of the work in one go. */
export function atOnce<T>(parts: Parts<T>): T {
  for (;;) {
    const next = parts.next()
    if (next.done) return next.value
  }
}
