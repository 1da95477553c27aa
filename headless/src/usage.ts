import { parseArgs, type ParseArgsConfig } from 'node:util'

/** The command line is wrong: exit 2. */
export class UsageError extends Error {}

type Options = NonNullable<ParseArgsConfig['options']>

/** Positional arguments (exactly as many as named) and options of a command line. Throws UsageError. */
export function readArgs<O extends Options>(args: string[], names: readonly string[], options: O) {
  let parsed
  try {
    parsed = parseArgs({ args, options, allowPositionals: true })
  } catch (error) {
    throw new UsageError((error as Error).message)
  }
  if (parsed.positionals.length !== names.length)
    throw new UsageError(`this command takes ${names.join(', ') || 'no arguments'}`)
  return { positionals: parsed.positionals, values: parsed.values }
}

/** A number option by its name, within bounds; the default where it is missing. Throws UsageError. */
export function numberOption(
  values: Readonly<Record<string, unknown>>,
  name: string,
  { other, min, max }: { other: number; min: number; max: number },
): number {
  const text = values[name]
  if (text === undefined) return other
  const value = Number(text)
  if (typeof text !== 'string' || !Number.isFinite(value) || value < min || value > max)
    throw new UsageError(`--${name} takes a number from ${min} to ${max}`)
  return value
}
