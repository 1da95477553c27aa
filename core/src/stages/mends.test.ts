// Every mend mends: pressed one after another on drawings made by chance, until there is none left.
import { describe, expect, it } from 'vitest'
import { drawn } from '../../test/drawn'
import { Cache, seededRandom } from '../base'
import { wordsIn } from '../base/units'
import { Planner } from '../planner'
import type { MountKind, Project, Snag } from '../project'
import { allSnagsOf, mendProject } from './index'
import { starterStock } from './paper'

const SEED = Number(process.env['FUZZ_SEED'] ?? 1)
/** No work has so many mends; pressed more often, they take each other back. */
const MOST = 40

const stock = starterStock()
const wordsOf = ({ code, layer, message }: Snag) => `${code} ${layer ?? ''}: ${wordsIn(message, 'mm')}`

/** Presses the first mend there is until none is left; what was pressed, in order, and what came of it. */
function mendAway(project: Project) {
  const planner = new Planner(new Cache())
  const snagsOf = (of: Project): Snag[] => {
    planner.update({ project: of, stock, found: new Map() })
    return allSnagsOf(planner)
  }
  const pressed: string[] = []
  const idle: string[] = []
  const again: string[] = []
  const seen = new Set([JSON.stringify(project)])
  let left = snagsOf(project)
  for (let n = 0; n < MOST; n++) {
    const snag = left.find(({ mend }) => mend)
    if (!snag) break
    const next = mendProject(project, snag.mend!.action, stock)
    const text = JSON.stringify(next)
    pressed.push(wordsOf(snag))
    if (text === JSON.stringify(project)) idle.push(wordsOf(snag))
    else if (seen.has(text)) again.push(wordsOf(snag))
    if (idle.length + again.length > 0) break
    seen.add(text)
    project = next
    left = snagsOf(project)
  }
  return { pressed, idle, again, left }
}

describe('mends of drawings that come in by chance', () => {
  const kinds: MountKind[] = ['frame', 'card', 'topper', 'panel', 'garland', 'free']
  it.each(kinds)('each change something, and take none back (%s)', (kind) => {
    for (const seed of [SEED, SEED + 1]) {
      const project = drawn(seededRandom(seed * 100 + kinds.indexOf(kind)), kind)
      const { pressed, idle, again, left } = mendAway(project)
      expect({ idle, again }, pressed.join('\n')).toEqual({ idle: [], again: [] })
      expect(left.filter(({ mend }) => mend).map(wordsOf), pressed.join('\n')).toEqual([])
      // Nor is any stop left: these works have no measures that only their maker can change.
      const stops = left.filter(({ severity }) => severity === 'stop')
      expect(stops.map(wordsOf), pressed.join('\n')).toEqual([])
    }
  })
})
