// What the maker decided: about sheets, pads, steps and price.
import { z } from 'zod'
import { coordinateMm, id, lengthMm, name, whole, within } from './fields'
import { MOST } from '../limits'
import { paperSchema } from './drawer'
import { partSchema, pricingSchema } from './journal'
import { layerSchema, pictureSchema } from './layer'
import { mountSchema, sizeSchema } from './mount'
import { cutPiecesSchema, spoiltElsewhereSchema } from './progress'

/** Where the maker fixed a piece by hand: mm from the corner of the n-th sheet (from 0) of a paper. */
export const pinSchema = z.looseObject({
  layerId: id,
  pieceId: id,
  copy: whole('count'),
  /** From 0; off-cut k of the paper, small ones first, is −1 − k. */
  sheet: z.number().int().min(-1000).max(100_000),
  /** Names what a negative number stood for, since off-cuts come and go; empty in older documents. */
  on: z.string().max(400).default(''),
  x: coordinateMm,
  y: coordinateMm,
  rotation: within('turnDeg'),
})

/** A copy of a piece fixed to a place on a sheet. */
export type Pin = z.infer<typeof pinSchema>

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
  /** What of it was cut before it came along, on its own sheets or on others. */
  cut: z.array(cutPiecesSchema).max(MOST.entries).default([]),
  /** What of its pieces on this project's cut sheets it has spoilt since. */
  spoilt: z.array(spoiltElsewhereSchema).max(MOST.pieces).default([]),
})

/** Another project whose pieces are cut along. */
export type Guest = z.infer<typeof guestSchema>

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

/** See handPadSchema. */
export type HandPad = z.infer<typeof handPadSchema>

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
  /**
   * How the sizes of a paper were mixed when a sheet of it was cut, by the id of its run: what is left stays as it lies for as long as the same is
   * asked for. Ids of papers.
   */
  mixes: z
    .record(
      z.string(),
      z.looseObject({ asked: z.string().max(400), main: id, others: z.array(id).max(MOST.entries) }),
    )
    .default({}),
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

/** See planSchema. */
export type Plan = z.infer<typeof planSchema>
