// Loose bits to keep, papers that run short, pieces pinned or grown to where they may not lie.
import { regionBox, type Box } from '../../../base/geometry'
import { say, size } from '../../../base/units'
import {
  cutLayers,
  cutPieces,
  findLayer,
  layerBox,
  pieceRegion,
  type Layer,
  type Paper,
  type Project,
  type Snag,
} from '../../../project'
import { groupBy } from '../../../base'
import { partedIn } from '../../measure'
import { matWords } from '../loads/mat-words'
import type { Load } from '../loads/loads'
import { buyWords, sheetsNeeded } from '../loads/needed'
import { whyIllegal } from '../nest/exact/legal'
import { isStandIn, type NestedRun } from '../runs/paper-runs'
import { splitPartId } from '../runs/parts'
import type { TooLarge } from '../runs/too-large'

/** Findings of the sheets stage: loose bits to keep, papers that run short. */
export function sheetSnags(project: Project, runs: readonly NestedRun[], list: readonly Load[]): Snag[] {
  const snags: Snag[] = [...pinSnags(project, runs), ...looseSnags(project, list)]
  snags.push(...matSnags(list))
  for (const need of sheetsNeeded(list))
    if (need.buy > 0 && !isStandIn(need.paper))
      snags.push({
        code: 'short-of-paper',
        stage: 'sheets',
        severity: 'caution',
        layer: null,
        at: null,
        message: `${need.sheets} ${need.sheets === 1 ? 'sheet' : 'sheets'} of ${need.paper.name} needed, ${need.paper.count} at hand: buy ${buyWords(need)}.`,
      })
  return snags
}

/** Small pieces that come off the mat by themselves, of all loads in one finding: whoever weeds has them in mind from load to load. */
function looseSnags(project: Project, list: readonly Load[]): Snag[] {
  const loads = list
    .map((load) => ({ load, loose: load.pieces.filter((piece) => piece.loose) }))
    .filter(({ loose }) => loose.length > 0)
  const [first] = loads
  if (!first) return []
  const count = loads.reduce((sum, { loose }) => sum + loose.length, 0)
  const bits = `${count} loose ${count === 1 ? 'bit' : 'bits'} to keep when weeding`
  return [
    {
      code: 'loose-bits',
      stage: 'sheets',
      severity: 'caution',
      layer: ownLayer(project, first.loose[0]!.layerId),
      at: null,
      message:
        loads.length === 1
          ? `Load ${first.load.number} has ${bits} (${first.load.paper.name}).`
          : `Loads ${loads.map(({ load, loose }) => `${load.number} (${loose.length})`).join(', ')} have ${bits}.`,
    },
  ]
}

/** Mats at hand that are not what loads ask for: a finding a mat. */
function matSnags(list: readonly Load[]): Snag[] {
  const byMat = groupBy(
    list.filter(({ mat }) => mat !== null && mat.mind.length > 0),
    (load) => [load.mat!.matId, ...load.mat!.mind].join(' '),
  )
  return [...byMat.values()].map((loads): Snag => {
    const { mat, mind } = matWords(loads[0]!)
    const numbers = loads.map(({ number }) => number).join(', ')
    return {
      code: 'mat',
      stage: 'sheets',
      severity: 'caution',
      layer: null,
      at: null,
      message: `${loads.length === 1 ? 'Load' : 'Loads'} ${numbers} on ${mat}: ${mind.join('; ')}.`,
    }
  })
}

/** Pieces pinned by hand to where they may not lie. */
function pinSnags(project: Project, runs: readonly NestedRun[]): Snag[] {
  return runs.flatMap(({ run }) =>
    (run.instance.pinned ?? []).flatMap((pin): Snag[] => {
      const why = whyIllegal(run.instance, pin, run.instance.pinned ?? [])
      if (!why) return []
      const { layerId, pieceId } = splitPartId(pin.id)
      const name = cutLayers(project).find((layer) => layer.id === layerId)?.layer.name ?? layerId
      return [
        {
          code: 'pin-illegal',
          stage: 'sheets',
          severity: 'stop',
          layer: ownLayer(project, layerId),
          at: null,
          message: say`A pinned piece of “${name}” ${why}.`,
          mend: { label: 'Take the pin out', action: { kind: 'drop-pin', layerId, pieceId, copy: pin.copy } },
        },
      ]
    }),
  )
}

/** The layer where it is the project's own, and no guest's. */
const ownLayer = (project: Project, layerId: string): string | null =>
  project.layers.some((layer) => layer.id === layerId) ? layerId : null

