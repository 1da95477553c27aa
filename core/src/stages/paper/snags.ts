// Findings of the paper stage.
import {
  ASSUMED_PAPER,
  builtLayers,
  cutPieces,
  colourOf,
  paperOf,
  type Layer,
  type Paper,
  type Project,
  type Snag,
} from '../../project'
import { fresh, type Memo } from '../../base'
import { say, weight } from '../../base/units'
import { isDear, isDearPaper, type VisibleArea } from '../layers'
import { colouredLayers, fitting, neighbourSteps, usable } from './assign'
import { colourDifference, nearestPaper, TOO_ALIKE } from './colour'
import { unevenSteps } from './ramps'

/** Findings of the paper stage. The stock is what other papers there are to swap to. */
export function paperSnags(project: Project, stock: readonly Paper[], memo: Memo = fresh): Snag[] {
  const snags: Snag[] = []
  const assumed = say`${ASSUMED_PAPER.finish} ${weight(ASSUMED_PAPER.gsm)}`
  const bare = builtLayers(project).filter((layer) => !paperOf(project, layer))
  if (bare.length > 0)
    snags.push({
      code: 'no-paper',
      stage: 'paper',
      severity: 'caution',
      layer: bare[0]!.id,
      at: null,
      message:
        bare.length === 1
          ? say`Layer “${bare[0]!.name}” has no paper yet; ${assumed} is assumed.`
          : say`${bare.length} layers have no paper yet; ${assumed} is assumed.`,
      mend: {
        label: 'Take the nearest papers in the drawer',
        action: { kind: 'nearest-papers', layerIds: bare.map((l) => l.id) },
      },
    })
  for (const { below, above, difference } of neighbourSteps(project)) {
    if (difference >= TOO_ALIKE) continue
    const swap = swapFor(project, { layer: above, stock }, memo)
    snags.push({
      code: 'too-alike',
      stage: 'paper',
      severity: 'caution',
      layer: above.id,
      at: null,
      message: `“${below.name}” and “${above.name}” are too alike to tell apart (difference ${difference.toFixed(1)}; ${TOO_ALIKE} or more is safe).`,
      ...(swap
        ? {
            mend: {
              label: `Take ${swap.name} for “${above.name}”`,
              action: { kind: 'swap-paper' as const, layerId: above.id, paperId: swap.id },
            },
          }
        : {}),
    })
  }
  for (const { below, above, step, usual, swap } of unevenSteps(project, stock))
    snags.push({
      code: 'uneven-ramp',
      stage: 'paper',
      severity: 'caution',
      layer: above.id,
      at: null,
      message: `The colours run on from sheet to sheet, but the step from “${below.name}” to “${above.name}” is ${step.toFixed(1)} where ${usual.toFixed(1)} is usual: the eye sees an ${step > usual ? 'edge' : 'even patch'} there.`,
      ...(swap
        ? {
            mend: {
              label: `Take ${swap.paper.name} for “${swap.layer.name}”`,
              action: { kind: 'swap-paper' as const, layerId: swap.layer.id, paperId: swap.paper.id },
            },
          }
        : {}),
    })
  return snags
}

/** Colours of the layers right behind and right before a layer. */
function neighboursOf(project: Project, layer: Layer): string[] {
  const layers = colouredLayers(project)
  const i = layers.indexOf(layer)
  return i < 0 ? [] : [layers[i - 1], layers[i + 1]].flatMap((l) => (l ? colourOf(project, l) : []))
}

/** Whether a paper stands clear of colours beside it, by so much more than is told. */
const isClearOf = (neighbours: readonly string[], { colour }: Paper, more = 0): boolean =>
  neighbours.every((c) => colourDifference(c, colour) >= TOO_ALIKE + more)

/** The paper nearest to a layer's own that stands clear of both its neighbours; film for film, card for card, and no dear one for a plain one. */
function swapFor(
  project: Project,
  { layer, stock }: { layer: Layer; stock: readonly Paper[] },
  memo: Memo,
): Paper | undefined {
  const neighbours = neighboursOf(project, layer)
  const own = colourOf(project, layer)
  const isFilm = Boolean(paperOf(project, layer)?.press)
  const mayBeDear = isDear(project, layer)
  const { rimMm } = project.drawer.cutter
  const said = [own, layer.paperId, isFilm, mayBeDear, neighbours, stock, cutPieces(layer), rimMm]
  return memo('paper to swap to', said, () =>
    usable(stock, fitting(project, [layer]))
      .filter(
        (p) =>
          p.id !== layer.paperId &&
          (p.press !== null) === isFilm &&
          (mayBeDear || !isDearPaper(p)) &&
          isClearOf(neighbours, p, 2),
      )
      .map((paper) => ({ paper, difference: colourDifference(own, paper.colour) }))
      .toSorted((a, b) => a.difference - b.difference)
      .at(0),
  )?.paper
}

/** Dear sheets of which next to nothing is seen: a plain one does as well. */
export function dearSnags(
  project: Project,
  visible: readonly VisibleArea[],
  stock: readonly Paper[],
): Snag[] {
  return builtLayers(project).flatMap((layer): Snag[] => {
    const seen = visible.find((v) => v.id === layer.id)
    const paper = paperOf(project, layer)
    if (
      !seen ||
      !paper ||
      !isDear(project, layer) ||
      seen.areaMm2 === 0 ||
      seen.visibleMm2 / seen.areaMm2 > 0.15
    )
      return []
    const smooth = stock.filter((p) => p.finish === 'smooth')
    const neighbours = neighboursOf(project, layer)
    const fits = smooth.filter(fitting(project, [layer]))
    const able = fits.length > 0 ? fits : smooth
    const clear = able.filter((p) => isClearOf(neighbours, p))
    const plain = nearestPaper(paper.colour, clear.length > 0 ? clear : able)
    return [
      {
        code: 'dear-but-hidden',
        stage: 'paper',
        severity: 'caution',
        layer: layer.id,
        at: null,
        message: `Only ${Math.round((seen.visibleMm2 / seen.areaMm2) * 100)} % of “${layer.name}” is seen: a plain sheet would do in place of ${paper.name}.`,
        ...(plain
          ? {
              mend: {
                label: `Take ${plain.name}`,
                action: { kind: 'swap-paper' as const, layerId: layer.id, paperId: plain.id },
              },
            }
          : {}),
      },
    ]
  })
}
