// The project document. The schema is the type: everything else infers from here, and docs/feuillet.schema.json is
// generated from it. Unknown keys survive reading and writing (loose objects), so newer notes are not lost.
import { z } from 'zod'
import { colour, coordinateMm, id, lengthMm, name, path, sizeMm, time, whole, within } from './fields'
import {
  journalSchema,
  observationSchema,
  partSchema,
  pricingSchema,
  rightsSchema,
  type FATES,
  type makeSchema,
  type STAGES,
} from './schema-journal'

export {
  FATES,
  journalSchema,
  makeSchema,
  observationSchema,
  partSchema,
  PRICE_WAYS,
  pricingSchema,
  rightsSchema,
  STAGES,
} from './schema-journal'
import { LIMITS, MOST } from './limits'
import { grownSchema } from './recipes'

/** Of files that are written now; older ones are migrated. */
export const SCHEMA_VERSION = 2

/** Width and height, mm. */
export const sizeSchema = z.looseObject({ widthMm: sizeMm, heightMm: sizeMm })

/** What the work will live in. Lengths in mm. */
export const mountSchema = z.discriminatedUnion('kind', [
  z.looseObject({
    kind: z.literal('frame'),
    /** Inner spacer ring, edge to edge: the size of the backing sheet. */
    spacer: sizeSchema,
    /** The ring that holds pane and back apart: how wide its wall is (0 where it was not measured), how high (0: as the frame is deep), kept or left out. */
    ring: z
      .looseObject({
        wallMm: lengthMm.default(0),
        heightMm: lengthMm.default(0),
        kept: z.boolean().default(true),
      })
      .prefault({}),
    /** What the lip leaves to see. */
    opening: sizeSchema,
    /** How far the middle of the opening lies from the middle of the spacer: to the right, and down. */
    openingShift: z.looseObject({ xMm: coordinateMm.default(0), yMm: coordinateMm.default(0) }).prefault({}),
    /** A mat behind the pane, centred on the opening; null where there is none. */
    mat: z
      .looseObject({ opening: sizeSchema, thicknessMm: within('thicknessMm').default(1.4) })
      .nullable()
      .default(null),
    pane: z
      .looseObject({
        kind: z.enum(['glass', 'plastic', 'none']).default('glass'),
        thicknessMm: within('thicknessMm').default(2),
      })
      .prefault({}),
    back: z.enum(['board', 'fabric']).default('board'),
    hanger: z.enum(['none', 'ring', 'wire', 'stand']).default('none'),
    /** From the back board to the glazing. */
    depthMm: sizeMm,
    /** Air to keep between the stack and the glazing. */
    clearanceMm: lengthMm.default(2),
    /** Air to keep between the design and the edge of the opening. */
    airMm: lengthMm.default(5),
  }),
  z.looseObject({
    kind: z.literal('card'),
    panel: sizeSchema,
    depthMm: sizeMm.default(6),
    clearanceMm: lengthMm.default(0),
    airMm: lengthMm.default(4),
  }),
  z.looseObject({
    kind: z.literal('topper'),
    widthMm: sizeMm,
    /** What it will stand in. */
    cake: z
      .looseObject({
        kind: z.enum(['cake', 'cupcake']).default('cake'),
        diameterMm: sizeMm.default(200),
        heightMm: sizeMm.default(100),
      })
      .prefault({}),
    sticks: whole('sticks').default(2),
    /** Middle of each stick, mm in the project's frame; empty where they go where they hold best. */
    stickPlacesMm: z.array(coordinateMm).max(LIMITS.sticks[1]).default([]),
    /** The glue that holds them; null for the project's. */
    stickGlueId: id.nullable().default(null),
    /** A stick: how wide, how much of it is to be seen under the topper, and how much is in the cake. */
    stick: z
      .looseObject({
        kind: z.enum(['toothpick', 'skewer', 'dowel', 'flat', 'own']).default('dowel'),
        widthMm: within('sizeMm').max(40).default(4),
        aboveMm: lengthMm.default(40),
        inMm: lengthMm.default(60),
      })
      .prefault({}),
    depthMm: sizeMm.default(8),
    clearanceMm: lengthMm.default(0),
  }),
  z.looseObject({
    kind: z.literal('panel'),
    panel: sizeSchema,
    /** What it is made of, and how far its edge stands off the wall. */
    surface: z.enum(['canvas', 'wood']).default('canvas'),
    edgeMm: lengthMm.default(18),
    depthMm: sizeMm.default(40),
    clearanceMm: lengthMm.default(0),
    airMm: lengthMm.default(5),
  }),
  z.looseObject({
    kind: z.literal('garland'),
    flags: whole('flags'),
    gapMm: lengthMm,
    endsMm: lengthMm,
  }),
  z.looseObject({ kind: z.literal('free') }),
])

