// The drawer: papers, foams, glues and inks, cutters with their mats, and what worked on them.
import { z } from 'zod'
import { colour, id, lengthMm, name, path, sizeMm, whole, within } from './fields'
import { LIMITS, MOST } from '../limits'
import { observationSchema } from './journal'

/** An ink or a chalk to colour with. */
export const inkSchema = z.looseObject({
  id,
  name,
  colour,
  dryMin: within('minutes').default(10),
  /** What card it shows on. */
  on: z.enum(['light card', 'dark card', 'any card']).default('light card'),
})

/** See inkSchema. */
export type Ink = z.infer<typeof inkSchema>

/** How the surface of a paper is. */
export const FINISHES = [
  'smooth',
  'textured',
  'pearl',
  'glitter',
  'mirror',
  'vellum',
  'acetate',
  'chipboard',
  'craft foam',
] as const

/** One of FINISHES. */
export type Finish = (typeof FINISHES)[number]

/** How a film is pressed on, as its label says. */
export const pressSchema = z.looseObject({
  /** °C. */
  tempC: z.number().min(60).max(230),
  /** Of one press. */
  seconds: z.number().min(1).max(300),
  /** When its carrier is peeled off. */
  peel: z.enum(['hot', 'warm', 'cold']),
})

/** See pressSchema. */
export type Press = z.infer<typeof pressSchema>

/** A paper with its sheets and off-cuts at hand. Lengths in mm. */
export const paperSchema = z.looseObject({
  id,
  name,
  colour,
  finish: z.enum(FINISHES),
  gsm: within('gsm'),
  thicknessMm: within('thicknessMm'),
  core: z.enum(['solid', 'white']),
  widthMm: sizeMm,
  heightMm: sizeMm,
  /** Whole sheets at hand. */
  count: whole('count'),
  /** Price of a sheet. */
  price: within('price'),
  /** It is bought by so many sheets. */
  perPack: whole('perPack').default(1),
  /** Where it is bought. */
  shop: z.string().max(MOST.name).default(''),
  /** The pattern has an up and a down: pieces may not turn. */
  oneWay: z.boolean().default(false),
  /** Film that is pressed on by heat: what its label says; null for what is not. */
  press: pressSchema.nullable().default(null),
  note: z.string().max(MOST.note).default(''),
  /** Left-overs worth keeping: outline with holes as path data (M, L, Z; even-odd; mm; its box begins at 0,0). */
  offCuts: z
    .array(z.looseObject({ id, label: z.string().max(MOST.name).default(''), path }))
    .max(MOST.offCuts)
    .default([]),
})

/** See paperSchema. */
export type Paper = z.infer<typeof paperSchema>

/** How foam is bought. */
export const FOAM_FORMS = ['squares', 'dots', 'strips', 'tape', 'foam board', 'craft foam'] as const

/** Foam pads of one size and thickness, mm. */
export const foamSchema = z.looseObject({
  id,
  name,
  widthMm: sizeMm,
  heightMm: sizeMm,
  thicknessMm: within('thicknessMm'),
  perPack: whole('perPack'),
  pricePerPack: within('price'),
  /** Where it is bought. */
  shop: z.string().max(MOST.name).default(''),
  /** Single pads at hand. */
  count: whole('count'),
  /** White foam is seen through thin card with a light behind it; clear foam hardly. */
  look: z.enum(['white', 'clear']).default('white'),
  /** How it is bought: as pads, or as something that pads are cut of; a pad of it is as wide and high as above. */
  form: z.enum(FOAM_FORMS).default('squares'),
  /** Pads may be cut in two, where a whole one is too large. */
  mayCut: z.boolean().default(false),
  /** Strips may be bent along a curve. */
  mayBend: z.boolean().default(false),
  /** It gives by so much under a press, as a share of its thickness. */
  give: within('give').default(0.05),
  /** To peel and set one pad, seconds. */
  peelS: within('peelS').default(8),
})

/** See foamSchema. */
export type Foam = z.infer<typeof foamSchema>

/** A glue; times in minutes. */
export const adhesiveSchema = z.looseObject({
  id,
  name,
  tackMin: within('minutes'),
  handleMin: within('minutes'),
  dryMin: within('minutes'),
  /** Buckles card lighter than this; 0 where it does not. */
  bucklesBelowGsm: z.number().min(0).max(LIMITS.gsm[1]).default(0),
  slides: z.boolean().default(false),
  /** How thick a layer of it stays, mm. */
  thicknessMm: z.number().min(0).max(LIMITS.thicknessMm[1]).default(0),
  /** What it holds along the joint before it gives way, newton a thousand mm² (kPa). */
  holdsKPa: within('holdsKPa').default(150),
  /** It cannot be seen once dry; nothing of it stands out behind. */
  driesClear: z.boolean().default(true),
  isTidy: z.boolean().default(true),
  /** What it sticks to, as the label says. */
  surfaces: z.string().max(MOST.note).default(''),
  caution: z.string().max(MOST.note).default(''),
  /** How it is bought: ml in a bottle, and its price. */
  packMl: z.number().min(0.1).max(100_000).default(60),
  pricePerPack: within('price').default(4),
})

/** See adhesiveSchema. */
export type Adhesive = z.infer<typeof adhesiveSchema>

