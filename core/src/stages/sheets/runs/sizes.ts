// One paper in sheets of several sizes: how many of each to cut into.
import { polygonArea, rectangle } from '../../../base/geometry'
import { type Cutter, type Paper } from '../../../project'
import { BadInput, fresh, type Memo } from '../../../base'
import type { NestInstance, OffCutSheet } from '../nest/instance'
import { Nester } from '../nest/nester'
import { namesOf } from './names'

/** What a layout is cut of: any number of sheets of one size, and before them some of other sizes. */
export interface SheetMix {
  main: Paper
  others: Paper[]
}

/** Steps that tell whether a mix suffices: fewer where many pieces make each long. */
const STEPS = 12
const MANY_PIECES = 40
const STEPS_OF_MANY = 3
const MOST_TRIALS = 10
const MOST_MIXES = 4000

/** What of the cutter limits what can be cut of a sheet, mm. */
export type Bed = Pick<Cutter, 'rimMm' | 'bedWidthMm' | 'bedHeightMm'>

/**
 * How much of a sheet lies on the bed, mm from its corner: a sheet that is larger hangs over. Laid in the way in which more of it can be
 * cut; turned where that is a quarter turned.
 */
export function onBed(
  { widthMm, heightMm }: Pick<Paper, 'widthMm' | 'heightMm'>,
  { bedWidthMm, bedHeightMm }: Bed,
): { widthMm: number; heightMm: number; turned: boolean } {
  const clipped = (bedW: number, bedH: number) => ({
    widthMm: Math.min(widthMm, bedW),
    heightMm: Math.min(heightMm, bedH),
  })
  const straight = clipped(bedWidthMm, bedHeightMm)
  const turned = clipped(bedHeightMm, bedWidthMm)
  return turned.widthMm * turned.heightMm > straight.widthMm * straight.heightMm + 1e-6
    ? { ...turned, turned: true }
    : { ...straight, turned: false }
}

/** A whole sheet of another size, as far as it can be cut, as it is laid before those of the main size. */
export function wholeSheet(paper: Paper, n: number, bed: Bed): OffCutSheet {
  const { widthMm, heightMm } = onBed(paper, bed)
  return { id: `${paper.id} ${n}`, outline: rectangle([0, 0], widthMm, heightMm), margin: bed.rimMm }
}

/** What can be cut of a sheet of a paper, mm, with the rim that the blade cannot reach. */
export function sheetOf(paper: Paper, bed: Bed): NestInstance['sheet'] {
  const { widthMm, heightMm } = onBed(paper, bed)
  return { w: widthMm, h: heightMm, margin: bed.rimMm }
}

/** What is to be laid, and on what bed. */
interface Asked {
  instance: Omit<NestInstance, 'sheet' | 'pinned'>
  bed: Bed
}

/** A mix by the ids of its papers. */
export interface NamedMix {
  main: string
  others: readonly string[]
}

/** A mix by its papers; null where one of them is not at hand. */
export function mixNamed(sizes: readonly Paper[], { main, others }: NamedMix): SheetMix | null {
  const byId = new Map(sizes.map((size) => [size.id, size]))
  const [first, rest] = [byId.get(main), others.flatMap((id) => byId.get(id) ?? [])]
  return first && rest.length === others.length ? { main: first, others: rest } : null
}

/**
 * The sizes that take the pieces of an instance for the least to buy, then the least worth of card, then the least area. Tried
 * by short searches, so that the same pieces always get the same mix. Needs the geometry loaded where there are several sizes.
 */
export function cheapestMix(sizes: readonly Paper[], { instance, bed }: Asked, memo: Memo = fresh): SheetMix {
  const [only] = sizes
  if (sizes.length === 1) return { main: only!, others: [] }
  const key = sizes.map(({ id, widthMm, heightMm, count, price }) => [id, widthMm, heightMm, count, price])
  const pieces = [namesOf(instance.pieces, memo), instance.pieces[0]?.turns]
  const offCuts = (instance.offCuts ?? []).map(({ id, outline }) => [id, outline])
  const mix = memo('mix of sizes', [key, instance.gap, bed, pieces, offCuts], () => {
    const { main, others } = findMix(sizes, { instance, bed })
    return { main: main.id, others: others.map((paper) => paper.id) }
  })
  return mixNamed(sizes, mix)!
}

/** To buy, worth, area: the earlier decides. */
type Cost = readonly [number, number, number]

const cheaper = (a: Cost, b: Cost): number => a[0] - b[0] || a[1] - b[1] || a[2] - b[2]

const areaOf = ({ widthMm, heightMm }: Paper): number => widthMm * heightMm

