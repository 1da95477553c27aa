/**
 * Made-up projects that go through all stages, drawn by code: nothing in them comes from elsewhere.
 */
import type { Project } from '../project'
import { bonVoyage } from './bon-voyage'
import { duneGarden } from './dune-garden'
import { harbour } from './harbour'
import { kittiwake } from './kittiwake'
import { lanternStreet } from './lantern-street'
import { regatta } from './regatta'
import { tideRose } from './tide-rose'

const demos = {
  harbour,
  'tide-rose': tideRose,
  'bon-voyage': bonVoyage,
  'lantern-street': lanternStreet,
  'dune-garden': duneGarden,
  regatta,
  kittiwake,
}

/** The id of a demo. */
export type DemoName = keyof typeof demos

/** Ids of all demos, as the shelf shows them. */
export const demoNames = Object.keys(demos) as DemoName[]

export { demoThings } from './things'

/** A demo project, drawn anew. Needs the geometry loaded. */
export const demo = (name: DemoName): Project => demos[name]()
