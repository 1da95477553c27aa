// The starter drawer: made-up papers of several finishes, weights and sheet sizes.
import { slug, type Finish, type Paper } from '../../project'
import { formatWeight, type Unit } from '../../base/units'

const INCH = 25.4
const SQUARE12 = [12 * INCH, 12 * INCH] as const
const A4 = [210, 297] as const
const A3 = [297, 420] as const
const NINE = [9 * INCH, 12 * INCH] as const
const LETTER = [8.5 * INCH, 11 * INCH] as const
const FILM = [190, 300] as const
const SIX = [6 * INCH, 6 * INCH] as const

/** Sheets as they are sold; any other is typed. Upright, mm. */
export const SHEET_SIZES = [
  { name: '12 × 12 in', size: SQUARE12 },
  { name: '9 × 12 in', size: NINE },
  { name: '8 1/2 × 11 in', size: LETTER },
  { name: '6 × 6 in', size: SIX },
  { name: 'A4', size: A4 },
  { name: 'A3', size: A3 },
].map(({ name, size: [widthMm, heightMm] }) => ({ name, widthMm, heightMm }))

/** A sheet is cut to within this, mm. */
const SHEET_WITHIN_MM = 0.6

/** What a paper's sheets are sold as, upright or across; null where they are another size. */
export const soldAs = ({ widthMm, heightMm }: Pick<Paper, 'widthMm' | 'heightMm'>): string | null => {
  const is = (a: number, b: number) => Math.abs(a - b) < SHEET_WITHIN_MM
  const found = SHEET_SIZES.find(
    (one) =>
      (is(one.widthMm, widthMm) && is(one.heightMm, heightMm)) ||
      (is(one.heightMm, widthMm) && is(one.widthMm, heightMm)),
  )
  return found?.name ?? null
}

/** What is sold by its thickness, not by the pound. */
const BY_THICKNESS: readonly Finish[] = ['acetate', 'chipboard', 'craft foam']

/** What card of a paper weighs, as its pack has it: 216 gsm, with inches 216 gsm (80 lb). */
export const weightWords = ({ finish, gsm }: Pick<Paper, 'finish' | 'gsm'>, unit: Unit): string =>
  formatWeight(gsm, BY_THICKNESS.includes(finish) ? 'mm' : unit)

/** Thickness in mm of a paper of a finish and weight: values to start from until the maker has measured ten sheets. */
export function typicalThickness(finish: Finish, gsm: number): number {
  if (finish === 'glitter') return 0.42
  if (finish === 'mirror' || finish === 'pearl') return 0.3
  if (finish === 'vellum') return 0.11
  if (finish === 'acetate') return 0.2
  if (finish === 'craft foam') return 2
  if (finish === 'chipboard') return Math.max(1, gsm / 650)
  const table = [
    [75, 0.1],
    [120, 0.16],
    [176, 0.24],
    [216, 0.29],
    [270, 0.35],
    [300, 0.4],
    [400, 0.53],
  ] as const
  if (gsm <= table[0][0]) return table[0][1]
  for (let i = 1; i < table.length; i++) {
    const [g1, t1] = table[i]!
    const [g0, t0] = table[i - 1]!
    if (gsm <= g1) return Math.round((t0 + ((gsm - g0) / (g1 - g0)) * (t1 - t0)) * 100) / 100
  }
  return 0.53
}

type Row = readonly [
  name: string,
  colour: string,
  finish: Finish,
  gsm: number,
  core: 'solid' | 'white',
  size: readonly [number, number],
  count: number,
  price: number,
  oneWay?: boolean,
]

