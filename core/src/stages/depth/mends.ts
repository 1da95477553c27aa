import { letPadGo, setAssembly, setLayer, setPieceJoint, setPlan, type MendTable } from '../../project'
import { fitGaps } from './fit'
import { addStandOff, withoutStandOff } from './stand-off'
import { addCover } from './topper'

declare module '../../project/snag' {
  interface Mends {
    'fit-gaps': object
    'add-stand-off': object
    'let-pad-go': { padId: string }
    'drop-stand-off': object
    'set-joint': { layerId: string; joint: 'glue' | 'foam'; gapMm: number }
    'glue-pieces': { layerId: string; pieceIds: string[] }
    'set-thrift': { thrift: 'steady' | 'sale' }
    'add-cover': object
    'free-sticks': object
    'take-sticks': { sticks: number }
    'cut-mirrored': { layerId: string }
    'build-in-place': { partId: string }
    'fill-behind': object
  }
}

/** Mends of the depth stage. */
export const depthMends: MendTable<
  | 'add-stand-off'
  | 'let-pad-go'
  | 'drop-stand-off'
  | 'fit-gaps'
  | 'set-joint'
  | 'glue-pieces'
  | 'set-thrift'
  | 'add-cover'
  | 'free-sticks'
  | 'take-sticks'
  | 'cut-mirrored'
  | 'build-in-place'
  | 'fill-behind'
> = {
  'fit-gaps': (project) => fitGaps(project),
  'let-pad-go': (project, { padId }) => letPadGo(project, padId),
  'add-stand-off': (project, _, stock) => addStandOff(project, stock),
  'drop-stand-off': (project) => withoutStandOff(project),
  'set-joint': (project, { layerId, joint, gapMm }) =>
    setLayer(project, layerId, { joint: { kind: joint, gapMm, pinned: true } }),
  'glue-pieces': (project, what) => setPieceJoint(project, what, null),
  'set-thrift': (project, { thrift }) => setPlan(project, { thrift }),
  'cut-mirrored': (project, { layerId }) => setLayer(project, layerId, { cutMirrored: true }),
  'build-in-place': (project, { partId }) => setAssembly(project, partId, { apart: false }),
  'fill-behind': (project) => setPlan(project, { fill: 'behind' }),
  'add-cover': (project) => addCover(project),
  'free-sticks': (project) =>
    project.mount.kind === 'topper'
      ? { ...project, mount: { ...project.mount, stickPlacesMm: [] } }
      : project,
  'take-sticks': (project, { sticks }) =>
    project.mount.kind === 'topper'
      ? { ...project, mount: { ...project.mount, sticks, stickPlacesMm: [] } }
      : project,
}
