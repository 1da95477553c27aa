import { describe, expect, it } from 'vitest'
import { STAGES } from '@feuillet/core/project'
import { commandGroups, commandOf, commands, type CommandId } from './list'

const ids = Object.keys(commands) as CommandId[]
/** Where the commands of a group can be done at once. */
const EVERYWHERE = ['Go to', 'Layers', 'Look', 'Project']
const PLACES = [[...EVERYWHERE, 'Piece on a sheet'], [...EVERYWHERE, 'Parts on the board'], ['Bench']]

describe('commands', () => {
  it('stand once, each in a group, with words for their keys', () => {
    expect(
      commandGroups()
        .flatMap(([, list]) => list)
        .toSorted(),
    ).toEqual(ids.toSorted())
    for (const id of ids) {
      const { title, keys, shown } = commandOf(id)
      expect(title).not.toBe('')
      if (keys) expect(shown, id).toBeTruthy()
    }
  })

  it('share no key where they can be done at once', () => {
    for (const groups of PLACES) {
      const keys = ids
        .map(commandOf)
        .filter(({ group }) => groups.includes(group))
        .flatMap((command) => command.keys?.split(',') ?? [])
      expect(keys.toSorted()).toEqual([...new Set(keys)].toSorted())
    }
  })

  it('lead to every stage by its figure', () => {
    expect(STAGES.map((stage) => commandOf(`go-${stage}`).keys)).toEqual(['1', '2', '3', '4', '5', '6', '7'])
  })
})