const largestOf = (sizes: readonly Paper[]): Paper => sizes.reduce((a, b) => (areaOf(b) > areaOf(a) ? b : a))

function findMix(sizes: readonly Paper[], { instance, bed }: Asked): SheetMix {
  const priced = sizes.every((size) => size.price > 0)
  const usable = (size: Paper) => {
    const { w, h, margin } = sheetOf(size, bed)
    return Math.max(0, w - 2 * margin) * Math.max(0, h - 2 * margin)
  }
  const worth = sizes.map((size) => (priced ? size.price : areaOf(size)))
  const costOf = (counts: readonly number[]): Cost => [
    sum(counts, (n, k) => Math.max(0, n - sizes[k]!.count) * worth[k]!),
    sum(counts, (n, k) => n * worth[k]!),
    sum(counts, (n, k) => n * areaOf(sizes[k]!)),
  ]
  const pieceArea = instance.pieces.reduce((total, piece) => total + piece.qty * polygonArea(piece.shape), 0)
  const room = (instance.offCuts ?? []).reduce((total, offCut) => total + polygonArea(offCut.outline), 0)

  const none = sizes.map(() => 0)
  const alone = sizes.map((size, k) =>
    none.with(k, sheetsWith({ instance, bed }, { main: size, others: [] })),
  )
  const possible = alone
    .filter((counts) => counts.every(Number.isFinite))
    .toSorted((a, b) => cheaper(costOf(a), costOf(b)))
  // Where a piece fits on no size, the largest says so.
  if (possible.length === 0) return { main: largestOf(sizes), others: [] }
  const best = possible[0]!

  const mixes: number[][] = []
  const extend = (counts: number[], k: number) => {
    if (mixes.length > MOST_MIXES || cheaper(costOf(counts), costOf(best)) >= 0) return
    if (k === sizes.length) {
      const enough = room + sum(counts, (n, i) => n * usable(sizes[i]!)) >= pieceArea
      if (enough && counts.filter((n) => n > 0).length > 1) mixes.push(counts)
      return
    }
    // One more of a size only ever costs more.
    for (let n = 0; n === 0 || cheaper(costOf(counts.with(k, n)), costOf(best)) < 0; n++)
      extend(counts.with(k, n), k + 1)
  }
  extend(none, 0)
  for (const counts of mixes.toSorted((a, b) => cheaper(costOf(a), costOf(b))).slice(0, MOST_TRIALS)) {
    const mix = mixOf(sizes, counts)
    const wanted = counts[sizes.indexOf(mix.main)]!
    if (sheetsWith({ instance, bed, wanted }, mix) <= wanted) return mix
  }
  return mixOf(sizes, best)
}

/** The largest size goes last: what is left of it is worth most. Where off-cuts take all, it is there for what comes after. */
function mixOf(sizes: readonly Paper[], counts: readonly number[]): SheetMix {
  const used = sizes
    .filter((_, k) => counts[k]! > 0)
    .toSorted((a, b) => areaOf(a) - areaOf(b) || a.id.localeCompare(b.id))
  const main = used.at(-1) ?? largestOf(sizes)
  return {
    main,
    others: used
      .slice(0, -1)
      .flatMap((size) => Array.from({ length: counts[sizes.indexOf(size)]! }, () => size)),
  }
}

/**
 * Sheets of the main size that a short search needs beside the others; Infinity where a piece is too large for it. Where a number is
 * wanted it ends once it has come to that, and at once where the first layout needs two sheets more: a few steps do not save both.
 */
function sheetsWith(
  { instance, bed, wanted }: Asked & { wanted?: number },
  { main, others }: { main: Paper; others: readonly Paper[] },
): number {
  const offCuts = [...(instance.offCuts ?? []), ...others.map((paper, n) => wholeSheet(paper, n, bed))]
  const count = instance.pieces.reduce((total, piece) => total + piece.qty, 0)
  try {
    const nester = new Nester({ ...instance, offCuts, sheet: sheetOf(main, bed) })
    const search = nester.begin(count > MANY_PIECES ? STEPS_OF_MANY : STEPS)
    const isOpen = () => {
      const { sheets } = nester.best
      return wanted === undefined || (sheets > wanted && sheets < wanted + 2)
    }
    while (isOpen() && !search.next().done);
    return nester.best.sheets
  } catch (error) {
    if (error instanceof BadInput) return Infinity
    throw error
  }
}

const sum = (counts: readonly number[], of: (n: number, k: number) => number): number =>
  counts.reduce((total, n, k) => total + of(n, k), 0)
