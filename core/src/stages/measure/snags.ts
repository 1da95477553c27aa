// Findings of the measure stage.
import { length, say, size, type Said } from '../../base/units'
import {
  boxHeight,
  boxWidth,
  polygonBox,
  convexHull,
  intersect,
  regionArea,
  regionBox,
  turnWithin,
  ringBox,
  type Box,
  type Polygon,
} from '../../base/geometry'
import {
  backingRect,
  builtLayers,
  insideRing,
  layerBox,
  layerRegion,
  openingRect,
  pieceRegion,
  type Layer,
  type Mount,
  type Project,
  type Snag,
  type Piece,
} from '../../project'
import { measure, sidesWithin, type Sides, type Size } from './measure'
import { boxOf, canCover, isRectangle, partsOf, pictureOf, type Parts } from './parts'
import { partedIn } from './parts-within'
import { slipsOf, type Measure } from './slips'
import { TOLERANCE_MM } from './tolerance'

const SIDES = ['left', 'top', 'right', 'bottom'] as const

/** The side at which least is left, and how much. */
function tightest(sides: Sides): { side: (typeof SIDES)[number]; mm: number } {
  const side = SIDES.toSorted((a, b) => sides[a] - sides[b])[0]!
  return { side, mm: sides[side] }
}

/** The middle of a side of a box. */
function middleOf(b: Box, side: (typeof SIDES)[number]): [number, number] {
  const [x, y] = [(b.minX + b.maxX) / 2, (b.minY + b.maxY) / 2]
  return { left: [b.minX, y], right: [b.maxX, y], top: [x, b.minY], bottom: [x, b.maxY] }[side] as [
    number,
    number,
  ]
}

const NAMES: Record<Mount['kind'], string> = {
  frame: 'spacer',
  card: 'card panel',
  panel: 'panel',
  topper: 'topper',
  garland: 'garland',
  free: 'work',
}

/** Findings about what the work lives in, whatever will live there. */
export const mountSnags = ({ mount }: Project): Snag[] => [...slipSnags(mount), ...frameSnags(mount)]