const rows: readonly Row[] = [
  ['Shell', '#f2bea1', 'smooth', 216, 'solid', SQUARE12, 4, 0.55],
  ['Rose hip', '#d396a6', 'smooth', 216, 'solid', SQUARE12, 3, 0.55],
  ['Heather dusk', '#9a6f9a', 'smooth', 216, 'solid', SQUARE12, 3, 0.55],
  ['Sea holly', '#6477a8', 'smooth', 216, 'solid', SQUARE12, 2, 0.55],
  ['Harbour blue', '#42598c', 'smooth', 216, 'solid', SQUARE12, 3, 0.55],
  ['Deep harbour', '#2f426f', 'smooth', 216, 'solid', SQUARE12, 2, 0.55],
  ['Night tide', '#222e52', 'smooth', 270, 'solid', SQUARE12, 2, 0.7],
  ['Oyster', '#e8e4d9', 'textured', 270, 'white', SQUARE12, 4, 0.65],
  ['Chalk', '#fbfaf5', 'smooth', 216, 'solid', SQUARE12, 6, 0.45],
  ['Sandbar', '#dcc79c', 'smooth', 216, 'solid', SQUARE12, 2, 0.55],
  ['Wet sand', '#b79a6c', 'textured', 216, 'solid', SQUARE12, 2, 0.6],
  ['Driftwood', '#8a7259', 'textured', 270, 'white', SQUARE12, 2, 0.65],
  ['Lichen', '#a9b48a', 'smooth', 216, 'solid', SQUARE12, 3, 0.55],
  ['Samphire', '#6f8f5c', 'smooth', 216, 'solid', SQUARE12, 2, 0.55],
  ['Bottle glass', '#3f6f5f', 'smooth', 176, 'solid', A4, 5, 0.3],
  ['Kelp', '#33472f', 'smooth', 216, 'solid', SQUARE12, 2, 0.55],
  ['Foam crest', '#cfe3e2', 'smooth', 216, 'solid', SQUARE12, 3, 0.55],
  ['Rock pool', '#9cc6c6', 'smooth', 216, 'solid', SQUARE12, 3, 0.55],
  ['Lagoon', '#5fa3ab', 'smooth', 216, 'solid', SQUARE12, 2, 0.55],
  ['Deep channel', '#2f7682', 'smooth', 216, 'solid', SQUARE12, 2, 0.55],
  ['Sea cave', '#1f4d5a', 'smooth', 216, 'solid', SQUARE12, 2, 0.55],
  ['Buoy', '#c9463d', 'smooth', 216, 'solid', NINE, 3, 0.5],
  ['Lifeboat', '#e0762f', 'smooth', 176, 'solid', LETTER, 4, 0.3],
  ['Gorse', '#eebd3e', 'smooth', 216, 'solid', SQUARE12, 2, 0.55],
  ['Slate', '#5b6168', 'smooth', 270, 'solid', A3, 2, 0.9],
  ['Tar', '#25262a', 'smooth', 300, 'solid', SQUARE12, 2, 0.75],
  ['Starlit', '#b9bcc9', 'glitter', 300, 'white', SQUARE12, 1, 1.4],
  ['Sunken gold', '#c79a3a', 'glitter', 300, 'white', SQUARE12, 2, 1.4],
  ['Herring', '#c9ccd2', 'mirror', 250, 'white', A4, 2, 1.1],
  ['Mother of pearl', '#ece6ee', 'pearl', 250, 'solid', SQUARE12, 2, 0.95],
  ['Sea mist', '#e6eef0', 'vellum', 100, 'solid', A4, 4, 0.5],
  ['Ripple stripe', '#8fb4d6', 'smooth', 176, 'white', SQUARE12, 2, 0.5, true],
  ['Parcel board', '#a98b66', 'chipboard', 700, 'solid', A4, 2, 0.8],
  ['Foam sheet white', '#f4f3ee', 'craft foam', 320, 'solid', A4, 4, 0.7],
  ['Print card', '#ffffff', 'smooth', 250, 'solid', A4, 10, 0.35],
  ['Clear pane', '#eaf1f2', 'acetate', 280, 'solid', A4, 4, 0.9],
  ['Window film', '#f6f7f5', 'smooth', 90, 'solid', FILM, 2, 1.1],
  ['Note card coral', '#ee9a87', 'smooth', 216, 'solid', SIX, 6, 0.2],
]

/** The shared drawer as it comes: a copy for each caller. */
export const starterStock = (): Paper[] =>
  rows.map(([name, colour, finish, gsm, core, [widthMm, heightMm], count, price, oneWay = false]) => ({
    id: 'paper-' + name.toLowerCase().replace(/\s+/g, '-'),
    name,
    colour,
    finish,
    gsm,
    thicknessMm: typicalThickness(finish, gsm),
    core,
    widthMm,
    heightMm,
    count,
    price,
    perPack: 1,
    shop: '',
    oneWay,
    press: null,
    note: '',
    offCuts: [],
  }))

/** A paper of which something is changed. One as thick as its kind mostly is stays so with another finish or weight; what was measured stays. */
export function changedPaper(paper: Paper, patch: Partial<Paper>): Paper {
  const changed = { ...paper, ...patch }
  const isTypical = paper.thicknessMm === typicalThickness(paper.finish, paper.gsm)
  return isTypical && patch.thicknessMm === undefined
    ? { ...changed, thicknessMm: typicalThickness(changed.finish, changed.gsm) }
    : changed
}

/** A plain paper with an id that is free in the drawer, to be filled in. */
export function newPaper(name: string, stock: readonly Paper[]): Paper {
  const stem = `paper-${slug(name) || 'new'}`
  let id = stem
  for (let n = 2; stock.some((paper) => paper.id === id); n++) id = `${stem}-${n}`
  const [widthMm, heightMm] = SQUARE12
  const plain = { finish: 'smooth', gsm: 216, core: 'solid' } as const
  const thicknessMm = typicalThickness(plain.finish, plain.gsm)
  return {
    id,
    name,
    colour: '#d8d5cc',
    ...plain,
    thicknessMm,
    widthMm,
    heightMm,
    count: 0,
    price: 0,
    perPack: 1,
    shop: '',
    oneWay: false,
    press: null,
    note: '',
    offCuts: [],
  }
}