/** Pieces that are larger than any sheet of their paper, a finding a paper. */
export function tooLargeSnags(project: Project, runs: readonly NestedRun[]): Snag[] {
  const layers = new Map(cutLayers(project).map(({ id, layer }) => [id, layer]))
  return runs.flatMap(({ run: { paper, tooLarge } }): Snag[] => {
    if (!tooLarge) return []
    const { parts, widthMm, heightMm } = tooLarge
    const byLayer = groupBy(parts.map(splitPartId), ({ layerId }) => layerId)
    const names = [...byLayer].flatMap(([id, own]) => {
      const layer = layers.get(id)
      if (!layer) return []
      const all = own.length === cutPieces(layer).length
      return [
        all
          ? `“${layer.name}”`
          : `${own.length === 1 ? 'a piece' : `${own.length} pieces`} of “${layer.name}”`,
      ]
    })
    const told = names.length > 3 ? [...names.slice(0, 3), `${names.length - 3} more`] : names
    const listed = [told.slice(0, -1).join(', '), told.at(-1)].filter(Boolean).join(' and ')
    const own = [...byLayer.keys()].flatMap((id) => findLayer(project, id) ?? [])[0]
    const box = own && boxOf(own, byLayer.get(own.id)![0]!.pieceId)
    const isAnyCut = widthMm > 0 && heightMm > 0
    return [
      {
        code: 'piece-too-large',
        stage: 'sheets',
        severity: 'stop',
        layer: own?.id ?? null,
        at: box ? [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2] : null,
        message: isAnyCut
          ? say`${paper.name}: ${listed} ${parts.length === 1 ? 'is' : 'are'} larger than the ${size(widthMm, heightMm)} that can be cut of a sheet, and not laid. ${wayOut(paper, tooLarge)}`
          : `${paper.name}: the rim that the blade does not reach leaves nothing of a sheet to cut, so that ${listed} ${parts.length === 1 ? 'is' : 'are'} not laid. Take a larger sheet, or measure the rim anew.`,
        ...(mendOf(paper, tooLarge) ?? inPartsMend(project, { paper, tooLarge, ids: [...byLayer.keys()] })),
      },
    ]
  })
}

function wayOut({ oneWay }: Paper, { parts, fitTurned }: TooLarge): string {
  const other = 'take a larger sheet or scale the design.'
  if (fitTurned === 0) return `T${other.slice(1)}`
  const [all, it] = [fitTurned === parts.length, parts.length === 1 ? 'it' : 'they']
  const turned = all ? `Turned ${it} would fit` : `${fitTurned} of ${parts.length} would fit turned`
  if (oneWay) return `${turned}, but this paper lies one way only: ${other}`
  return all ? `${turned}.` : `${turned}; for the others ${other}`
}

/** One press that lets pieces be turned, where that brings some onto a sheet. */
const mendOf = ({ oneWay }: Paper, { fitTurned }: TooLarge): Pick<Snag, 'mend'> | null =>
  fitTurned > 0 && !oneWay
    ? { mend: { label: 'Let pieces lie at any turn', action: { kind: 'turn-freely' } } }
    : null

/** One press that has the first layer whose pieces are too large put together of parts; what is rolled or folded is not cut apart. */
function inPartsMend(
  project: Project,
  { paper, tooLarge, ids }: { paper: Paper; tooLarge: TooLarge; ids: readonly string[] },
): Pick<Snag, 'mend'> {
  const { parts, widthMm, heightMm } = tooLarge
  if (paper.oneWay || project.plan.turns === 'fixed') return {}
  const layer = ids
    .flatMap((id) => findLayer(project, id) ?? [])
    .find((one) => {
      const own = parts.map(splitPartId).filter(({ layerId }) => layerId === one.id)
      const boxes = own.map(({ pieceId }) => boxOf(one, pieceId))
      return !one.inOne && boxes.every((box) => partedIn(one, box, { widthMm, heightMm }))
    })
  if (!layer) return {}
  return {
    mend: {
      label: `Put “${layer.name}” together of parts`,
      action: { kind: 'cut-in-parts', layerId: layer.id, widthMm, heightMm },
    },
  }
}

/** What a part of a layer takes: a piece, or all of them where they are laid as one. */
function boxOf(layer: Layer, pieceId: string): Box {
  const piece = cutPieces(layer).find(({ id }) => id === pieceId)
  return piece ? regionBox(pieceRegion(piece)) : layerBox(layer)
}