/** Ways to spread glue. */
export const SPREADS = ['dots', 'beads', 'coat'] as const

/** A piece with a joint of its own: its glue, null for that of the layer. */
export const pieceJointSchema = z.looseObject({
  pieceId: id,
  /** Its glue; null for that of its layer. */
  adhesiveId: id.nullable().default(null),
  /** Height of the foam under it; without one it is glued. */
  gapMm: within('foamHeightMm').optional(),
})

/** What holds a layer. */
export const jointSchema = z.looseObject({
  /**
   * What holds the layer to what is below it; by tabs it is held by the frame round it, and rests on nothing; by pins a backing
   * sheet is held on fabric; by heat a film is pressed onto what is right below it.
   */
  kind: z.enum(['foam', 'glue', 'none', 'tab', 'pins', 'heat']),
  /** Height of the foam under the layer; 0 for glue; by tabs its height over the back. */
  gapMm: within('foamHeightMm'),
  /** A pinned gap stays when the gaps are fitted to the depth. */
  pinned: z.boolean().default(false),
  /** Glued because no gap was left when the gaps were fitted: a gap may come back. */
  byFit: z.boolean().optional(),
  /** What it is glued with, where that is not the project's glue. */
  adhesiveId: id.nullable().optional(),
  /** How the glue is spread, where the size of the parts is not to decide. */
  spread: z.enum(SPREADS).nullable().optional(),
  /**
   * Pieces that are held otherwise than their layer: on foam of a height of their own, or of a layer on foam glued flat to what is
   * beneath, of a glued one with a glue of their own.
   */
  pieces: z.array(pieceJointSchema).max(MOST.pieces).optional(),
})

/** Parts that a layer may play. */
export const ROLES = [
  'backing',
  'plain',
  'border',
  'accent',
  'overlay',
  'printed',
  'cover',
  'stand-off',
] as const

/** A line to score and fold along. */
export const foldSchema = z.looseObject({
  /** x1, y1, x2, y2, mm in the project's frame. */
  line: z.tuple([coordinateMm, coordinateMm, coordinateMm, coordinateMm]),
  /** Whether the smaller part beside it is turned up, towards the eye, or down; it is scored on the other face. */
  way: z.enum(['up', 'down']).default('up'),
  /** By how much it is turned out of the flat, degrees. */
  deg: z.number().min(0).max(180).default(30),
})

/** A strip of card that ties pieces of a layer. */
export const tieSchema = z.looseObject({
  /** Its middle line: x1, y1, x2, y2, mm in the project's frame. */
  line: z.tuple([coordinateMm, coordinateMm, coordinateMm, coordinateMm]),
  widthMm: lengthMm,
  /** The card that it added to the layer: path data as of a piece. */
  added: path,
})

const factor = z.number().min(-1000).max(1000)

/** A picture that is printed on a layer. */
export const printSchema = z.looseObject({
  pictureId: id,
  /** From pixels of the picture to mm in the project's frame: a, b, c, d, e, f, as in x' = ax + cy + e, y' = bx + dy + f. */
  map: z.tuple([factor, factor, factor, factor, coordinateMm, coordinateMm]),
  /** Printed so far beyond the outline, so that a cut a little aside shows no white; 0 for a white border. */
  bleedMm: within('bleedMm').default(2),
})

