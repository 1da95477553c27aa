/** Something a person can cause: a file that cannot be read, a size that cannot be. One sentence, ready to show. */
export class BadInput extends Error {
  override name = 'BadInput'
}
