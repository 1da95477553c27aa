// The demo projects as the shelf offers them.
import { starterSupplies, supplyChanges } from '@feuillet/core/project'
import type { DemoName } from '@feuillet/core/demo'
import { editor } from '../workers'
import { smallThings } from './small-things'
import { keepProject, vault } from './store'

export const demos: readonly { name: DemoName; title: string; words: string }[] = [
  { name: 'harbour', title: 'Harbour at dusk', words: 'frame, 8 layers' },
  { name: 'tide-rose', title: 'Tide rose', words: 'card, 6 layers' },
  { name: 'bon-voyage', title: 'Bon voyage', words: 'topper, 3 layers' },
  { name: 'lantern-street', title: 'Lantern street', words: 'frame, houses that stand, lit from behind' },
  { name: 'dune-garden', title: 'Dune garden', words: 'panel, a wreath of seven blossoms' },
  { name: 'regatta', title: 'Regatta', words: 'garland, 9 flags' },
  {
    name: 'kittiwake',
    title: 'Kittiwake',
    words: 'frame, a printed porthole and a gull whose wings fold up',
  },
]

/** Stands the demo projects on the shelf, and what they take beside paper in the drawer, where the address asks for it (`?demo`), once in the life of a browser. */
export async function seedDemos(): Promise<void> {
  if (!new URLSearchParams(location.search).has('demo')) return
  if (await smallThings.getItem('seeded').catch(() => true)) return
  await smallThings.setItem('seeded', true)
  for (const { name } of demos.toReversed())
    await keepProject(await editor.ask((api) => api.demo(name)), 'a demo project')
  const none = starterSupplies()
  const changes = supplyChanges(none, { ...none, things: await editor.ask((api) => api.demoThings()) })
  if (changes) await (await vault()).changeSupplies(changes)
}
