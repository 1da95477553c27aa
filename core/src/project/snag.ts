import type { Said } from '../base/units'
import type { Paper, Project, Stage } from './schema'

/** Mends by kind, with what each is given: every stage adds its own in its mends.ts. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type
export interface Mends {}

/** A change that mends a snag: plain data, so that it can be shown, sent to a worker and applied by `mendProject`. */
export type Mend = { [Kind in keyof Mends]: { kind: Kind } & Mends[Kind] }[keyof Mends]

/** How mends are applied; one whose layer or paper is gone changes nothing. */
export type MendTable<Kinds extends keyof Mends> = {
  [Kind in Kinds]: (project: Project, mend: Mends[Kind], stock: readonly Paper[]) => Project
}

/** A finding that will cost paper or time. */
export interface Snag {
  /** Stable name of the kind of finding, such as `design-over-opening`. */
  code: string
  stage: Stage
  severity: 'caution' | 'stop'
  /** Id of the layer it is about; null where it is about the whole. */
  layer: string | null
  /** One or two plain sentences: what, and why it matters. */
  message: Said
  /** Where, in mm in the project's frame; null where it has no one place. */
  at: [number, number] | null
  mend?: { label: Said; action: Mend }
}
