// What the work took, what it is worth, and what it taught.
import { z } from 'zod'
import { id, name, time, whole, within } from './fields'
import { MOST } from '../limits'

/** The stages in the order of the work. */
export const STAGES = ['measure', 'layers', 'paper', 'sheets', 'depth', 'assembly', 'journal'] as const

/** What became of a piece that was made. */
export const FATES = ['kept', 'given', 'sold'] as const

/** A piece, or several alike, that were made. */
export const makeSchema = z.looseObject({
  id,
  /** When, ms since 1970. */
  at: time,
  count: whole('batch').default(1),
  fate: z.enum(FATES).default('kept'),
  /** For whom, or to whom. */
  whom: z.string().max(MOST.name).default(''),
  /** Of one, in the drawer's currency; 0 where it was not sold. */
  price: within('price').default(0),
  note: z.string().max(MOST.note).default(''),
  /** Names the outlines, papers and joints that it was made from; empty where that was not noted. */
  version: z.string().max(200).default(''),
})

/** What a step took, kept for all projects: the next plan learns from it. Times in minutes. */
export const observationSchema = z.looseObject({
  id,
  /** What was done, a kind of step; and with what: a foam, a glue, a cutter and paper. */
  what: z.string().min(1).max(60),
  of: z.string().max(400).default(''),
  project: name,
  oursMin: within('minutes'),
  minutes: within('minutes'),
  at: time,
  /** Whether it counts however far off it is: yes or no as the maker said; null where nothing was said. */
  counts: z.boolean().nullable().default(null),
})

/** A thing that the work takes beside paper, foam and glue; where it is of our list what is set here goes before ours. */
export const partSchema = z.looseObject({
  id,
  what: name,
  /** For one of the batch. */
  amount: within('price'),
  unit: z.string().max(40).default(''),
  /** Of one unit. */
  price: within('price'),
})

/** Ways to come to a price. */
export const PRICE_WAYS = ['mark-up', 'wage', 'price'] as const

/** How a price is found; money in the drawer's currency, shares from 0 to 1. */
export const pricingSchema = z.looseObject({
  way: z.enum(PRICE_WAYS).default('mark-up'),
  /** On what it costs, hands included. */
  markUp: z.number().min(0).max(100).default(0.3),
  /** An hour that the hands are to bring, all else paid. */
  wage: within('hourlyRate').default(15),
  /** What is to be asked for. */
  wished: within('price').default(20),
  /** What a fair or shop takes of the price, and of each piece. */
  feeShare: z.number().min(0).max(0.95).default(0),
  feeFixed: within('price').default(0),
  packing: within('price').default(0),
  postage: within('price').default(0),
  /** Tax that is in the price, as the maker types it. */
  taxRate: z.number().min(0).max(1).default(0),
  /** Prices are rounded up to a multiple of this; 0 leaves them. */
  roundTo: within('price').default(0.5),
  /** Of a stall, for as long as it stands. */
  stall: within('price').default(0),
  /** Whether whole sheets are paid for, or what of them is not kept. */
  paperBy: z.enum(['sheets', 'share']).default('sheets'),
})

/** Where a design comes from, and what may be done with it. */
export const rightsSchema = z.looseObject({
  /** Of whom; empty where it is the maker's own. */
  source: z.string().max(MOST.name).default(''),
  use: z.enum(['own design', 'own use only', 'may be sold']).default('own design'),
  /** How many may be sold; null for any number. */
  most: whole('count').nullable().default(null),
  /** Words that must stand with it. */
  credit: z.string().max(MOST.note).default(''),
})

/** What happened: clocks, sheets used, runs of the cutter, a note. */
export const journalSchema = z.looseObject({
  /** Times in ms since 1970; a running timer has no end. */
  timers: z
    .array(z.looseObject({ stage: z.enum(STAGES), startedAt: time, endedAt: time.nullable() }))
    .max(MOST.entries)
    .default([]),
  sheetsUsed: z
    .array(z.looseObject({ paperId: id, count: whole('count'), at: time }))
    .max(MOST.entries)
    .default([]),
  /** Loads that a cutter has cut; times in ms since 1970, machine time in minutes. */
  runs: z
    .array(
      z.looseObject({
        loadId: z.string().min(1).max(400),
        paper: z.string().max(MOST.name),
        startedAt: time,
        minutes: within('minutes'),
        passes: whole('passes'),
        outcome: z.enum(['cut', 'partly', 'cancelled']),
      }),
    )
    .max(MOST.entries)
    .default([]),
  /** What single steps took, as the bench's clock or the maker noted it. */
  steps: z
    .array(
      z.looseObject({
        stepId: z.string().min(1).max(400),
        kind: z.string().max(60),
        title: z.string().max(400),
        /** For how many of the batch. */
        made: whole('batch').default(1),
        /** As planned then, and as planned by our own values; minutes. */
        plannedMin: within('minutes'),
        oursMin: within('minutes'),
        minutes: within('minutes'),
        at: time,
        /** The maker said that it is no outlier: it counts however far off it is. */
        counts: z.boolean().nullable().default(null),
      }),
    )
    .max(MOST.entries)
    .default([]),
  note: z.string().max(MOST.note).default(''),
  /** What was made, when, for whom, and for how much. */
  makes: z.array(makeSchema).max(MOST.entries).default([]),
  /** Pictures of the work: JPEG files, base64. */
  photos: z
    .array(
      z.looseObject({
        id,
        caption: z.string().max(MOST.note).default(''),
        at: time,
        data: z.string().min(1).max(MOST.pictureCharacters),
      }),
    )
    .max(MOST.pictures)
    .default([]),
})

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
