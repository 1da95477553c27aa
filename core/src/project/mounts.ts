// What the work will live in: the measures that each kind starts from, and how one kind becomes another.
import { boxHeight, boxWidth, isEmptyBox, polygonBox } from '../base/geometry'
import { removeLayer } from './edit'
import { backingRect, designBox, isStandOff } from './lookup'
import { mountSchema, type Mount, type MountKind, type NewMount, type Project } from './schema'

/** Sticks as they are sold: how wide they are, mm. */
export const STICKS_MM = { toothpick: 2, skewer: 3, dowel: 4, flat: 6 } as const

/** Cakes as they are baked, and a cupcake: across and high, mm. */
export const CAKES = {
  cupcake: { kind: 'cupcake', diameterMm: 50, heightMm: 45 },
  small: { kind: 'cake', diameterMm: 150, heightMm: 90 },
  middle: { kind: 'cake', diameterMm: 200, heightMm: 100 },
  large: { kind: 'cake', diameterMm: 250, heightMm: 110 },
} as const

/** What a lip usually hides on each side, mm. */
const LIP_MM = 7

const starters = {
  frame: {
    kind: 'frame',
    spacer: { widthMm: 200, heightMm: 200 },
    opening: { widthMm: 200 - 2 * LIP_MM, heightMm: 200 - 2 * LIP_MM },
    depthMm: 24,
    clearanceMm: 2,
    airMm: 5,
  },
  card: { kind: 'card', panel: { widthMm: 140, heightMm: 140 } },
  topper: { kind: 'topper', widthMm: 150 },
  panel: { kind: 'panel', panel: { widthMm: 200, heightMm: 200 } },
  garland: { kind: 'garland', flags: 9, gapMm: 20, endsMm: 300 },
  free: { kind: 'free' },
} as const satisfies Record<MountKind, NewMount>

/** The measures a new project of a kind starts from. */
export const starterMount = (kind: MountKind): Mount => mountSchema.parse(starters[kind])

/**
 * The project as work of another kind: layers stay as they are, but for a ring that stands them off from a pane, and sizes that both kinds
 * know are kept.
 */
export function changeKind(project: Project, kind: MountKind): Project {
  const { mount } = project
  if (mount.kind === kind) return project
  const next = starterMount(kind)
  const backing = backingRect(project)
  const design = designBox(project)
  const box = backing ? polygonBox(backing) : isEmptyBox(design) ? null : design
  const size = box && { widthMm: boxWidth(box), heightMm: boxHeight(box) }
  if (size && (next.kind === 'card' || next.kind === 'panel')) next.panel = size
  if (size && next.kind === 'topper') next.widthMm = isEmptyBox(design) ? size.widthMm : boxWidth(design)
  if (size && next.kind === 'frame') {
    next.spacer = size
    next.opening = {
      widthMm: Math.max(size.widthMm / 2, size.widthMm - 2 * LIP_MM),
      heightMm: Math.max(size.heightMm / 2, size.heightMm - 2 * LIP_MM),
    }
  }
  const rings = mount.kind === 'frame' ? project.layers.filter(isStandOff) : []
  return rings.reduce<Project>((rest, { id }) => removeLayer(rest, id), { ...project, mount: next })
}
