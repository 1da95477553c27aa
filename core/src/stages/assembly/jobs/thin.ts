// Thin parts are glued to the solid card that carries them first, flat on the bench: on the stack they would be pressed into thin air.
import { intersect, regionArea, regionPerimeter, union } from '../../../base/geometry'
import {
  baseOf,
  layerRegion,
  paperOf,
  type Assembly,
  type Layer,
  type Project,
  type Unit,
} from '../../../project'

/** Card of this width on the whole, or less, is lace (mm). */
const LACE_MM = 3
/** What carries it is so many times as wide. */
const SOLID_TIMES = 3
/** Paper of less bends like it (gsm). */
const THIN_GSM = 150
/** So much of it must lie over what carries it. */
const CARRIED = 0.98

/** Names of units that are made here begin so. */
const WITH = 'with-'

/** Whether a unit is card with what is thin on it, and no part of the maker's. */
export const isWithThin = ({ id }: Pick<Assembly, 'id'>): boolean => id.startsWith(WITH)

/** Units of which each solid layer takes up the thin ones that are glued right onto it. Needs the geometry loaded. */
export function thinFirst(project: Project, units: readonly Unit[]): readonly Unit[] {
  const out: Unit[] = []
  for (const unit of units) {
    const under = out.at(-1)
    // What the stack begins with lies on the bench already.
    const onto = under && out.length > 1 && canCarry(under) ? under : null
    if (onto && unit.part === null && isThin(project, baseOf(unit)) && carries(baseOf(onto), baseOf(unit)))
      out[out.length - 1] = withThin(onto, unit)
    else out.push(unit)
  }
  return out
}

/** A single layer, or one that carries something thin already. */
const canCarry = ({ part }: Unit): boolean => part === null || isWithThin(part)

function withThin(onto: Unit, unit: Unit): Unit {
  const base = baseOf(onto)
  const part: Assembly = onto.part ?? {
    id: `${WITH}${base.id}`,
    name: base.name,
    parentId: null,
    apart: true,
  }
  const own: readonly Unit[] = onto.part ? onto.units : [onto]
  return { part, layers: [...onto.layers, ...unit.layers], units: [...own, unit] }
}

/** How wide card is on the whole: that of a long strip of its area and outline (mm). */
function meanWidth(layer: Layer): number {
  const region = layerRegion(layer)
  return (2 * regionArea(region)) / Math.max(1e-9, regionPerimeter(region))
}

const isThin = (project: Project, layer: Layer): boolean =>
  layer.joint.kind === 'glue' &&
  layer.pieces.length > 0 &&
  (meanWidth(layer) <= LACE_MM || (paperOf(project, layer)?.gsm ?? Infinity) < THIN_GSM)

function carries(under: Layer, layer: Layer): boolean {
  if (meanWidth(under) < SOLID_TIMES * meanWidth(layer)) return false
  const own = union(layerRegion(layer))
  return regionArea(intersect(own, layerRegion(under))) >= CARRIED * regionArea(own)
}