/** Coloured by hand before it is stuck: a wash over what shows, and a darker ink along the edges. Lengths in mm. */
export const tintSchema = z.looseObject({
  inkId: id,
  /** What the paper comes to look like. */
  colour,
  edgeInkId: id.nullable().default(null),
  edgeMm: lengthMm.default(3),
  /** So far past what shows the wash goes, so that no bare card peeps out. */
  bleedMm: lengthMm.default(4),
})

/** An ink or a chalk to colour with. */
export const inkSchema = z.looseObject({
  id,
  name,
  colour,
  dryMin: within('minutes').default(10),
  /** What card it shows on. */
  on: z.enum(['light card', 'dark card', 'any card']).default('light card'),
})

/** One level of card. */
export const layerSchema = z.looseObject({
  id,
  name: z.string().max(MOST.name),
  role: z.enum(ROLES).default('plain'),
  /** Path data with absolute M, L, Z only; even-odd; mm in the project's frame. */
  pieces: z.array(z.looseObject({ id, path })).max(MOST.pieces),
  folds: z.array(foldSchema).max(MOST.folds).default([]),
  /** Strips that were laid to tie its pieces; they are part of these. */
  ties: z.array(tieSchema).max(MOST.ties).default([]),
  /** What is cut of the sheet where that is not what is seen, as a strip that is rolled; its folds and slits lie on these. Empty where pieces are cut as they are. */
  blanks: z.array(z.looseObject({ id, path })).max(MOST.pieces).default([]),
  /** Where it is: in the stack, or on the pane's inner or outer side. */
  lives: z.enum(['stack', 'behind-pane', 'on-pane']).default('stack'),
  /** Drawn as it is seen, and cut in the mirror, as film is that goes behind glass or is pressed on. */
  cutMirrored: z.boolean().default(false),
  /** Its parts keep their distance: they are cut in their places and brought on in one, as film is. */
  inOne: z.boolean().default(false),
  /** Lines that the blade follows and that take no card away, as of a fringe: x, y, x, y, …, mm in the project's frame. */
  slits: z.array(z.array(coordinateMm).min(4).max(2000)).max(MOST.folds).default([]),
  /** What hands make of each piece before it is laid: how far it comes to rise over the flat, mm, and how wide round its middle it stays flat. */
  shaping: z
    .looseObject({
      how: z.enum(['flat', 'curl', 'cup', 'roll']).default('flat'),
      riseMm: lengthMm.default(0),
      flatMm: lengthMm.default(0),
    })
    .prefault({}),
  /** What is printed on it before it is cut; null for plain card. */
  print: printSchema.nullable().default(null),
  /** How it is coloured by hand; null where it is not. */
  tint: tintSchema.nullable().default(null),
  /** Colour in the file or of the drawing, until a paper is chosen. */
  colour: colour.default('#b9b4a8'),
  paperId: id.nullable().default(null),
  joint: jointSchema.default({ kind: 'foam', gapMm: 2, pinned: false }),
  optional: z.boolean().default(false),
  /** An optional layer that this build goes without. */
  leftOut: z.boolean().default(false),
  /** Not drawn on screen; still cut and counted. */
  hidden: z.boolean().default(false),
  copies: whole('copies').default(1),
  /** So many more are cut of each small piece, since small ones are lost. */
  spares: whole('spares').default(0),
  /** What its pieces share a sheet with: any, all of them one sheet, or sheets that bear nothing else. */
  sharing: z.enum(['any', 'one-sheet', 'own-sheets']).default('any'),
  /** The part that it belongs to; null where it is none's. */
  assemblyId: id.nullable().default(null),
  /** Whether the folio number is put on this layer; null leaves it to the rule: on all but backing sheets and front borders. */
  numbered: z.boolean().nullable().default(null),
})

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

/** How a film is pressed on, as its label says. */
export const pressSchema = z.looseObject({
  /** °C. */
  tempC: z.number().min(60).max(230),
  /** Of one press. */
  seconds: z.number().min(1).max(300),
  /** When its carrier is peeled off. */
  peel: z.enum(['hot', 'warm', 'cold']),
})

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

