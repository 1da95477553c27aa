// Small made-up stacks.
import { rectangle, type Region } from '@feuillet/core/base/geometry'
import { makeLayer } from '@feuillet/core/stages/layers'
import { newProject, starterMount, type Layer, type MountKind, type Project } from '@feuillet/core/project'

/** A layer of rectangles x, y, w, h; on foam of the given height, glued where it is 0. */
export const plate = (id: string, gapMm: number, ...rects: [number, number, number, number][]): Layer =>
  card(
    id,
    gapMm,
    rects.flatMap(([x, y, w, h]) => [rectangle([x, y], w, h)]),
  )

export const card = (id: string, gapMm: number, region: Region): Layer =>
  makeLayer({ id, name: id }, region, { joint: { kind: gapMm > 0 ? 'foam' : 'glue', gapMm, pinned: false } })

export const stack = (kind: MountKind, ...layers: Layer[]): Project => ({
  ...newProject('p', 'Stack', starterMount(kind)),
  layers,
})
