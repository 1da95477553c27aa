import { wordsIn, type Said } from './units/said'

/** Something a person can cause: a file that cannot be read, a size that cannot be. One sentence, ready to show. */
export class BadInput extends Error {
  override name = 'BadInput'
  /** The sentence with its lengths as values. */
  readonly said: Said

  constructor(said: Said) {
    super(wordsIn(said, 'mm'))
    this.said = said
  }
}