/** Findings of the measuring stage: each layer against what it is judged by, opening against spacer, pieces against the sheet. */
export function measureSnags(project: Project): Snag[] {
  const m = measure(project)
  const { mount } = project
  const snags: Snag[] = []
  const fit = { label: 'Fit it, proportions locked', action: { kind: 'fit-design' } } as const
  const stop = (code: string, message: Said, more: Partial<Snag> = {}) =>
    snags.push({ code, stage: 'measure', severity: 'stop', layer: null, at: null, message, ...more })
  snags.push(...mountSnags(project))
  if (!m.design) return snags
  const parts = partsOf(project)
  const backing = backingRect(project)
  const opening = openingRect(project)
  if (backing && opening) {
    snags.push(
      ...sheetSnags(project, parts, {
        backing,
        seen: polygonBox(opening),
        factor: m.fitFactor ?? 1,
      }),
    )
    // What lies on sheets with openings may go on behind them, as far as it goes in at all.
    for (const layer of parts.fullSheets ? parts.inside : []) {
      const { side, mm } = tightest(sidesWithin(layerBox(layer), polygonBox(backing)))
      if (mm < -TOLERANCE_MM)
        stop(
          'part-over-spacer',
          say`“${layer.name}” passes the ${NAMES[mount.kind]} by ${length(-mm, 1)} at the ${side}: it would not go in.`,
          {
            layer: layer.id,
            at: middleOf(layerBox(layer), side),
            ...(mostLiesWithin(layer, backing) && { mend: cutOffMend(layer, mount) }),
          },
        )
    }
    if (!parts.fullSheets && m.borders) {
      const { side, mm } = tightest(m.borders)
      const at = middleOf(m.design.box, side)
      const airMm =
        mount.kind === 'frame' || mount.kind === 'card' || mount.kind === 'panel' ? mount.airMm : 0
      const edge = mount.kind === 'frame' ? (mount.mat ? 'mat’s opening' : 'opening') : NAMES[mount.kind]
      if (mm < -TOLERANCE_MM)
        stop(
          'design-over-opening',
          say`The design passes the ${edge} by ${length(-mm, 1)} at the ${side}: ${mount.kind === 'frame' ? 'the edge would be hidden or would not go in' : 'it would stand out over the edge'}.`,
          { at, mend: fit },
        )
      else if (mm < airMm - TOLERANCE_MM)
        snags.push({
          code: 'little-air',
          stage: 'measure',
          severity: 'caution',
          layer: null,
          at,
          message: say`At the ${side} ${length(Math.max(0, mm), 1)} of air is left between the design and the ${edge}; ${length(airMm)} was asked for.`,
          mend: fit,
        })
    }
  }
  const inner = insideRing(project)
  if (inner) snags.push(...ringSnags(parts, polygonBox(inner)))
  if (mount.kind === 'topper' && m.design.widthMm > mount.widthMm + TOLERANCE_MM)
    stop(
      'design-over-width',
      say`The design is ${length(m.design.widthMm - mount.widthMm, 1)} wider than the topper may be.`,
      { at: middleOf(m.design.box, 'right'), mend: fit },
    )
  const { widthMm, heightMm } = m.cuttable
  const reach = [widthMm, heightMm].toSorted((a, b) => a - b)
  const goesAcross = (piece: Piece) =>
    project.plan.turns === 'free' &&
    pieceRegion(piece).every(({ outer }) => turnWithin(convexHull(outer), widthMm, heightMm) !== null)
  const fitted = m.fitFactor === null ? [] : pictureOf(project, parts)
  /** Whether a piece of such sides is within reach once the design is fitted. */
  const fitsFitted = (layer: Layer, sides: readonly number[]) =>
    fitted.includes(layer) && sides.every((side, k) => side * m.fitFactor! <= reach[k]! + TOLERANCE_MM)
  for (const layer of builtLayers(project)) {
    for (const piece of layer.pieces) {
      const b = regionBox(pieceRegion(piece))
      const sides = [boxWidth(b), boxHeight(b)].toSorted((a, c) => a - c)
      if (sides[0]! <= reach[0]! + TOLERANCE_MM && sides[1]! <= reach[1]! + TOLERANCE_MM) continue
      if (goesAcross(piece)) continue
      const inParts = fitsFitted(layer, sides) ? null : inPartsMend(layer, b, m.cuttable)
      const mend = fitsFitted(layer, sides) ? fit : inParts
      stop(
        'piece-over-sheet',
        say`A piece of “${layer.name}” is ${size(boxWidth(b), boxHeight(b))}; the cutter reaches ${size(widthMm, heightMm)} of a sheet.${inParts ? ' Put together of parts, it has its seams where they show least.' : ''}`,
        {
          layer: layer.id,
          at: [(b.minX + b.maxX) / 2, (b.minY + b.maxY) / 2],
          ...(mend && { mend }),
        },
      )
      break
    }
  }
  return snags
}

/** Cut in parts, a piece is within reach; null where it cannot be. */
function inPartsMend(layer: Layer, box: Box, reach: Size): NonNullable<Snag['mend']> | null {
  const parts = partedIn(layer, box, reach)
  return (
    parts && {
      label: `Cut it in ${parts[0] * parts[1]} parts`,
      action: { kind: 'cut-in-parts', layerId: layer.id, ...reach },
    }
  )
}

