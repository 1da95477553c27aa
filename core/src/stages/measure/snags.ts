// Findings of the measure stage.
import { length, say, size, type Said } from '../../base/units'
import { boxHeight, boxWidth, regionBox } from '../../base/geometry'
import { builtLayers, pieceRegion, type Project, type Snag } from '../../project'
import { measure, TOLERANCE_MM } from './measure'
import { slipsOf, type Measure } from './slips'

/** Findings of the measuring stage: design against opening and sheet, opening against spacer. */
export function measureSnags(project: Project): Snag[] {
  const m = measure(project)
  const { mount } = project
  const snags: Snag[] = []
  const fit = { label: 'Fit it, proportions locked', action: { kind: 'fit-design' } } as const
  const stop = (code: string, message: Said, more: Partial<Snag> = {}) =>
    snags.push({ code, stage: 'measure', severity: 'stop', layer: null, at: null, message, ...more })
  snags.push(...slipSnags(mount))
  if (mount.kind === 'frame') {
    const { spacer, opening } = mount
    if (opening.widthMm > spacer.widthMm + TOLERANCE_MM || opening.heightMm > spacer.heightMm + TOLERANCE_MM)
      stop(
        'opening-over-spacer',
        'The opening is larger than the spacer: the backing sheet would not reach under the lip. Measure both again.',
        {
          mend: {
            label: say`Take the spacer’s size less ${length(7)} on each side`,
            action: {
              kind: 'set-opening',
              widthMm: Math.max(1, spacer.widthMm - 14),
              heightMm: Math.max(1, spacer.heightMm - 14),
            },
          },
        },
      )
    if (mount.clearanceMm >= mount.depthMm)
      stop('no-depth', 'The clearance takes all of the depth: nothing is left for card and foam.')
  }
  if (!m.design) return snags
  const where = (side: keyof NonNullable<typeof m.borders>): [number, number] => {
    const b = m.design!.box
    const middleX = (b.minX + b.maxX) / 2
    const middleY = (b.minY + b.maxY) / 2
    return {
      left: [b.minX, middleY],
      right: [b.maxX, middleY],
      top: [middleX, b.minY],
      bottom: [middleX, b.maxY],
    }[side] as [number, number]
  }
  if (m.borders) {
    const sides = (['left', 'top', 'right', 'bottom'] as const).filter(
      (side) => m.borders![side] < -TOLERANCE_MM,
    )
    const worst = sides.toSorted((a, b) => m.borders![a] - m.borders![b])[0]
    if (worst) {
      const by = -m.borders[worst]
      const what = m.fullSheets
        ? mount.kind === 'frame'
          ? 'spacer'
          : 'card panel'
        : mount.kind === 'frame'
          ? 'opening'
          : 'card panel'
      stop(
        'design-over-opening',
        say`The design passes the ${what} by ${length(by, 1)} at the ${worst}: the edge would be hidden or would not go in.`,
        {
          at: where(worst),
          mend: fit,
        },
      )
    } else if (
      m.fullSheets &&
      (m.design.widthMm < m.opening!.widthMm || m.design.heightMm < m.opening!.heightMm)
    )
      stop('design-swims', 'The sheets are smaller than the opening: their edges would show.', { mend: fit })
  }
  if (mount.kind === 'topper' && m.design.widthMm > mount.widthMm + TOLERANCE_MM)
    stop(
      'design-over-width',
      say`The design is ${length(m.design.widthMm - mount.widthMm, 1)} wider than the topper may be.`,
      {
        at: where('right'),
        mend: fit,
      },
    )
  const reach = [m.cuttable.widthMm, m.cuttable.heightMm].toSorted((a, b) => a - b)
  for (const layer of builtLayers(project)) {
    for (const piece of layer.pieces) {
      const b = regionBox(pieceRegion(piece))
      const sides = [boxWidth(b), boxHeight(b)].toSorted((a, c) => a - c)
      if (sides[0]! <= reach[0]! + TOLERANCE_MM && sides[1]! <= reach[1]! + TOLERANCE_MM) continue
      stop(
        'piece-over-sheet',
        say`A piece of “${layer.name}” is ${size(boxWidth(b), boxHeight(b))}; the cutter reaches ${size(m.cuttable.widthMm, m.cuttable.heightMm)} of a sheet.`,
        { layer: layer.id, at: [(b.minX + b.maxX) / 2, (b.minY + b.maxY) / 2], mend: fit },
      )
      break
    }
  }
  return snags
}

const WORDS: Record<Measure, string> = {
  spacer: 'A spacer',
  opening: 'An opening',
  panel: 'A card panel',
  width: 'A topper',
  depth: 'A depth',
}

/** Measures that were most likely typed in another unit. */
const slipSnags = (mount: Project['mount']): Snag[] =>
  slipsOf(mount).map(({ measure: which, valueMm, meant, factor }) => ({
    code: 'measure-slip',
    stage: 'measure',
    severity: 'caution',
    layer: null,
    at: null,
    message: say`${WORDS[which]} of ${length(valueMm)} cannot be meant: in ${meant} it would be ${length(valueMm * factor)}.`,
    mend: { label: `It was ${meant}`, action: { kind: 'other-unit', measure: which, factor } },
  }))
