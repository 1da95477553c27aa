// Gaps chosen from the foam at hand so that the stack fills the depth and no more: exact, by dynamic programming over
// layers and height used.
import {
  isOnPane,
  builtLayers,
  depthAtHand,
  setLayer,
  thicknessOf,
  type Layer,
  type Project,
} from '../../project'
import { gapChoices } from './foam'

/** Height is counted in steps of this many mm. */
const STEP_MM = 0.05
/** Cost of giving up a gap altogether and gluing: far above any miss of a target. */
const GLUE_COST = 400

/** Gaps chosen for the free layers, mm. */
export interface GapPlan {
  gaps: { layerId: string; gapMm: number }[]
  /** All card and gaps added up. */
  stackMm: number
  /** False where even glue everywhere is too deep. */
  fits: boolean
}

/** Layers whose gap may be chosen: on foam, not pinned, with something beneath. */
export const freeLayers = (project: Project): Layer[] =>
  builtLayers(project).filter(
    (layer, i) => i > 0 && layer.joint.kind === 'foam' && !layer.joint.pinned && !isOnPane(layer),
  )

/** How a profile shares the room out over the free layers, back to front; adds up to 1. */
export function profileShares(project: Project, free: readonly Layer[]): number[] {
  const { profile, heroLayerId } = project.plan
  const weights = free.map((layer, i) => {
    if (profile === 'front') return 1 + i / Math.max(1, free.length - 1)
    if (profile === 'hero') return layer.id === (heroLayerId ?? free[Math.floor(free.length / 2)]!.id) ? 2 : 1
    return 1
  })
  const sum = weights.reduce((a, b) => a + b, 0)
  return weights.map((w) => w / sum)
}

/** The best gaps for a room (mm of card, foam and glue). The sum of layers bounds every local height from above. */
export function planGaps(project: Project, roomMm: number): GapPlan {
  // What the frame holds by tabs rests on nothing, and nothing on it.
  const layers = builtLayers(project).filter((layer) => layer.joint.kind !== 'tab' && !isOnPane(layer))
  const free = freeLayers(project)
  const fixed = layers.reduce((sum, layer) => {
    const gap = layer.joint.kind === 'foam' && !free.includes(layer) ? layer.joint.gapMm : 0
    return sum + thicknessOf(project, layer) + gap
  }, 0)
  const available = roomMm - fixed
  const choices = [0, ...gapChoices(project.drawer.foams).map((choice) => choice.gapMm)]
  const budget = Math.floor(Math.max(0, available) / STEP_MM + 1e-6)
  const targets = profileShares(project, free).map((share) => share * Math.max(0, available))

  // best[k][b]: least cost of the first k free layers using at most b steps of height.
  const width = budget + 1
  let best = new Float64Array(width)
  const picks: Int16Array[] = []
  for (let k = 0; k < free.length; k++) {
    const next = new Float64Array(width).fill(Infinity)
    const pick = new Int16Array(width)
    for (let b = 0; b < width; b++)
      for (let c = 0; c < choices.length; c++) {
        const used = Math.round(choices[c]! / STEP_MM)
        if (used > b) continue
        const miss = choices[c]! - targets[k]!
        const cost = best[b - used]! + miss * miss + (c === 0 ? GLUE_COST : 0)
        if (cost < next[b]! - 1e-9) {
          next[b] = cost
          pick[b] = c
        }
      }
    picks.push(pick)
    best = next
  }
  const gaps: GapPlan['gaps'] = []
  let b = budget
  for (let k = free.length - 1; k >= 0; k--) {
    const gapMm = choices[picks[k]![b]!]!
    gaps.unshift({ layerId: free[k]!.id, gapMm })
    b -= Math.round(gapMm / STEP_MM)
  }
  const stackMm = fixed + gaps.reduce((sum, gap) => sum + gap.gapMm, 0)
  return { gaps, stackMm, fits: available >= -1e-6 }
}

/** The room a mount leaves for the stack; null where nothing limits it. */
export function roomOf(project: Project): number | null {
  const limit = depthAtHand(project.mount)
  return limit && Math.max(0, limit.depthMm - limit.clearanceMm)
}

/** Sets the planned gaps; a gap of nothing becomes a glued joint. */
export function fitGaps(project: Project): Project {
  const room = roomOf(project)
  if (room === null) return project
  return planGaps(project, room).gaps.reduce(
    (p, { layerId, gapMm }) =>
      setLayer(p, layerId, { joint: { kind: gapMm > 0 ? 'foam' : 'glue', gapMm, pinned: false } }),
    project,
  )
}
