// The project document. The schema is the type: everything else infers from here, and docs/feuillet.schema.json is
// generated from it. Unknown keys survive reading and writing (loose objects), so newer notes are not lost.
import { z } from 'zod'
import { id, name } from './fields'
import { MOST } from '../limits'
import { grownSchema } from './recipes'
import { drawerSchema } from './drawer'
import { journalSchema, rightsSchema } from './journal'
import { assemblySchema, layerSchema, pictureSchema } from './layer'
import { mountSchema } from './mount'
import { planSchema } from './plan'
import { cutElsewhereSchema, cutSheetSchema, progressSchema } from './progress'

export * from './mount'
export * from './layer'
export * from './recipes'
export * from './drawer'
export * from './plan'
export * from './progress'
export * from './journal'

/** Of files that are written now; older ones are migrated. */
export const SCHEMA_VERSION = 2

/** A whole project, as it stands in its file. */
export const projectSchema = z.looseObject({
  format: z.literal('feuillet'),
  schemaVersion: z.literal(SCHEMA_VERSION),
  id,
  name,
  unit: z.enum(['mm', 'in']).default('mm'),
  mount: mountSchema,
  /** Back to front. */
  layers: z.array(layerSchema).max(MOST.layers),
  assemblies: z.array(assemblySchema).max(MOST.layers).default([]),
  /** Which layers a maker grew, and how. */
  grown: z.array(grownSchema).max(MOST.layers).default([]),
  /** Pictures that layers are printed with. */
  pictures: z.array(pictureSchema).max(MOST.pictures).default([]),
  /** The papers this project uses and the foam, glue and cutter it is planned with. */
  drawer: drawerSchema,
  plan: planSchema.prefault({}),
  progress: progressSchema.prefault({}),
  /** Sheets that have been cut, in the order in which they were. */
  cut: z.array(cutSheetSchema).max(MOST.entries).default([]),
  /** What of it was cut on the sheets of other projects. */
  cutElsewhere: z.array(cutElsewhereSchema).max(MOST.entries).default([]),
  journal: journalSchema.prefault({}),
  rights: rightsSchema.prefault({}),
})

/** See projectSchema. */
export type Project = z.infer<typeof projectSchema>

/** The project document as JSON Schema (draft 2020-12), as published in docs/feuillet.schema.json. */
export const projectJsonSchema = () => ({
  title: 'Feuillet project',
  ...z.toJSONSchema(projectSchema, { io: 'input' }),
})
