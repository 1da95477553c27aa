// What is done: steps that are ticked, and sheets that are cut.
import { z } from 'zod'
import { coordinateMm, id, path, time, whole, within } from './fields'
import { MOST } from '../limits'
import { paperSchema } from './drawer'

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
        things: z
          .array(
            z.looseObject({
              thingId: id,
              count: z.number().min(0).max(10_000_000),
              missing: z.number().min(0).max(10_000_000).default(0),
            }),
          )
          .max(MOST.adhesives)
          .default([]),
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

/** One of SPOILT. */
export type Spoilt = (typeof SPOILT)[number]

/** A sheet that has been cut: what is changed afterwards neither moves nor renames anything on it. */
export const cutSheetSchema = z.looseObject({
  /** Of the load that it was. */
  id: z.string().min(1).max(400),
  number: whole('count'),
  /** Which of the sheets, or of the off-cuts, of its paper it was, as its tag says; 0 where that was not noted. */
  nthOfRun: whole('count').default(0),
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

/** Whole pieces that were cut of one paper, on sheets that are in another book. */
export const cutPiecesSchema = z.looseObject({
  /** The paper as it was then. */
  paper: paperSchema,
  pieces: z
    .array(
      z.looseObject({
        layerId: z.string().min(1).max(400),
        pieceId: id,
        layerName: z.string().max(2 * MOST.name),
        /** Its outline as it was cut, in its layer's place. */
        path,
      }),
    )
    .max(MOST.pieces),
})

/** A piece that was cut elsewhere and came to grief since: one of those of its name, paper and outline. */
export const spoiltElsewhereSchema = z.looseObject({
  layerId: z.string().min(1).max(400),
  pieceId: id,
  paperId: id,
  path,
  why: z.enum(SPOILT),
})

/** What was cut of a project on another's sheets, as that one's book has it. */
export const cutElsewhereSchema = z.looseObject({
  projectId: id,
  name: z.string().max(MOST.name),
  sheets: z.array(cutPiecesSchema).max(MOST.entries),
  /** What of it was spoilt where it was built; the other's book does not know. */
  spoilt: z.array(spoiltElsewhereSchema).max(MOST.pieces).default([]),
})

/** See cutPiecesSchema. */
export type CutPieces = z.infer<typeof cutPiecesSchema>

/** See spoiltElsewhereSchema. */
export type SpoiltElsewhere = z.infer<typeof spoiltElsewhereSchema>

/** See cutElsewhereSchema. */
export type CutElsewhere = z.infer<typeof cutElsewhereSchema>

/** See cutSheetSchema. */
export type CutSheet = z.infer<typeof cutSheetSchema>
