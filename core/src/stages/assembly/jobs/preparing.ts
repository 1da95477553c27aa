// What comes before anything is stuck: sheets are cut and weeded, layers coloured, scored, formed, film is pressed on.
import { isPressed, cutPieces, paperOf, type Layer } from '../../../project'
import { carriersOf, pressesOf } from '../../depth'
import type { Untold } from '../task'
import { BENCH } from '../times'
import { isFolded, isShaped, isColoured, afterColour } from './kinds'
import { type Known, job } from './known'

/** Everything laid ready, so many pads among it; then every load printed, cut and weeded, in their order. */
export function cutting({ project, loads }: Known, pads: number): Untold[] {
  const { tool, loadMin } = project.drawer.cutter
  const jobs = [
    job({
      id: 'prepare',
      kind: 'prepare',
      about: { step: 'prepare', sheets: loads.length, pads },
      after: [],
      minutes: BENCH.prepareMinutes,
    }),
  ]
  loads.forEach((load, i) => {
    const loose = load.pieces.filter((piece) => piece.loose).length
    const holes = load.pieces.reduce((total, piece) => total + piece.shape.holes.length, 0)
    const printed = load.pieces.filter((piece) => piece.printed).length
    if (printed > 0)
      jobs.push(
        job({
          id: `print-${load.id}`,
          kind: 'print',
          about: { step: 'print', load, pieces: printed },
          after: ['prepare'],
          minutes: BENCH.printMinutes,
          loadId: load.id,
        }),
        job({
          id: `ink-${load.id}`,
          kind: 'dry',
          about: { step: 'ink', load },
          after: [`print-${load.id}`],
          needs: [],
          minutes: BENCH.inkMinutes,
          loadId: load.id,
        }),
      )
    jobs.push(
      job({
        id: `cut-${load.id}`,
        kind: 'cut',
        about: { step: 'cut', load, first: i === 0 },

        after: [i === 0 ? 'prepare' : `cut-${loads[i - 1]!.id}`, ...(printed > 0 ? [`ink-${load.id}`] : [])],
        // A knife is in the hand: nothing else goes on meanwhile.
        needs: [tool === 'knife' ? 'hands' : 'cutter'],
        minutes: load.minutes,
        ...(tool === 'knife' ? {} : { handsMin: loadMin }),
        loadId: load.id,
      }),
      job({
        id: `weed-${load.id}`,
        kind: 'weed',
        about: { step: 'weed', load, pieces: load.pieces.length, holes, loose },

        after: [`cut-${load.id}`],
        minutes: BENCH.peelMinutes + (holes * BENCH.weedSeconds + loose * BENCH.looseSeconds) / 60,
        loadId: load.id,
      }),
    )
  })
  return jobs
}

/** Folds are scored while a piece lies flat, before anything is tried on. */
export const scoring = ({ loads }: Known, layers: readonly Layer[]): Untold[] =>
  layers.filter(isFolded).map((layer) =>
    job({
      id: `score-${layer.id}`,
      kind: 'score',
      about: { step: 'score', layer },

      after: loads
        .filter((load) => load.pieces.some((piece) => piece.layerId === layer.id))
        .map((load) => `weed-${load.id}`),
      minutes: BENCH.takeUpMinutes + layer.folds.length * BENCH.scoreMinutes,
      layerId: layer.id,
    }),
  )

/** What is coloured by hand is coloured flat, and dries, before it is formed or tried on. */
export const colouring = ({ project, loads }: Known, layers: readonly Layer[]): Untold[] =>
  layers.filter(isColoured).flatMap((layer): Untold[] => {
    const { inks } = project.drawer
    const ink = inks.find(({ id }) => id === layer.tint!.inkId) ?? null
    const edge = inks.find(({ id }) => id === layer.tint!.edgeInkId) ?? null
    const minutes = Math.max(ink?.dryMin ?? 0, edge?.dryMin ?? 0)
    const one = job({
      id: `colour-${layer.id}`,
      kind: 'colour',
      about: { step: 'colour', layer, ink, edge },

      after: loads
        .filter((load) => load.pieces.some((piece) => piece.layerId === layer.id))
        .map((load) => `weed-${load.id}`),
      minutes: (BENCH.colourMinutes + (edge ? BENCH.colourEdgeMinutes : 0)) * layer.copies,
      layerId: layer.id,
    })
    return minutes > 0
      ? [
          one,
          job({
            id: `coloured-${layer.id}`,
            kind: 'dry',
            about: { step: 'colour-dries', layer, minutes },
            after: [one.id],
            needs: [],
            minutes,
            layerId: layer.id,
          }),
        ]
      : [one]
  })

/** What hands form is formed when it is cut, and folded where it is. */
export const shapings = ({ loads }: Known, layers: readonly Layer[]): Untold[] =>
  layers.filter(isShaped).map((layer) =>
    job({
      id: `shape-${layer.id}`,
      kind: 'shape',
      about: { step: 'shape', layer },

      after: isColoured(layer)
        ? [...afterColour(layer), ...(isFolded(layer) ? [`score-${layer.id}`] : [])]
        : isFolded(layer)
          ? [`score-${layer.id}`]
          : loads
              .filter((load) => load.pieces.some((piece) => piece.layerId === layer.id))
              .map((load) => `weed-${load.id}`),
      minutes:
        BENCH.takeUpMinutes +
        cutPieces(layer).length *
          layer.copies *
          (layer.shaping.how === 'roll' ? BENCH.rollMinutes : BENCH.curlMinutes),
      layerId: layer.id,
    }),
  )

/** Film is pressed onto its card while that is flat and on no foam; both are weeded, and what is coloured is dry. */
export const pressings = (known: Known, layers: readonly Layer[]): Untold[] =>
  layers.filter(isPressed).map((layer) => {
    const { project, loads, depth } = known
    const under = depth
      ? carriersOf(project, depth.pieces, layer)
      : layers.slice(0, layers.indexOf(layer)).slice(-1)
    const ids = [layer, ...under].map(({ id }) => id)
    const press = paperOf(project, layer)?.press ?? null
    const presses = pressesOf(project, layer)
    return job({
      id: `press-${layer.id}`,
      kind: 'press',
      about: { step: 'press', layer, onto: under, press, presses },

      after: [
        ...loads
          .filter((load) => load.pieces.some((piece) => ids.includes(piece.layerId)))
          .map((load) => `weed-${load.id}`),
        ...under.flatMap(afterColour),
        // A film that lies on a film comes after it.
        ...under.filter(isPressed).map(({ id }) => `press-${id}`),
      ],
      minutes:
        BENCH.plateMinutes +
        layer.copies *
          (presses * (BENCH.pressMinutes + (press?.seconds ?? BENCH.pressSeconds) / 60) +
            (press?.peel === 'hot' ? 0 : BENCH.coolMinutes)),
      layerId: layer.id,
    })
  })
