// In which order layers come onto the stack where some of them are parts that are built on the bench and laid on as one.
import { fresh, type Memo } from '../base'
import { boxesMeet, boxHeight, boxWidth, polygonBox, type Box } from '../base/geometry'
import { layerBox, pieceRegion } from './faces'
import { builtLayers, isPressed, isStacked } from './lookup'
import type { Assembly, Layer, Project } from './schema'

/** What is laid in one: a layer, or a part with what it is built of. All back to front. */
export interface Unit {
  /** Null for a single layer. */
  part: Assembly | null
  /** The layers of it. */
  layers: readonly Layer[]
  /** What a part is built of: layers, and parts in it that are built apart in their turn. */
  units: readonly Unit[]
}

/** The layer of a unit that lies hindmost: its joint is the unit's. */
export const baseOf = ({ layers }: Unit): Layer => layers[0]!

const single = (layer: Layer): Unit => ({ part: null, layers: [layer], units: [] })

/**
 * All built layers in units, in the order in which they are laid. A part is built apart where the maker has not said otherwise, all of it is
 * stuck to each other, nothing else must come between its layers, and it is not the sheet that carries all the others. Whether its layers
 * really hold each other is told by their shapes: `holds` may refuse those that do not.
 */
export const unitsOfStack = (
  project: Project,
  holds: (part: Assembly) => boolean = () => true,
): readonly Unit[] =>
  unitsOfLayers(builtLayers(project), {
    project,
    within: null,
    holds: (part) => part.apart && holds(part),
  })

/** In which order the layers of a project are laid. */
export interface BuildOrder {
  units: readonly Unit[]
  /** The layer that is laid right before another, by that one's id; none for the first. */
  before: ReadonlyMap<string, Layer>
  /** The outermost part that is built apart with a layer in it, by the layer's id; none where that is laid by itself. */
  apart: ReadonlyMap<string, Unit>
}

/** Units as the maker wants them, and how each layer comes into them: every layer of a project asks for that in turn. */
export const buildOrder = (project: Project, memo: Memo = fresh): BuildOrder =>
  memo('build order', [project.layers, project.assemblies], () => {
    const units = unitsOfStack(project)
    const layers = units.flatMap((unit) => unit.layers)
    return {
      units,
      before: new Map(layers.slice(1).map(({ id }, k) => [id, layers[k]!])),
      apart: new Map(
        units.flatMap((unit) => (unit.part ? unit.layers.map(({ id }) => [id, unit] as const) : [])),
      ),
    }
  })

/** Every layer in the order in which it is laid; those of a part follow each other. */
export const layersInOrder = (project: Project): readonly Layer[] =>
  unitsOfStack(project).flatMap(({ layers }) => layers)

interface Within {
  project: Project
  /** The part whose layers these are. */
  within: string | null
  holds: (part: Assembly) => boolean
}

function unitsOfLayers(layers: readonly Layer[], { project, within, holds }: Within): readonly Unit[] {
  let units = layers.map(single)
  if (!project.assemblies.some(holds)) return units
  const tried = new Set<string>()
  for (const layer of layers)
    for (const part of partsRound(project, layer, within)) {
      if (tried.has(part.id)) continue
      tried.add(part.id)
      const members = layers.filter((one) => partsRound(project, one, within).includes(part))
      if (!holds(part) || (within === null && isCarrier(layers, members))) continue
      const next = canBeApart(members) && together(units, members)
      if (!next) continue
      const own = unitsOfLayers(members, { project, within: part.id, holds })
      units = next({ part, layers: own.flatMap((unit) => unit.layers), units: own })
    }
  return units
}

/** The parts that a layer lies in, the outermost first; within a part only those that lie in it. */
function partsRound({ assemblies }: Project, layer: Layer, within: string | null): Assembly[] {
  const found: Assembly[] = []
  for (let id = layer.assemblyId; id !== null && id !== within;) {
    const part = assemblies.find((one) => one.id === id)
    if (!part || found.includes(part)) break
    found.unshift(part)
    id = part.parentId
  }
  return found
}

/** Layers that are stuck to each other, the hindmost to what is beneath: a part is taken up and laid by that one's joint. */
const canBeApart = (members: readonly Layer[]): boolean =>
  members.length > 1 &&
  isStacked(members[0]!) &&
  members[0]!.joint.kind !== 'none' &&
  members.every((layer) => isStacked(layer) || isPressed(layer))

/** So much of what is drawn may lie beside the sheet that carries it. */
const BESIDE = 0.03

/** Whether layers hold the sheet that all the others lie on: with it the stack itself begins. */
function isCarrier(layers: readonly Layer[], members: readonly Layer[]): boolean {
  const stack = layers.filter(isStacked)
  const [back] = stack
  if (!back || !members.includes(back) || back.pieces.length !== 1) return false
  const own = layerBox(back)
  const slack = BESIDE * Math.max(boxWidth(own), boxHeight(own))
  return stack.map(layerBox).every(
    (b) => b.minX >= own.minX - slack && b.minY >= own.minY - slack && b.maxX <= own.maxX + slack && b.maxY <= own.maxY + slack, // prettier-ignore
  )
}

/**
 * Brings the members among units together; null where something else must lie between them. What lies over a member of theirs comes after
 * them, what lies under one before.
 */
function together(units: readonly Unit[], members: readonly Layer[]): ((unit: Unit) => Unit[]) | null {
  const isOwn = ({ part, layers }: Unit) => part === null && members.includes(layers[0]!)
  const places = units.flatMap((unit, i) => (isOwn(unit) ? [i] : []))
  if (places.length !== members.length) return null
  const [first, last] = [places[0]!, places.at(-1)!]
  const boxes = units.map((unit, i) => (i >= first && i <= last ? boxesOf(unit) : []))
  let firstAfter = Infinity
  let lastBefore = first
  for (let i = first + 1; i < last; i++) {
    if (isOwn(units[i]!)) continue
    const met = places.filter((k) => boxes[k]!.some((a) => boxes[i]!.some((b) => boxesMeet(a, b))))
    if (met.some((k) => k < i)) firstAfter = Math.min(firstAfter, i)
    if (met.some((k) => k > i)) lastBefore = i
  }
  if (firstAfter <= lastBefore) return null
  const others = (from: number, to: number) => units.slice(from, to).filter((unit) => !isOwn(unit))
  return (unit) => [...others(0, lastBefore + 1), unit, ...others(lastBefore + 1, units.length)]
}

const boxesOf = ({ layers }: Unit): Box[] =>
  layers.flatMap(({ pieces }) => pieces.flatMap((piece) => pieceRegion(piece).map(polygonBox)))
