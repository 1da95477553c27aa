// What a new project starts with. Every number here is a starting value that the maker can change.
import {
  drawerSchema,
  projectSchema,
  SCHEMA_VERSION,
  type Adhesive,
  type Cutter,
  type Drawer,
  type Foam,
  type Ink,
  type Mat,
  type NewMount,
  type Project,
} from './schema'

const INCH = 25.4

// Names say no lengths: those stand beside them in the maker's unit.
const SIZES: Record<number, string> = { 5: 'small', 6: 'middle', 12: 'large' }
const THICKNESS: Record<number, string> = { 1: ', thin', 2: '', 3: ', thick' }

/** What foams have in common until the maker says otherwise. */
const FOAM = {
  shop: '',
  look: 'white',
  form: 'squares',
  mayCut: false,
  mayBend: false,
  give: 0.05,
  peelS: 8,
} as const

const square = (
  mm: number,
  thicknessMm: number,
  { perPack, pricePerPack, count }: Pick<Foam, 'perPack' | 'pricePerPack' | 'count'>,
): Foam => ({
  ...FOAM,
  id: `foam-${mm}x${mm}-${thicknessMm}`,
  name: `${SIZES[mm]} squares${THICKNESS[thicknessMm]}`,
  widthMm: mm,
  heightMm: mm,
  thicknessMm,
  perPack,
  pricePerPack,
  count,
})

const strip = (thicknessMm: number, count: number): Foam => ({
  ...FOAM,
  form: 'strips',
  id: `foam-3x12-${thicknessMm}`,
  name: `narrow strips${THICKNESS[thicknessMm]}`,
  widthMm: 12,
  heightMm: 3,
  thicknessMm,
  perPack: 120,
  pricePerPack: 2.6,
  count,
})

/** Foams of a new project; the maker changes them to those at hand. */
export const starterFoams: Foam[] = [
  square(12, 2, { perPack: 80, pricePerPack: 2.4, count: 80 }),
  square(6, 1, { perPack: 300, pricePerPack: 2.9, count: 300 }),
  square(6, 2, { perPack: 300, pricePerPack: 2.9, count: 300 }),
  square(6, 3, { perPack: 300, pricePerPack: 3.2, count: 150 }),
  square(5, 1, { perPack: 400, pricePerPack: 2.9, count: 400 }),
  square(5, 2, { perPack: 400, pricePerPack: 2.9, count: 400 }),
  strip(1, 120),
  strip(2, 120),
]

/** Glues of a new project: middle values of their kinds. Labels go before them. */
export const starterAdhesives: Adhesive[] = [
  {
    id: 'glue-tacky',
    name: 'water-based tacky glue',
    tackMin: 3,
    handleMin: 10,
    dryMin: 60,
    bucklesBelowGsm: 200,
    slides: true,
    thicknessMm: 0,
    holdsKPa: 400,
    driesClear: true,
    isTidy: true,
    surfaces: 'card, paper, foam board',
    caution: 'Use little: it buckles thin card.',
    packMl: 60,
    pricePerPack: 4,
  },
  {
    id: 'glue-solvent',
    name: 'clear solvent glue',
    tackMin: 1,
    handleMin: 5,
    dryMin: 30,
    bucklesBelowGsm: 0,
    slides: false,
    thicknessMm: 0,
    holdsKPa: 500,
    driesClear: true,
    isTidy: true,
    surfaces: 'card, film, glass, plastic',
    caution:
      'Open a window, keep flames away, and follow the label. It can draw threads: lift it off with a turn.',
    packMl: 60,
    pricePerPack: 4,
  },
  {
    id: 'glue-stick',
    name: 'glue stick',
    tackMin: 0.5,
    handleMin: 5,
    dryMin: 20,
    bucklesBelowGsm: 0,
    slides: true,
    thicknessMm: 0,
    holdsKPa: 120,
    driesClear: true,
    isTidy: true,
    surfaces: 'card and paper',
    caution: '',
    packMl: 60,
    pricePerPack: 4,
  },
  {
    id: 'glue-tape',
    name: 'tape runner',
    tackMin: 0,
    handleMin: 0,
    dryMin: 0,
    bucklesBelowGsm: 0,
    slides: false,
    thicknessMm: 0,
    holdsKPa: 80,
    driesClear: true,
    isTidy: true,
    surfaces: 'smooth card and paper',
    caution: 'It holds at once: there is no second try.',
    packMl: 60,
    pricePerPack: 4,
  },
  {
    id: 'glue-hot',
    name: 'hot glue',
    tackMin: 0,
    handleMin: 1,
    dryMin: 5,
    bucklesBelowGsm: 0,
    slides: false,
    thicknessMm: 0.5,
    holdsKPa: 300,
    driesClear: false,
    isTidy: false,
    surfaces: 'card, canvas, wood',
    caution: 'Nozzle and glue burn skin: keep fingers and children away. It stands up a little.',
    packMl: 60,
    pricePerPack: 4,
  },
  {
    id: 'glue-decoupage',
    name: 'decoupage medium',
    tackMin: 3,
    handleMin: 10,
    dryMin: 30,
    bucklesBelowGsm: 200,
    slides: true,
    thicknessMm: 0,
    holdsKPa: 250,
    driesClear: true,
    isTidy: true,
    surfaces: 'card, paper, canvas, wood',
    caution: 'Brush it on thinly: it wets thin card. Where food is near, follow the label.',
    packMl: 120,
    pricePerPack: 6,
  },
]

