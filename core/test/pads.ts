// The rules of pads, for tests.
import { expect } from 'vitest'
import {
  intersect,
  mapPolygon,
  offset,
  rectangle,
  regionArea,
  rotation,
  subtract,
  union,
  type Polygon,
} from '../src/base/geometry'
import { pieceRegion, type Project } from '../src/project'
import type { DepthPlan, Pad } from '../src/stages/depth'

/** The outline of a pad where it lies, mm. */
export const padShape = (pad: Pad): Polygon =>
  mapPolygon(
    [1, 0, 0, 1, pad.x, pad.y],
    mapPolygon(
      rotation(pad.rotation),
      rectangle([-pad.widthMm / 2, -pad.heightMm / 2], pad.widthMm, pad.heightMm),
    ),
  )

/** The rules of pads, checked with booleans instead of the planner's own edge walk. */
export function expectSoundPads(project: Project, plan: DepthPlan): void {
  const tan = Math.tan((project.plan.viewingDeg * Math.PI) / 180)
  for (const pad of plan.pads) {
    const layer = project.layers.find((l) => l.id === pad.layerId)!
    const own = pieceRegion(layer.pieces.find((p) => p.id === pad.pieceId)!)
    const shape = [padShape(pad)]
    const area = pad.widthMm * pad.heightMm
    const inside = offset(
      own,
      -(project.plan.padMarginMm + pad.thicknessMm * tan) + 0.55 * tan + 0.02,
      'miter',
    )
    expect(regionArea(subtract(shape, inside)) / area, `${pad.layerId} pad passes the margin`).toBeLessThan(
      0.01,
    )
    const height = plan.pieces.find((p) => p.layer.id === pad.layerId && p.pieceId === pad.pieceId)!
    const below = height.supports.filter((s) => Math.abs(s.needMm - pad.thicknessMm) <= 0.5)
    expect(
      regionArea(subtract(shape, union(...below.map((s) => s.region)))) / area,
      `${pad.layerId} pad hangs over nothing`,
    ).toBeLessThan(0.01)
    expect(
      pad.foamIds.reduce((sum, id) => sum + project.drawer.foams.find((f) => f.id === id)!.thicknessMm, 0),
    ).toBeCloseTo(pad.thicknessMm, 6)
  }
  for (let i = 0; i < plan.pads.length; i++)
    for (let j = 0; j < i; j++) {
      const [a, b] = [plan.pads[i]!, plan.pads[j]!]
      if (a.layerId !== b.layerId || Math.hypot(a.x - b.x, a.y - b.y) > 20) continue
      expect(regionArea(intersect([padShape(a)], [padShape(b)]))).toBeLessThan(0.01)
    }
}
