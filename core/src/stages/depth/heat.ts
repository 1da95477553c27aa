// Film that is pressed on by heat: what it lies on, how often the plate is set down, and what would spoil it. Lengths in mm.
import { boxHeight, boxWidth, intersect, regionArea } from '../../base/geometry'
import { length, say } from '../../base/units'
import { builtLayers, isPressed, layerBox, paperOf, type Layer, type Project, type Snag } from '../../project'
import type { PieceHeight } from './heights'

/** Supports that differ by more are not pressed evenly, mm. */
const EVEN_MM = 0.05
/** Less of a film than this may lie over nothing. */
const BARE = 0.03
/** What is this near beneath is touched. */
const TOUCHES_MM = 1e-3
/** What warps or melts under a hot plate. */
const MELTS = ['acetate', 'craft foam'] as const

/** How often the plate is set down to cover all of a film. */
export function pressesOf(project: Project, layer: Layer): number {
  const box = layerBox(layer)
  const { widthMm, heightMm } = project.plan.plate
  const [w, h] = [boxWidth(box), boxHeight(box)]
  const times = (pw: number, ph: number) => Math.max(1, Math.ceil(w / pw)) * Math.max(1, Math.ceil(h / ph))
  return Math.min(times(widthMm, heightMm), times(heightMm, widthMm))
}

/** Layers that a film is pressed onto: those right beneath it that its pieces lie on. */
export function carriersOf(project: Project, pieces: readonly PieceHeight[], film: Layer): Layer[] {
  const own = pieces.filter((piece) => piece.layer.id === film.id)
  const layers = builtLayers(project)
  const below = layers.slice(
    0,
    layers.findIndex(({ id }) => id === film.id),
  )
  return below.filter((layer) =>
    own.some((piece) =>
      pieces.some(
        (other) =>
          other.layer.id === layer.id &&
          Math.abs(other.topMm - piece.bottomMm) < TOUCHES_MM &&
          regionArea(intersect(piece.region, other.region)) > 0,
      ),
    ),
  )
}

/** Findings about film that is pressed on. */
export function heatSnags(project: Project, pieces: readonly PieceHeight[]): Snag[] {
  return builtLayers(project)
    .filter(isPressed)
    .flatMap((film): Snag[] => {
      const about = { stage: 'depth', severity: 'caution', layer: film.id, at: null } as const
      const own = pieces.filter((piece) => piece.layer.id === film.id)
      const snags: Snag[] = []
      const paper = paperOf(project, film)
      if (!paper?.press)
        snags.push({
          ...about,
          code: 'press-unknown',
          message: `How hot and how long “${film.name}” is pressed is not noted for ${paper ? `“${paper.name}”` : 'its film'}: its label says.`,
        })
      if (!film.cutMirrored)
        snags.push({
          ...about,
          code: 'film-not-mirrored',
          severity: 'stop',
          message: `“${film.name}” is cut as it is seen: film that is pressed on is cut from behind, and would lie the wrong way round.`,
          mend: { label: 'Cut it in the mirror', action: { kind: 'cut-mirrored', layerId: film.id } },
        })
      const tops = own.flatMap(({ supports }) => supports.map(({ topMm }) => topMm))
      const carried = own.reduce(
        (sum, { supports }) => sum + supports.reduce((s, { region }) => s + regionArea(region), 0),
        0,
      )
      const whole = own.reduce((sum, { region }) => sum + regionArea(region), 0)
      const apartMm = tops.length > 0 ? Math.max(...tops) - Math.min(...tops) : 0
      if (apartMm > EVEN_MM)
        snags.push({
          ...about,
          code: 'press-uneven',
          message: say`“${film.name}” lies on card of different heights, ${length(apartMm, 1)} apart: a hot plate bears on the highest only.`,
        })
      else if (whole > 0 && carried < (1 - BARE) * whole)
        snags.push({
          ...about,
          code: 'press-bare',
          message: `“${film.name}” reaches over nothing in places: film sticks only where card lies under it.`,
        })
      const soft = carriersOf(project, pieces, film).find((layer) =>
        (MELTS as readonly string[]).includes(paperOf(project, layer)?.finish ?? ''),
      )
      if (soft)
        snags.push({
          ...about,
          code: 'press-melts',
          severity: 'stop',
          message: `“${film.name}” is pressed onto “${soft.name}”, which is ${paperOf(project, soft)!.finish}: it warps or melts under a hot plate.`,
          mend: {
            label: 'Glue it instead',
            action: { kind: 'set-joint', layerId: film.id, joint: 'glue', gapMm: 0 },
          },
        })
      return snags
    })
}