/** The measures of a frame against each other. */
function frameSnags(mount: Mount): Snag[] {
  if (mount.kind !== 'frame') return []
  const snags: Snag[] = []
  const stop = (code: string, message: Said, mend?: Snag['mend']) =>
    snags.push({
      code,
      stage: 'measure',
      severity: 'stop',
      layer: null,
      at: null,
      message,
      ...(mend ? { mend } : {}),
    })
  const { spacer, opening, openingShift, mat, ring } = mount
  const passes =
    opening.widthMm + 2 * Math.abs(openingShift.xMm) > spacer.widthMm + TOLERANCE_MM ||
    opening.heightMm + 2 * Math.abs(openingShift.yMm) > spacer.heightMm + TOLERANCE_MM
  if (passes)
    stop(
      'opening-over-spacer',
      openingShift.xMm === 0 && openingShift.yMm === 0
        ? 'The opening is larger than the spacer: the backing sheet would not reach under the lip. Measure both again.'
        : 'The opening reaches past the spacer: the backing sheet would not reach under the lip. Measure again where it sits.',
      {
        label: say`Take the spacer’s size less ${length(7)} on each side`,
        action: {
          kind: 'set-opening',
          widthMm: Math.max(1, spacer.widthMm - 14),
          heightMm: Math.max(1, spacer.heightMm - 14),
        },
      },
    )
  if (mat && (mat.opening.widthMm > spacer.widthMm || mat.opening.heightMm > spacer.heightMm))
    stop('mat-over-spacer', 'The opening of the mat is larger than the spacer: no mat would be left.')
  if (mount.clearanceMm + (mat?.thicknessMm ?? 0) >= mount.depthMm)
    stop('no-depth', 'The clearance takes all of the depth: nothing is left for card and foam.')
  if (ring.kept && ring.heightMm > mount.depthMm + TOLERANCE_MM)
    stop(
      'ring-too-high',
      say`The spacer is ${length(ring.heightMm)} high and the frame ${length(mount.depthMm)} deep: it would not close.`,
      { label: 'Leave the spacer out', action: { kind: 'leave-spacer' } },
    )
  if (ring.kept && 2 * ring.wallMm >= Math.min(spacer.widthMm, spacer.heightMm))
    stop('ring-too-thick', 'The walls of the spacer leave nothing between them. Measure them again.')
  return snags
}

/** Sheets against the spacer or the panel, and their openings against what is seen; the factor is by how much fitting would scale all. */
function sheetSnags(
  project: Project,
  parts: Parts,
  { backing: board, seen, factor }: { backing: Polygon; seen: Box; factor: number },
): Snag[] {
  const { mount } = project
  const { kind } = mount
  const { sheets } = parts
  const backing = polygonBox(board)
  const snags: Snag[] = []
  const all = boxOf(sheets)
  const isWhole = !parts.isToSize && sheets.length > 1 && canCover(all, backing, seen)
  for (const layer of sheets) {
    const box = layerBox(layer)
    const over = tightest(sidesWithin(box, backing))
    const swims = tightest(sidesWithin(seen, box))
    const isAll = isWhole && boxWidth(box) > boxWidth(all) * 0.995 && boxHeight(box) > boxHeight(all) * 0.995
    const own = {
      stage: 'measure' as const,
      severity: 'stop' as const,
      layer: layer.id,
      mend: isAll
        ? ({ label: 'Fit them, proportions locked', action: { kind: 'fit-design' } } as const)
        : fitSheetMend(layer),
    }
    if (over.mm < -TOLERANCE_MM)
      snags.push({
        ...own,
        ...(parts.isToSize &&
          !isBare(layer) &&
          mostLiesWithin(layer, board) && { mend: cutOffMend(layer, mount) }),
        code: 'sheet-over-spacer',
        at: middleOf(box, over.side),
        message: say`“${layer.name}” passes the ${NAMES[kind]} by ${length(-over.mm, 1)} at the ${over.side}: it would not go in.`,
      })
    else if (isRectangle(layer) && swims.mm < -TOLERANCE_MM)
      snags.push({
        ...own,
        // Of other proportions than what is seen it would swim fitted as well.
        ...(isAll && !fills(box, seen, factor) && { mend: fitSheetMend(layer) }),
        code: 'design-swims',
        at: middleOf(box, swims.side),
        message: say`“${layer.name}” ends ${length(-swims.mm, 1)} inside what is seen at the ${swims.side}: its edge would show.`,
      })
    if (kind === 'frame')
      for (const hole of layerRegion(layer).flatMap((face) => face.holes)) {
        const under = sidesWithin(ringBox(hole), seen)
        // Past the lip on one side it may be meant so; on all, nothing of its edge is to be seen.
        if (SIDES.some((side) => under[side] > -TOLERANCE_MM)) continue
        const { side, mm } = tightest(under)
        snags.push({
          ...own,
          severity: 'caution',
          code: 'opening-under-lip',
          at: middleOf(ringBox(hole), side),
          message: say`The opening of “${layer.name}” is larger than what is seen, by ${length(-mm, 1)} at the ${side}: its edge is hidden all round.`,
          mend: {
            label: 'Draw it in to the air asked for',
            action: { kind: 'fit-opening', layerId: layer.id },
          },
        })
      }
  }
  // What is wrong with all sheets alike is said once.
  const said = new Set<string>()
  return snags.filter(({ code, mend }) => {
    const isNew = mend?.action.kind !== 'fit-design' || !said.has(code)
    said.add(code)
    return isNew
  })
}

