/** Where a command puts what it says. */
export interface Screen {
  /** What was asked for. */
  print(text: string): void
  /** A line beside it: a note, or what is wrong. */
  error(line: string): void
}
