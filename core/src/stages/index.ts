/**
 * All stages together, in the order of the work: their nodes by name, and the mends of their snags. A stage's own folder
 * holds its functions, its table of nodes (nodes.ts), its snags and mends.
 */
import type { NodeOf, Planner, Ref } from '../planner'
import { isMeant, type Project, type Snag } from '../project'
import { assembly, orderOfWork } from './assembly'
import { apart, depth, depthSnagsNode, glueMap, glues, hold, levels, padMap, space } from './depth'
import { cost, journalSnagsNode, sheetCost } from './journal'
import {
  colouringMap,
  colourings,
  figures,
  layersSnags,
  shownPath,
  smallest,
  sound,
  visible,
  weakPaths,
} from './layers'
import { measureSnagsNode, thing } from './measure'
import { paperSnagsNode } from './paper'
import {
  cutLoads,
  cutSheet,
  cutSketches,
  draft,
  left,
  loads,
  mergeSnagsNode,
  needed,
  nested,
  sheet,
  sheetsSnags,
  runNames,
  sketches,
} from './sheets'

export { mendAll, mendProject, reshapedBy, spoilsSome } from './mend'

/** Nodes that a page may ask for, by name. Those of one layer or load take its id. */
export const nodes = {
  levels,
  apart,
  figures,
  colouringMap,
  colourings,
  visible,
  shownPath,
  sound,
  weakPaths,
  smallest,
  depth,
  padMap,
  glueMap,
  glues,
  hold,
  space,
  nested,
  draft,
  loads,
  cutLoads,
  cutSheet,
  cutSketches,
  sheet,
  runNames,
  sketches,
  needed,
  left,
  orderOfWork,
  assembly,
  thing,
  sheetCost,
  cost,
  measureSnags: measureSnagsNode,
  layersSnags,
  paperSnags: paperSnagsNode,
  mergeSnags: mergeSnagsNode,
  sheetsSnags,
  depthSnags: depthSnagsNode,
  journalSnags: journalSnagsNode,
} as const

/** A node that a page may ask for. */
export type NodeName = keyof typeof nodes

/** What the page gets of a node. */
export type ViewOf<Name extends NodeName> = (typeof nodes)[Name] extends NodeOf<unknown, infer V> ? V : never

/** Nodes of findings, in the order in which they are told. */
export const SNAG_NODES = [
  'measureSnags',
  'layersSnags',
  'paperSnags',
  'mergeSnags',
  'sheetsSnags',
  'depthSnags',
  'journalSnags',
] as const satisfies readonly NodeName[]

/** All findings of a project, in the order of the stages, those that are meant so among them. Needs the geometry loaded. */
export const allSnagsOf = (planner: Planner): Snag[] =>
  SNAG_NODES.flatMap((name) => planner.get(nodes[name]() as Ref<Snag[]>))

/** The findings of a project that are not meant so. */
export const snagsOf = (planner: Planner, project: Project): Snag[] =>
  allSnagsOf(planner).filter((snag) => !isMeant(project, snag))