const matOf = (
  id: string,
  name: string,
  { tack, sides: [w, h] }: { tack: Mat['tack']; sides: readonly [number, number] },
): Mat => ({
  id,
  name,
  widthMm: w * INCH,
  heightMm: h * INCH,
  tack,
  loads: 0,
  lasts: 40,
  price: 10,
})

/** A cutter for sheets of a foot square; a start to be corrected. */
export const starterCutter: Cutter = {
  id: 'cutter-foot',
  tool: 'machine',
  mats: (['low', 'medium', 'high'] as const).map((tack) =>
    matOf(`mat-${tack}`, `${tack} tack, a foot square`, { tack, sides: [12, 12] }),
  ),
  name: '12 × 12 in mat',
  bedWidthMm: 12 * INCH,
  bedHeightMm: 12 * INCH,
  rimMm: 6.35,
  speedMmPerS: 60,
  cornerS: 0.03,
  accelMmPerS2: 600,
  travelMmPerS: 150,
  liftS: 0.35,
  loadMin: 1,
  overcutMm: 0.5,
  bladePrice: 8,
  bladeM: 300,
  hourCost: 0.5,
}

/** Inks to colour with, to start from. */
export const starterInks: readonly Ink[] = [
  { id: 'ink-sepia', name: 'sepia', colour: '#7a5537', dryMin: 10, on: 'light card' },
  { id: 'ink-slate', name: 'slate', colour: '#54606d', dryMin: 10, on: 'light card' },
  { id: 'ink-rose', name: 'old rose', colour: '#b9707c', dryMin: 10, on: 'light card' },
  { id: 'ink-moss', name: 'moss', colour: '#6d7a45', dryMin: 10, on: 'light card' },
  { id: 'ink-sea', name: 'sea blue', colour: '#3f7390', dryMin: 10, on: 'light card' },
  { id: 'chalk-white', name: 'white chalk', colour: '#efece4', dryMin: 0, on: 'dark card' },
]

/** What a drawer may hold to cut with: starting values of ours. */
export const starterCutters: readonly Cutter[] = [
  starterCutter,
  {
    ...starterCutter,
    id: 'cutter-long',
    name: '12 in wide, long mats',
    bedHeightMm: 24 * INCH,
    mats: [
      matOf('mat-long-medium', 'medium tack, two feet long', { tack: 'medium', sides: [12, 24] }),
      matOf('mat-long-high', 'high tack, two feet long', { tack: 'high', sides: [12, 24] }),
      matOf('mat-long-low', 'low tack, a foot square', { tack: 'low', sides: [12, 12] }),
    ],
  },
  {
    ...starterCutter,
    id: 'cutter-small',
    name: 'small, 6 1/2 in wide',
    bedWidthMm: 6.5 * INCH,
    mats: [
      matOf('mat-small-medium', 'medium tack, narrow', { tack: 'medium', sides: [6.5, 12] }),
      matOf('mat-small-low', 'low tack, narrow', { tack: 'low', sides: [6.5, 12] }),
    ],
  },
  {
    id: 'knife',
    tool: 'knife',
    mats: [],
    name: 'knife and ruler',
    bedWidthMm: 600,
    bedHeightMm: 450,
    rimMm: 3,
    speedMmPerS: 8,
    cornerS: 0.5,
    accelMmPerS2: 100,
    travelMmPerS: 150,
    liftS: 1.5,
    loadMin: 2,
    overcutMm: 0,
    bladePrice: 0.5,
    bladeM: 15,
    hourCost: 0,
  },
]

/** A drawer with foam, glue and a cutter, and no paper yet. */
export const emptyDrawer = (): Drawer =>
  drawerSchema.parse({ papers: [], foams: starterFoams, adhesives: starterAdhesives, cutter: starterCutter })

/** An empty project on a mount; the id and the name come from the caller. */
export const newProject = (id: string, name: string, mount: NewMount): Project =>
  projectSchema.parse({
    format: 'feuillet',
    schemaVersion: SCHEMA_VERSION,
    id,
    name,
    mount,
    layers: [],
    drawer: emptyDrawer(),
    plan: { adhesiveId: 'glue-tacky', turns: 'quarter' },
  })
