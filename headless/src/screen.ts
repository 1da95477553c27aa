import { writeWhole } from './files'

/** Where a command puts what it says. */
export interface Screen {
  /** What was asked for. */
  print(text: string): void
  /** A line beside it: a note, or what is wrong. */
  error(line: string): void
}

/** Prints a text, or writes it to the file of `-o`. */
export function put(text: string, output: string | undefined, screen: Screen): void {
  if (output) writeWhole(output, text)
  else screen.print(text)
}

/** Prints a result as JSON, or writes it to the file of `-o`. */
export const give = (value: unknown, output: string | undefined, screen: Screen): void =>
  put(JSON.stringify(value, null, 2) + '\n', output, screen)
