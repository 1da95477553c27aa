// Colours that are meant to run on evenly from one to another: where a step is uneven the eye sees an edge.
import { converter, parse } from 'culori'
import { builtLayers, colourOf, paperOf, type Layer, type Paper, type Project } from '../../project'
import { colourDifference } from './colour'
import { fitting, usable } from './assign'

/** A step of a ramp that is a good deal larger or smaller than the others, and the sheet that would mend it. */
export interface UnevenStep {
  below: Layer
  above: Layer
  /** Its size and the usual one, CIEDE2000. */
  step: number
  usual: number
  swap: { layer: Layer; paper: Paper } | null
}

/** Fewer layers are no ramp. */
const LEAST = 4
/** Colours of a ramp lie along a line in Oklab to within this share of its length. */
const ASTRAY = 0.16
/** So many times the usual step is too large, and so much of it too small. */
const LARGE = 1.8
const SMALL = 0.5
/** A sheet is better where it takes so much off the worst step's unevenness. */
const BETTER = 0.8

const oklab = converter('oklab')
const point = (hex: string): [number, number, number] => {
  const { l, a, b } = oklab(parse(hex) ?? parse('#808080')!)
  return [l, a, b]
}
const minus = (p: readonly number[], q: readonly number[]): number[] => p.map((v, i) => v - q[i]!)
const dot = (p: readonly number[], q: readonly number[]): number =>
  p.reduce((sum, v, i) => sum + v * q[i]!, 0)

/** Whether colours run on from the first to the last along a line, none turning back. */
function isRamp(colours: readonly string[]): boolean {
  const points = colours.map(point)
  const way = minus(points.at(-1)!, points[0]!)
  const length = Math.sqrt(dot(way, way))
  if (length === 0) return false
  let last = -Infinity
  return points.every((p) => {
    const from = minus(p, points[0]!)
    const along = dot(from, way) / length
    const astray = Math.sqrt(Math.max(0, dot(from, from) - along * along))
    const runsOn = along > last
    last = along
    return runsOn && astray < ASTRAY * length
  })
}

/** Layers whose colours the maker has laid as a ramp, back to front, as far as they are still built. */
export const rampsOf = (project: Project): Layer[][] =>
  project.plan.ramps
    .map((ids) => builtLayers(project).filter((layer) => ids.includes(layer.id)))
    .filter((layers) => layers.length >= LEAST)

const stepsOf = (colours: readonly string[]): number[] =>
  colours.slice(1).map((colour, k) => colourDifference(colours[k]!, colour))

const median = (values: readonly number[]): number => {
  const sorted = values.toSorted((a, b) => a - b)
  return sorted[sorted.length >> 1]!
}

/** How far from even steps are: the largest share by which one is off, either way. */
const unevenness = (steps: readonly number[]): number => {
  const mean = steps.reduce((sum, step) => sum + step, 0) / steps.length
  return steps.reduce((most, step) => Math.max(most, Math.abs(Math.log(Math.max(0.1, step) / mean))), 0)
}

/** The most uneven step of each ramp of papers, where it shows; with the sheet of the stock that evens it best. */
export function unevenSteps(project: Project, stock: readonly Paper[]): UnevenStep[] {
  return rampsOf(project).flatMap((layers): UnevenStep[] => {
    const colours = layers.map((layer) => colourOf(project, layer))
    if (layers.some((layer) => !paperOf(project, layer))) return []
    const steps = stepsOf(colours)
    const usual = median(steps)
    const worst = steps
      .map((step, k) => ({ step, k }))
      .filter(({ step }) => step > usual * LARGE || step < usual * SMALL)
      .toSorted((a, b) => Math.abs(Math.log(b.step / usual)) - Math.abs(Math.log(a.step / usual)))[0]
    if (!worst) return []
    const now = unevenness(steps)
    const used = new Set(layers.map((layer) => layer.paperId))
    let best: { layer: Layer; paper: Paper; left: number } | null = null
    for (const at of [worst.k, worst.k + 1])
      for (const paper of usable(stock, fitting(project, [layers[at]!]))) {
        if (used.has(paper.id)) continue
        const next = colours.with(at, paper.colour)
        const left = isRamp(next) ? unevenness(stepsOf(next)) : Infinity
        if (left < now * BETTER && (!best || left < best.left)) best = { layer: layers[at]!, paper, left }
      }
    return [
      {
        below: layers[worst.k]!,
        above: layers[worst.k + 1]!,
        step: worst.step,
        usual,
        swap: best && { layer: best.layer, paper: best.paper },
      },
    ]
  })
}