/** Papers, foams and glues of a project, the cutter, the currency. */
export const drawerSchema = z.looseObject({
  papers: z.array(paperSchema).max(MOST.papers),
  foams: z.array(foamSchema).max(MOST.foams),
  adhesives: z.array(adhesiveSchema).max(MOST.adhesives),
  inks: z.array(inkSchema).max(MOST.adhesives).default([]),
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

/** Where the maker fixed a piece by hand: mm from the corner of the n-th sheet (from 0) of a paper. */
export const pinSchema = z.looseObject({
  layerId: id,
  pieceId: id,
  copy: whole('count'),
  /** From 0; off-cut k of the paper, small ones first, is −1 − k. */
  sheet: z.number().int().min(-1000).max(100_000),
  x: coordinateMm,
  y: coordinateMm,
  rotation: within('turnDeg'),
})

/** A picture as it is printed: a JPEG or PNG file, base64. */
export const pictureSchema = z.looseObject({
  id,
  name: z.string().max(MOST.name),
  type: z.enum(['image/jpeg', 'image/png']),
  data: z.string().min(1).max(MOST.pictureCharacters),
  pixelsWide: whole('pixels'),
  pixelsHigh: whole('pixels'),
})

/** Another project as it was when its pieces were taken along onto this project's sheets. */
export const guestSchema = z.looseObject({
  projectId: id,
  name,
  /** How many times it is made. */
  batch: whole('batch').default(1),
  mount: mountSchema,
  layers: z.array(layerSchema).max(MOST.layers),
  papers: z.array(paperSchema).max(MOST.papers),
  /** Pictures that its layers are printed with. */
  pictures: z.array(pictureSchema).max(MOST.pictures).default([]),
})

/** A pad that the maker put where it is: its middle, mm in the project's frame, and its turn in degrees. */
export const handPadSchema = z.looseObject({
  id,
  layerId: id,
  pieceId: id,
  x: coordinateMm,
  y: coordinateMm,
  rotation: within('turnDeg'),
  /** Radius of the arc that a strip is bent along, less than 0 to its other side; null where it is straight. */
  bendMm: coordinateMm.nullable().default(null),
  /** Foams stacked for it, thickest first. */
  foamIds: z.array(z.string().min(1).max(200)).min(1).max(5),
})

/** A spot under a layer where no pad is wanted. */
export const padFreeSchema = z.looseObject({
  layerId: id,
  x: coordinateMm,
  y: coordinateMm,
  radiusMm: within('sizeMm').max(500),
})

/** What the maker decided about cutting, foam and assembly. */
export const planSchema = z.looseObject({
  /** How many of the whole work are made. */
  batch: whole('batch').default(1),
  /** Projects whose pieces are cut along with this one's. */
  guests: z.array(guestSchema).max(MOST.guests).default([]),
  /** The project whose sheets this one's pieces are cut from; null where it has sheets of its own. */
  cutWith: z
    .looseObject({ projectId: id, name: z.string().max(MOST.name) })
    .nullable()
    .default(null),
  /** Between pieces on a sheet. */
  gapMm: lengthMm.default(2),
  turns: z.enum(['free', 'quarter', 'fixed']).default('quarter'),
  pins: z.array(pinSchema).max(MOST.pins).default([]),
  cutOrder: z.enum(['changes', 'build', 'hand']).default('changes'),
  /** Steps that the maker wants before others, by their ids. */
  stepOrder: z
    .array(z.looseObject({ first: z.string().min(1).max(400), then: z.string().min(1).max(400) }))
    .max(MOST.entries)
    .default([]),
  /** Ids of loads in the order that the maker laid down; loads that are not named come after them. */
  loadOrder: z.array(z.string().max(400)).max(MOST.entries).default([]),
  /** Whether off-cuts of the drawer are cut before whole sheets. */
  useOffCuts: z.boolean().default(true),
  /** Which of its first layouts a paper takes, by the paper's id: another seed lays everything anew that is not pinned. */
  layoutSeeds: z.record(z.string(), z.number().int().min(1).max(1_000_000_000)).default({}),
  /** How folio numbers come onto the card: by a pen, by open cuts of the blade, or not at all. */
  numbers: z.enum(['drawn', 'cut', 'none']).default('drawn'),
  /** Small crosses, drawn where the piece to be stuck there hides them. */
  placeMarks: z.boolean().default(false),
  profile: z.enum(['even', 'front', 'hero']).default('even'),
  heroLayerId: id.nullable().default(null),
  thrift: z.enum(['sparing', 'steady', 'sale']).default('steady'),
  litFromBehind: z.boolean().default(false),
  /** From how far aside (degrees) no pad may show. */
  viewingDeg: within('viewingDeg').default(30),
  /** Card that must stay free around a pad even with no gap. */
  padMarginMm: within('padMarginMm').default(1),
  /** Farthest that any point may be from a pad; null takes the thrift's value. */
  padSpanMm: within('padSpanMm').nullable().default(null),
  /** Where foam fills what the stack leaves of a frame's depth: behind the backing sheet, or before the work under the lip. */
  fill: z.enum(['behind', 'lip']).default('behind'),
  /** Pads that the maker put, and spots that are to stay free: the plan goes round them. */
  handPads: z.array(handPadSchema).max(MOST.pins).default([]),
  padFree: z.array(padFreeSchema).max(MOST.pins).default([]),
  direction: z.enum(['face-up', 'face-down']).default('face-up'),
  /** A date for which the work is to be ready, as a wall clock tells it, and the evenings on which it is worked at (days from Sunday, 0). */
  due: z
    .looseObject({
      by: z.string().regex(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/),
      from: z.string().regex(/^\d{1,2}:\d{2}$/),
      to: z.string().regex(/^\d{1,2}:\d{2}$/),
      days: z.array(z.number().int().min(0).max(6)).max(7),
    })
    .nullable()
    .default(null),
  alignment: z.enum(['corner-jig', 'centre-mark', 'one-edge', 'by-eye']).default('corner-jig'),
  adhesiveId: id.nullable().default(null),
  /** The hot plate that film is pressed on with. */
  plate: sizeSchema.prefault({ widthMm: 230, heightMm: 230 }),
  /** Layers whose colours are meant to run on evenly, by their ids, each ramp by itself. */
  ramps: z.array(z.array(id).max(MOST.layers)).max(MOST.layers).default([]),
  /** Findings that the maker means so, by their kind and the layer they are about: they are no longer told. */
  meant: z
    .array(z.looseObject({ code: z.string().min(1).max(80), layer: id.nullable() }))
    .max(MOST.entries)
    .default([]),
  /** How many work at it. */
  people: z.number().int().min(1).max(12).default(1),
  /** Whether what lies on a glued layer goes on while that is wet, waits where it touches the joint, or waits for every joint. */
  glueWait: z.enum(['go on', 'touching', 'each']).default('touching'),
  /** Of a batch: each step for all of it, or one piece after the other. */
  batchWay: z.enum(['by station', 'one by one']).default('by station'),
  /** Each time that twice as many are made, one takes this share of the time of one before. */
  batchRate: within('batchRate').default(0.92),
  /** Of one printed page, ink and paper beside the card. */
  printPrice: within('price').default(0.4),
  /** How many times the glue that is laid is used up: some stays in the nozzle, on the brush, or dries in the bottle. */
  glueLost: within('glueLost').default(2),
  /** What an hour of the maker's hands costs, for the price. */
  hourlyRate: within('hourlyRate').default(12),
  pricing: pricingSchema.prefault({}),
  /** Things of our list with the maker's price or amount, and others. */
  parts: z.array(partSchema).max(MOST.papers).default([]),
  /** Whether the plan takes what was learned; else our own values. */
  learns: z.boolean().default(true),
})

/** Layers that are one part: built, moved and copied as one. */
export const assemblySchema = z.looseObject({
  id,
  name,
  /** The part that it lies in. */
  parentId: id.nullable().default(null),
  /** Built on the bench and laid on the stack as one, where that can be; else layer by layer in its place. */
  apart: z.boolean().default(true),
})

/** What is done. */
export const progressSchema = z.looseObject({
  /** Steps that are ticked, by their ids. */
  done: z.array(z.string().max(400)).max(MOST.ticks).default([]),
  /** What each ticked step took out of the drawer: given back when it is unticked. */
  took: z
    .array(
      z.looseObject({
        stepId: z.string().max(400),
        foams: z
          .array(
            z.looseObject({
              foamId: id,
              count: whole('count'),
              /** So many of them were not in the drawer: they are not given back. */
              missing: whole('count').default(0),
            }),
          )
          .max(MOST.foams),
      }),
    )
    .max(MOST.ticks)
    .default([]),
  /** What dries or takes hold by itself, and when it will have; ms since 1970. */
  drying: z
    .array(z.looseObject({ stepId: z.string().max(400), title: z.string().max(400), endsAt: time }))
    .max(MOST.ticks)
    .default([]),
})

/** Why a piece that was cut is no longer of use. */
export const SPOILT = ['torn', 'lost', 'wrong colour', 'test cut', 'not cut through'] as const

/** A sheet that has been cut: what is changed afterwards neither moves nor renames anything on it. */
export const cutSheetSchema = z.looseObject({
  /** Of the load that it was. */
  id: z.string().min(1).max(400),
  number: whole('count'),
  at: time,
  /** The paper as it was then. */
  paper: paperSchema,
  onOffCut: z.looseObject({ id: z.string().max(400), label: z.string().max(MOST.name) }).nullable(),
  /** What was cut into, mm from its corner. */
  outline: path,
  minutes: within('minutes'),
  /** How far the blade went, mm, and the mat that it lay on. */
  outlineMm: z.number().min(0).max(10_000_000).default(0),
  mat: z
    .looseObject({ matId: id, name: z.string().max(MOST.name) })
    .nullable()
    .default(null),
  pieces: z
    .array(
      z.looseObject({
        layerId: z.string().min(1).max(400),
        pieceId: id,
        folio: z.string().max(40),
        layerName: z.string().max(2 * MOST.name),
        guestId: id.nullable(),
        loose: z.boolean(),
        /** It bears its number, drawn or cut. */
        numbered: z.boolean().default(true),
        printed: z.boolean(),
        /** Its outline as it was cut, in its layer's place. */
        path,
        /** Where it lay on the sheet. */
        x: coordinateMm,
        y: coordinateMm,
        rotation: within('turnDeg'),
        /** Null where it is whole. */
        spoilt: z.enum(SPOILT).nullable().default(null),
      }),
    )
    .max(MOST.pieces),
  /** What left the shared drawer for it, and what came in. */
  took: z.looseObject({
    sheets: whole('count'),
    offCut: z.looseObject({ id, label: z.string().max(MOST.name), path }).nullable(),
    keptIds: z.array(id).max(MOST.offCuts),
  }),
})

/** A whole project, as it stands in its file. */
export const projectSchema = z.looseObject({
  format: z.literal('feuillet'),
  schemaVersion: z.literal(SCHEMA_VERSION),
  id,
  name,
  unit: z.enum(['mm', 'in']).default('mm'),
  mount: mountSchema,
  /** Back to front. */
  layers: z.array(layerSchema).max(MOST.layers),
  assemblies: z.array(assemblySchema).max(MOST.layers).default([]),
  /** Which layers a maker grew, and how. */
  grown: z.array(grownSchema).max(MOST.layers).default([]),
  /** Pictures that layers are printed with. */
  pictures: z.array(pictureSchema).max(MOST.pictures).default([]),
  /** The papers this project uses and the foam, glue and cutter it is planned with. */
  drawer: drawerSchema,
  plan: planSchema.prefault({}),
  progress: progressSchema.prefault({}),
  /** Sheets that have been cut, in the order in which they were. */
  cut: z.array(cutSheetSchema).max(MOST.entries).default([]),
  journal: journalSchema.prefault({}),
  rights: rightsSchema.prefault({}),
})

/** See projectSchema. */
export type Project = z.infer<typeof projectSchema>
/** See mountSchema. */
export type Mount = z.infer<typeof mountSchema>
/** A mount as a file may have it: what is left out takes its default. */
export type NewMount = z.input<typeof mountSchema>
/** Kinds of work. */
export type MountKind = Mount['kind']
/** A mount that is a frame. */
export type FrameMount = Extract<Mount, { kind: 'frame' }>
/** See layerSchema. */
export type Fold = z.infer<typeof foldSchema>
/** See layerSchema. */
export type Tie = z.infer<typeof tieSchema>
/** See layerSchema. */
export type Layer = z.infer<typeof layerSchema>
/** One connected face of a layer, as path data. */
export type Piece = Layer['pieces'][number]
/** See printSchema. */
export type Print = z.infer<typeof printSchema>
/** See pictureSchema. */
export type Picture = z.infer<typeof pictureSchema>
/** See assemblySchema. */
export type Assembly = z.infer<typeof assemblySchema>
/** See pieceJointSchema. */
export type PieceJoint = z.infer<typeof pieceJointSchema>
/** See jointSchema. */
export type Joint = z.infer<typeof jointSchema>
/** See tintSchema. */
export type Tint = z.infer<typeof tintSchema>
/** See inkSchema. */
export type Ink = z.infer<typeof inkSchema>
/** See matSchema. */
export type Mat = z.infer<typeof matSchema>
/** One of SPREADS. */
export type Spread = (typeof SPREADS)[number]
/** One of ROLES. */
export type Role = (typeof ROLES)[number]
/** See paperSchema. */
export type Paper = z.infer<typeof paperSchema>
/** One of FINISHES. */
export type Finish = (typeof FINISHES)[number]
/** See pressSchema. */
export type Press = z.infer<typeof pressSchema>
/** See foamSchema. */
export type Foam = z.infer<typeof foamSchema>
/** See adhesiveSchema. */
export type Adhesive = z.infer<typeof adhesiveSchema>
/** See cutterSchema. */
export type Cutter = z.infer<typeof cutterSchema>
/** See settingSchema. */
export type Setting = z.infer<typeof settingSchema>
/** See cutSheetSchema. */
export type CutSheet = z.infer<typeof cutSheetSchema>
/** One of SPOILT. */
export type Spoilt = (typeof SPOILT)[number]
/** See handPadSchema. */
export type HandPad = z.infer<typeof handPadSchema>
/** See drawerSchema. */
export type Drawer = z.infer<typeof drawerSchema>
/** A copy of a piece fixed to a place on a sheet. */
export type Pin = z.infer<typeof pinSchema>
/** Another project whose pieces are cut along. */
export type Guest = z.infer<typeof guestSchema>
/** See planSchema. */
export type Plan = z.infer<typeof planSchema>
/** One of STAGES. */
export type Stage = (typeof STAGES)[number]
/** See journalSchema. */
export type Journal = z.infer<typeof journalSchema>
/** See makeSchema. */
export type Make = z.infer<typeof makeSchema>
/** One of FATES. */
export type Fate = (typeof FATES)[number]
/** See observationSchema. */
export type Observation = z.infer<typeof observationSchema>
/** See partSchema. */
export type Part = z.infer<typeof partSchema>
/** See pricingSchema. */
export type Pricing = z.infer<typeof pricingSchema>
/** See rightsSchema. */
export type Rights = z.infer<typeof rightsSchema>
/** A step with what it took. */
export type StepNote = Journal['steps'][number]
/** A run of the cutter, as it is noted. */
export type CutRun = Journal['runs'][number]

/** The project document as JSON Schema (draft 2020-12), as published in docs/feuillet.schema.json. */
export const projectJsonSchema = () => ({
  title: 'Feuillet project',
  ...z.toJSONSchema(projectSchema, { io: 'input' }),
})
