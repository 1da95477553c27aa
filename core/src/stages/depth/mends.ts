import { setLayer, setPlan, type MendTable } from '../../project'
import { fitGaps } from './gaps'
import { addCover } from './topper'

declare module '../../project/snag' {
  interface Mends {
    'fit-gaps': object
    'set-joint': { layerId: string; joint: 'glue' | 'foam'; gapMm: number }
    'set-thrift': { thrift: 'steady' | 'sale' }
    'add-cover': object
    'free-sticks': object
  }
}

/** Mends of the depth stage. */
export const depthMends: MendTable<'fit-gaps' | 'set-joint' | 'set-thrift' | 'add-cover' | 'free-sticks'> = {
  'fit-gaps': (project) => fitGaps(project),
  'set-joint': (project, { layerId, joint, gapMm }) =>
    setLayer(project, layerId, { joint: { kind: joint, gapMm, pinned: true } }),
  'set-thrift': (project, { thrift }) => setPlan(project, { thrift }),
  'add-cover': (project) => addCover(project),
  'free-sticks': (project) =>
    project.mount.kind === 'topper'
      ? { ...project, mount: { ...project.mount, stickPlacesMm: [] } }
      : project,
}
