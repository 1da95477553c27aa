// Pads that the maker puts, turns and takes away; the plan of the others goes round them.
import { mapPoint, meanScale, type Affine } from '../base/geometry'
import type { HandPad, Project } from './schema'
import { setPlan } from './set-plan'

/** Puts a pad, or moves and changes one that was put before. */
export const putPad = (project: Project, pad: HandPad): Project =>
  setPlan(project, { handPads: [...project.plan.handPads.filter(({ id }) => id !== pad.id), pad] })

/** Leaves the place of a pad to the plan again. */
export const letPadGo = (project: Project, id: string): Project =>
  setPlan(project, { handPads: project.plan.handPads.filter((pad) => pad.id !== id) })

/** Keeps a spot under a layer free of planned pads (mm). */
export const keepPadFree = (project: Project, spot: Project['plan']['padFree'][number]): Project =>
  setPlan(project, { padFree: [...project.plan.padFree, spot] })

/** Forgets all that the maker decided about the pads of a layer. */
export const padsToPlan = (project: Project, layerId: string): Project =>
  setPlan(project, {
    handPads: project.plan.handPads.filter((pad) => pad.layerId !== layerId),
    padFree: project.plan.padFree.filter((spot) => spot.layerId !== layerId),
  })

/** Takes the pads of some layers along with them, where they are moved, turned or sized. */
export function movePads({ plan }: Project, map: Affine, isMoved: (layerId: string) => boolean) {
  const [a, b, c, d] = map
  /** A pad's own way along, as the map turns it; a bend is sized along, and mirrored it is to the other side. */
  const turned = (pad: HandPad): HandPad => {
    const t = (pad.rotation * Math.PI) / 180
    const way = Math.atan2(b * Math.cos(t) + d * Math.sin(t), a * Math.cos(t) + c * Math.sin(t))
    const side = a * d - b * c < 0 ? -1 : 1
    const bendMm = pad.bendMm === null ? null : side * meanScale(map) * pad.bendMm
    return { ...pad, rotation: (way * 180) / Math.PI, bendMm }
  }
  const moved = <T extends { layerId: string; x: number; y: number }>(one: T): T => {
    if (!isMoved(one.layerId)) return one
    const [x, y] = mapPoint(map, one.x, one.y)
    return { ...one, x, y }
  }
  return {
    handPads: plan.handPads.map(moved).map((pad) => (isMoved(pad.layerId) ? turned(pad) : pad)),
    padFree: plan.padFree.map(moved),
  }
}
