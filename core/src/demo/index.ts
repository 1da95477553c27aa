/**
 * Made-up projects that go through all stages, drawn by code: nothing in them comes from elsewhere.
 */
import type { Project } from '../project'
import { bonVoyage } from './bon-voyage'
import { harbour } from './harbour'
import { tideRose } from './tide-rose'

const demos = { harbour, 'tide-rose': tideRose, 'bon-voyage': bonVoyage }

export type DemoName = keyof typeof demos

export const demoNames = Object.keys(demos) as DemoName[]

/** A demo project, drawn anew. Needs the geometry loaded. */
export const demo = (name: DemoName): Project => demos[name]()
