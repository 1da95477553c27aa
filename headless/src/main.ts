// The core from a shell.
import { run } from './run'

process.exitCode = await run(process.argv.slice(2), {
  print: (text) => process.stdout.write(text),
  error: (line) => process.stderr.write(`${line}\n`),
}).catch((error: unknown) => {
  const why = error instanceof Error ? error.message : String(error)
  process.stderr.write(`something in Feuillet itself went wrong: ${why}\n`)
  return 1
})
