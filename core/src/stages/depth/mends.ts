import { setLayer, setPlan, type MendTable } from '../../project'
import { fitGaps } from './gaps'

declare module '../../project/snag' {
  interface Mends {
    'fit-gaps': object
    'set-joint': { layerId: string; joint: 'glue' | 'foam'; gapMm: number }
    'set-thrift': { thrift: 'steady' | 'sale' }
  }
}

/** Mends of the depth stage. */
export const depthMends: MendTable<'fit-gaps' | 'set-joint' | 'set-thrift'> = {
  'fit-gaps': (project) => fitGaps(project),
  'set-joint': (project, { layerId, joint, gapMm }) =>
    setLayer(project, layerId, { joint: { kind: joint, gapMm, pinned: true } }),
  'set-thrift': (project, { thrift }) => setPlan(project, { thrift }),
}
