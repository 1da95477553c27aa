import { BadInput } from '@feuillet/core/base'
import { loadGeometry } from '@feuillet/core/base/geometry'
import { commands } from './commands'
import type { Screen } from './screen'
import { UsageError } from './usage'

/** Runs a command line. Gives its exit code: 0 done, 2 wrong usage, 3 bad input with one line of error. */
export async function run([name = '', ...rest]: string[], screen: Screen): Promise<number> {
  const command = commands[name]
  if (!command) {
    const all = Object.values(commands).map(({ usage }) => `  ${usage}`)
    screen.error(['usage: headless COMMAND …', 'commands:', ...all].join('\n'))
    return 2
  }
  try {
    await loadGeometry()
    await command.run(rest, screen)
    return 0
  } catch (error) {
    if (error instanceof UsageError) {
      screen.error(`${error.message}\nusage: headless ${command.usage}`)
      return 2
    }
    if (error instanceof BadInput) {
      screen.error(error.message)
      return 3
    }
    throw error
  }
}
