// What a paper asks of the machine: starting values of ours by finish, weight and how intricate the cut is, and what the maker's settings
// book knows better. The machine's own instructions go before both.
import { polygonArea, polygonRings, perimeter, type Polygon } from '../../../base/geometry'
import type { Cutter, Paper, Setting } from '../../../project'

/** How intricate a cut is: by the card that is left between cuts, and by how many openings there are. */
export type Intricacy = Setting['intricacy']

/** How a paper is cut. */
export interface CutSetting {
  name: string
  tack: 'low' | 'medium' | 'high'
  passes: number
  intricacy: Intricacy
  /** How far the blade stands out, mm. */
  depthMm: number
  /** By which it is pressed down, g. */
  forceG: number
  speedMmPerS: number
  /** Glitter and board blunt the blade: clean or change it after. */
  hardOnBlade: boolean
  /** Where it comes from: ours to start with; of the book, as it worked, or a step on from what did not. */
  basis: Basis
}

/** What a setting rests on. */
export type Basis =
  | { from: 'start' }
  | { from: 'hand' }
  | { from: 'book'; worked: number }
  | { from: 'step'; after: Setting['outcome'] }

/** Mean width of the card between cuts (mm), and openings of a piece, from which a cut is fine or lace. */
const FINE = { widthMm: 12, openings: 10 }
const LACE = { widthMm: 5, openings: 40 }

/** How intricate the cut of some pieces is: that of the most intricate. */
export function intricacyOf(shapes: readonly Polygon[]): Intricacy {
  let found: Intricacy = 'plain'
  for (const shape of shapes) {
    const around = polygonRings(shape).reduce((sum, ring) => sum + perimeter(ring), 0)
    // A long strip of some width has twice its length of edge.
    const widthMm = around > 0 ? (2 * polygonArea(shape)) / around : Infinity
    const openings = shape.holes.length
    const is = (limit: typeof LACE) => openings >= limit.openings || (openings > 0 && widthMm < limit.widthMm)
    if (is(LACE)) return 'lace'
    if (is(FINE)) found = 'fine'
  }
  return found
}

const SLOWER: Record<Intricacy, number> = { plain: 1, fine: 0.6, lace: 0.3 }

/** A start of ours by finish, weight and intricacy. */
export function startSetting(
  paper: Paper,
  cutter: Pick<Cutter, 'speedMmPerS'>,
  intricacy: Intricacy,
): CutSetting {
  const { finish, gsm, thicknessMm } = paper
  const own = byFinish(paper)
  // In several passes each goes a part of the way, and a little into the mat at the last.
  const depthMm = round(thicknessMm + (own.hardOnBlade ? 0.15 : 0.1), 2)
  const forceG = Math.round((60 + gsm * 0.45 + (own.hardOnBlade ? 60 : 0)) / 5) * 5
  const slow = finish === 'glitter' || finish === 'chipboard' ? 0.5 : 1
  return {
    ...own,
    name: intricacy === 'plain' ? own.name : `${own.name}, ${intricacy}`,
    intricacy,
    depthMm,
    forceG,
    speedMmPerS: round(cutter.speedMmPerS * SLOWER[intricacy] * slow, 1),
    basis: { from: 'start' },
  }
}

/** From this weight on makers go over card twice (gsm). */
const HEAVY_GSM = 270

function byFinish({
  finish,
  gsm,
  thicknessMm,
}: Paper): Pick<CutSetting, 'name' | 'tack' | 'passes' | 'hardOnBlade'> {
  switch (finish) {
    case 'glitter':
      return { name: 'glitter card', tack: 'high', passes: 2, hardOnBlade: true }
    case 'chipboard':
      return { name: 'board', tack: 'high', passes: thicknessMm > 1.2 ? 4 : 3, hardOnBlade: true }
    case 'craft foam':
      return { name: 'craft foam', tack: 'medium', passes: 2, hardOnBlade: false }
    case 'mirror':
      return { name: 'mirror card', tack: 'medium', passes: gsm >= HEAVY_GSM ? 2 : 1, hardOnBlade: false }
    case 'vellum':
    case 'acetate':
      return { name: finish, tack: 'low', passes: 1, hardOnBlade: false }
    default: {
      const heavy = gsm >= HEAVY_GSM
      const light = gsm < 150
      const grain = finish === 'textured' ? 'textured' : 'smooth'
      return {
        name: `${grain}, ${light ? 'light' : heavy ? 'heavy' : 'medium'}`,
        tack: light ? 'low' : 'medium',
        passes: heavy ? 2 : 1,
        hardOnBlade: false,
      }
    }
  }
}