/** How much a mat holds. */
export const TACKS = ['low', 'medium', 'high'] as const

/** A mat that sheets are stuck to while they are cut. */
export const matSchema = z.looseObject({
  id,
  name,
  widthMm: sizeMm,
  heightMm: sizeMm,
  tack: z.enum(TACKS),
  /** Loads that were cut on it since it was new or washed, and after how many it no longer holds. */
  loads: whole('count').default(0),
  lasts: whole('count').min(1).default(40),
  /** Of a new one. */
  price: within('price').default(10),
})

/** See matSchema. */
export type Mat = z.infer<typeof matSchema>

/** What cuts: a machine, or a knife in a hand. Bed and rim in mm, pace in mm/s and seconds. */
export const cutterSchema = z.looseObject({
  /** In the shared drawer; a project of before has its own. */
  id: id.default('own'),
  tool: z.enum(['machine', 'knife']).default('machine'),
  /** None where they are not noted: then whatever a load asks for is taken to be at hand. */
  mats: z.array(matSchema).max(MOST.foams).default([]),
  name: z.string().max(MOST.name),
  bedWidthMm: sizeMm,
  bedHeightMm: sizeMm,
  /** The rim of a sheet that the blade cannot reach. */
  rimMm: lengthMm,
  speedMmPerS: within('speedMmPerS'),
  /** Time lost at each corner and at each lift of the blade. */
  cornerS: within('cornerS'),
  /** How fast it gathers speed, and goes with the tool lifted. */
  accelMmPerS2: within('accelMmPerS2').default(600),
  travelMmPerS: within('speedMmPerS').default(150),
  liftS: within('liftS'),
  loadMin: within('minutes'),
  /** How far the blade goes on past the start of a closed cut, so that the last fibre is cut too. */
  overcutMm: within('overcutMm').default(0.5),
  /** A blade, how far it cuts, and what an hour of the machine costs. */
  bladePrice: within('price').default(8),
  bladeM: z.number().min(1).max(1_000_000).default(300),
  hourCost: within('price').default(0.5),
})

/** See cutterSchema. */
export type Cutter = z.infer<typeof cutterSchema>

/** How a cut came out. */
export const OUTCOMES = ['cut through', 'corners hung', 'tore', 'slid'] as const

/** An entry of the settings book: what was set for a paper, and how it came out. */
export const settingSchema = z.looseObject({
  id,
  /** The paper by its name, finish and weight, so that a new pack of it is known too. */
  paper: name,
  finish: z.enum(FINISHES),
  gsm: within('gsm'),
  cutter: z.string().max(MOST.name),
  intricacy: z.enum(['plain', 'fine', 'lace']),
  depthMm: within('thicknessMm'),
  /** g. */
  forceG: within('forceG'),
  speedMmPerS: within('speedMmPerS'),
  passes: whole('passes'),
  tack: z.enum(TACKS),
  outcome: z.enum(OUTCOMES),
  note: z.string().max(MOST.note).default(''),
  /** When, ms since 1970. */
  at: z.number().min(LIMITS.time[0]).max(LIMITS.time[1]),
})

/** See settingSchema. */
export type Setting = z.infer<typeof settingSchema>

/** Things that works take beside paper, foam and glue; twine is counted by the metre. */
export const THING_KINDS = ['frame', 'panel', 'envelope', 'sticks', 'twine'] as const

/** One of THING_KINDS. */
export type ThingKind = (typeof THING_KINDS)[number]

/** A thing of the drawer: what one (or a metre) costs, how many are left. */
export const thingSchema = z.looseObject({
  id,
  /** Null: of the kind that its id is. */
  kind: z.enum(THING_KINDS).nullable().default(null),
  name: z.string().max(MOST.name).default(''),
  /** Which works take it: those of this size, whichever way round, or of this width; null for any. */
  widthMm: sizeMm.nullable().default(null),
  heightMm: sizeMm.nullable().default(null),
  price: within('price'),
  /** Null where it is not counted. */
  count: within('count').nullable().default(null),
  perPack: z.number().min(0.01).max(100_000).default(1),
  shop: z.string().max(MOST.name).default(''),
})

/** See thingSchema. */
export type Thing = z.infer<typeof thingSchema>

/** Papers, foams and glues of a project, the cutter, the currency. */
export const drawerSchema = z.looseObject({
  papers: z.array(paperSchema).max(MOST.papers),
  foams: z.array(foamSchema).max(MOST.foams),
  adhesives: z.array(adhesiveSchema).max(MOST.adhesives),
  inks: z.array(inkSchema).max(MOST.adhesives).default([]),
  /** Frames, sticks, twine: what they cost, and how many are left. */
  things: z.array(thingSchema).max(MOST.adhesives).default([]),
  /** What worked on the cutter, and what did not. */
  settings: z.array(settingSchema).max(MOST.entries).default([]),
  /** What steps took, in all projects. */
  observed: z.array(observationSchema).max(MOST.entries).default([]),
  /** What this project is cut with. */
  cutter: cutterSchema,
  /** All that are at hand. */
  cutters: z.array(cutterSchema).max(MOST.foams).default([]),
  currency: z.string().max(20).default('€'),
})

/** See drawerSchema. */
export type Drawer = z.infer<typeof drawerSchema>
