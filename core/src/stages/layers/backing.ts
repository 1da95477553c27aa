// The full sheet at the very back.
import type { Region } from '../../base/geometry'
import { addLayers, backingRect, moveLayer, type Layer, type Project } from '../../project'
import { makeLayer } from './intake/intake'

/** A full sheet that lies on the back board and bears no number. */
export const backingLayer = (sheet: Region): Layer =>
  makeLayer({ id: 'backing', name: 'Backing' }, sheet, {
    role: 'backing',
    numbered: false,
    joint: { kind: 'glue', gapMm: 0, pinned: false },
    colour: '#f2efe6',
  })

/** Puts a full sheet behind everything; what was backmost is then an ordinary layer. Projects without a backing size stay as they are. */
export function addBacking(project: Project): Project {
  const sheet = backingRect(project)
  if (!sheet) return project
  const layers = project.layers.map((layer) =>
    layer.role === 'backing' ? { ...layer, role: 'plain' as const } : layer,
  )
  const added = addLayers({ ...project, layers }, [backingLayer([sheet])])
  return moveLayer(added, added.layers.at(-1)!.id, 0)
}