/** Entries of the book about a paper on a cutter at an intricacy, the oldest first. */
export const entriesFor = (
  book: readonly Setting[],
  paper: Pick<Paper, 'name' | 'finish' | 'gsm'>,
  { cutter, intricacy }: { cutter: string; intricacy: Intricacy },
): Setting[] =>
  book
    .filter(
      (entry) =>
        entry.paper.trim().toLowerCase() === paper.name.trim().toLowerCase() &&
        entry.finish === paper.finish &&
        entry.gsm === paper.gsm &&
        entry.cutter === cutter &&
        entry.intricacy === intricacy,
    )
    .toSorted((a, b) => a.at - b.at)

/** How a paper is to be cut: as it worked the last time; where it did not, a step on; where nothing is known, by a start of ours. */
export function settingFor(
  paper: Paper,
  cutter: Pick<Cutter, 'name' | 'speedMmPerS'> & Partial<Pick<Cutter, 'tool'>>,
  { intricacy = 'plain', book = [] }: { intricacy?: Intricacy; book?: readonly Setting[] } = {},
): CutSetting {
  if (cutter.tool === 'knife') return byKnife(paper, cutter, intricacy)
  const start = startSetting(paper, cutter, intricacy)
  const known = entriesFor(book, paper, { cutter: cutter.name, intricacy })
  const last = known.at(-1)
  if (!last) return start
  const { depthMm, forceG, speedMmPerS, passes, tack } = last
  const used = { ...start, depthMm, forceG, speedMmPerS, passes, tack }
  if (last.outcome === 'cut through')
    return {
      ...used,
      basis: { from: 'book', worked: known.filter((one) => one.outcome === 'cut through').length },
    }
  return { ...nextStep(used, known), basis: { from: 'step', after: last.outcome } }
}

/** A hand cuts card in one go and board in several light ones; it presses as it must. */
function byKnife(
  { finish, thicknessMm }: Paper,
  { speedMmPerS }: Pick<Cutter, 'speedMmPerS'>,
  intricacy: Intricacy,
): CutSetting {
  const isBoard = finish === 'chipboard' || thicknessMm > 0.8
  return {
    name: isBoard ? 'board, several light cuts' : 'by knife',
    tack: 'low',
    passes: isBoard ? Math.min(12, Math.max(3, Math.ceil(thicknessMm / 0.35))) : 1,
    intricacy,
    depthMm: thicknessMm,
    forceG: 0,
    speedMmPerS: round(speedMmPerS * SLOWER[intricacy], 1),
    hardOnBlade: finish === 'glitter' || isBoard,
    basis: { from: 'hand' },
  }
}

/** What to try after a setting that did not do. */
function nextStep(used: CutSetting, known: readonly Setting[]): CutSetting {
  const { outcome } = known.at(-1)!
  // How often in a row the same went wrong.
  const since = known.length - 1 - known.findLastIndex((one) => one.outcome !== outcome)
  switch (outcome) {
    case 'corners hung':
      // Deeper and slower first; where that was tried already, once more over it.
      return since >= 2
        ? { ...used, passes: Math.min(20, used.passes + 1) }
        : {
            ...used,
            depthMm: round(used.depthMm + 0.05, 2),
            forceG: Math.round(used.forceG * 1.1),
            speedMmPerS: round(used.speedMmPerS * 0.8, 1),
          }
    case 'tore':
      return {
        ...used,
        forceG: Math.round(used.forceG * 0.9),
        speedMmPerS: round(used.speedMmPerS * 0.6, 1),
        tack: used.tack === 'high' ? 'medium' : 'low',
      }
    case 'slid':
      return {
        ...used,
        tack: used.tack === 'low' ? 'medium' : 'high',
        speedMmPerS: round(used.speedMmPerS * 0.8, 1),
      }
    default:
      return used
  }
}

const round = (value: number, places: number): number => Math.round(value * 10 ** places) / 10 ** places

/** What a setting rests on, in a few words. */
export function basisWords({ basis }: Pick<CutSetting, 'basis'>): string {
  if (basis.from === 'start') return 'a start of ours'
  if (basis.from === 'hand') return 'by hand'
  if (basis.from === 'book') return basis.worked === 1 ? 'worked once' : `worked ${basis.worked} times`
  return `a step on: ${basis.after} last time`
}

/** Metres of cutting after which a blade is to be looked at and cleaned; a starting value. */
export const BLADE_CARE_M = 30
