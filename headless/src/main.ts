// The core from a shell. Exit 0 done, 2 wrong usage, 3 bad input with one line on standard error.
import { BadInput } from '@feuillet/core/base'
import { loadGeometry } from '@feuillet/core/base/geometry'
import { commands } from './commands'
import { UsageError } from './usage'

async function main(): Promise<number> {
  const [name = '', ...rest] = process.argv.slice(2)
  const command = commands[name]
  if (!command) {
    process.stderr.write(
      `usage: headless COMMAND …\ncommands:\n${Object.values(commands)
        .map((c) => `  ${c.usage}`)
        .join('\n')}\n`,
    )
    return 2
  }
  try {
    await loadGeometry()
    await command.run(rest)
    return 0
  } catch (error) {
    if (error instanceof UsageError) {
      process.stderr.write(`${error.message}\nusage: headless ${command.usage}\n`)
      return 2
    }
    if (error instanceof BadInput) {
      process.stderr.write(error.message + '\n')
      return 3
    }
    throw error
  }
}

process.exitCode = await main().catch((error: unknown) => {
  process.stderr.write(
    `something in Feuillet itself went wrong: ${error instanceof Error ? error.message : String(error)}\n`,
  )
  return 1
})