const fitSheetMend = (layer: Layer): NonNullable<Snag['mend']> => ({
  label: 'Make it the size of the backing',
  action: { kind: 'fit-sheet', layerId: layer.id },
})

/** Whether at least half of its card is left of a layer when it is cut off at the edge of what it lives in. */
const mostLiesWithin = (layer: Layer, backing: Polygon): boolean => {
  const region = layerRegion(layer)
  return layer.blanks.length === 0 && regionArea(intersect(region, [backing])) * 2 > regionArea(region)
}

/** Four edges and nothing else: it is as soon cut anew. */
const isBare = (layer: Layer): boolean => {
  const region = layerRegion(layer)
  const { minX, minY, maxX, maxY } = layerBox(layer)
  const isOneFace = region.length === 1 && region[0]!.holes.length === 0
  return isOneFace && regionArea(region) > (maxX - minX) * (maxY - minY) * 0.9999
}

const cutOffMend = ({ id }: Layer, { kind }: Mount): NonNullable<Snag['mend']> => ({
  label: `Cut off what passes the ${NAMES[kind]}`,
  action: { kind: 'cut-off', layerId: id },
})

/** Whether a box that is scaled is as large as another. */
const fills = (box: Box, other: Box, factor: number): boolean =>
  boxWidth(box) * factor > boxWidth(other) - TOLERANCE_MM &&
  boxHeight(box) * factor > boxHeight(other) - TOLERANCE_MM

/** What does not go inside the kept spacer. The backmost sheet lies under it. */
function ringSnags({ sheets, inside }: ReturnType<typeof partsOf>, inner: Box): Snag[] {
  const raised = [...sheets.slice(1), ...inside].filter(
    (layer) => tightest(sidesWithin(layerBox(layer), inner)).mm < -TOLERANCE_MM,
  )
  if (raised.length === 0) return []
  const worst = raised.toSorted(
    (a, b) => tightest(sidesWithin(layerBox(a), inner)).mm - tightest(sidesWithin(layerBox(b), inner)).mm,
  )[0]!
  const { side, mm } = tightest(sidesWithin(layerBox(worst), inner))
  return [
    {
      code: 'spacer-in-the-way',
      stage: 'measure',
      severity: 'stop',
      layer: worst.id,
      at: middleOf(layerBox(worst), side),
      message: say`${raised.length === 1 ? `“${worst.name}” does` : `${raised.length} layers do`} not go inside the spacer: its walls leave ${size(boxWidth(inner), boxHeight(inner))}, “${worst.name}” passes that by ${length(-mm, 1)} at the ${side}.`,
      mend: { label: 'Leave the spacer out', action: { kind: 'leave-spacer' } },
    },
  ]
}

const WORDS: Record<Measure, string> = {
  spacer: 'A spacer',
  opening: 'An opening',
  panel: 'A panel',
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
