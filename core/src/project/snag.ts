import type { Stage } from './schema'

/** A change that mends a snag: plain data, so that it can be shown, sent to a worker and applied by `mendProject`. */
export type Mend =
  | { kind: 'fit-design' }
  | { kind: 'fit-gaps' }
  | { kind: 'set-joint'; layerId: string; joint: 'glue' | 'foam'; gapMm: number }
  | { kind: 'nearest-papers'; layerIds: string[] }
  | { kind: 'swap-paper'; layerId: string; paperId: string }
  | { kind: 'drop-specks'; layerId: string; pieceIds: string[] }
  | { kind: 'set-opening'; widthMm: number; heightMm: number }
  | { kind: 'take-off-cuts'; paperIds: string[] }
  | { kind: 'take-sizes'; paperIds: string[] }
  | { kind: 'merge-papers'; paperId: string; layerIds: string[] }
  | { kind: 'drop-pin'; layerId: string; pieceId: string; copy: number }
  | { kind: 'thicken-layer'; layerId: string; safeMm: number }
  | { kind: 'gather-layers'; layerIds: string[] }
  | { kind: 'add-backing' }
  | { kind: 'bridge-layer'; layerId: string; safeMm: number }
  | { kind: 'set-thrift'; thrift: 'steady' | 'sale' }

/** A finding that will cost paper or time. */
export interface Snag {
  /** Stable name of the kind of finding, such as `design-over-opening`. */
  code: string
  stage: Stage
  severity: 'caution' | 'stop'
  /** Id of the layer it is about; null where it is about the whole. */
  layer: string | null
  /** One or two plain sentences: what, and why it matters. */
  message: string
  /** Where, in mm in the project's frame; null where it has no one place. */
  at: [number, number] | null
  mend?: { label: string; action: Mend }
}
