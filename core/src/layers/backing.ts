// The full sheet at the very back.
import type { Region } from '../geometry'
import { backingRect, type Layer, type Project } from '../project'
import { makeLayer } from './intake'

/** A full sheet that lies on the back board and bears no number. */
export const backingLayer = (sheet: Region): Layer =>
  makeLayer('backing', 'Backing', sheet, { role: 'backing', numbered: false, joint: { kind: 'glue', gapMm: 0, pinned: false }, colour: '#f2efe6' })

/** Puts a full sheet behind everything; what was backmost is then an ordinary layer. Projects without a backing size stay as they are. */
export function addBacking(project: Project): Project {
  const sheet = backingRect(project)
  if (!sheet) return project
  const taken = new Set(project.layers.map((layer) => layer.id))
  const made = backingLayer([sheet])
  let id = made.id
  for (let n = 2; taken.has(id); n++) id = `${made.id}-${n}`
  return { ...project, layers: [{ ...made, id }, ...project.layers.map((layer) => (layer.role === 'backing' ? { ...layer, role: 'plain' as const } : layer))] }
}
