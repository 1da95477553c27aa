// Layers: their pieces, what holds them, and what is printed on them; and parts made of layers.
import { z } from 'zod'
import { colour, coordinateMm, id, lengthMm, name, path, whole, within } from './fields'
import { MOST } from '../limits'

/** Ways to spread glue. */
export const SPREADS = ['dots', 'beads', 'coat'] as const

/** One of SPREADS. */
export type Spread = (typeof SPREADS)[number]

/** A piece with a joint of its own: its glue, null for that of the layer. */
export const pieceJointSchema = z.looseObject({
  pieceId: id,
  /** Its glue; null for that of its layer. */
  adhesiveId: id.nullable().default(null),
  /** Height of the foam under it; without one it is glued. */
  gapMm: within('foamHeightMm').optional(),
})

/** See pieceJointSchema. */
export type PieceJoint = z.infer<typeof pieceJointSchema>

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

/** See jointSchema. */
export type Joint = z.infer<typeof jointSchema>

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

/** One of ROLES. */
export type Role = (typeof ROLES)[number]

/** A line to score and fold along. */
export const foldSchema = z.looseObject({
  /** x1, y1, x2, y2, mm in the project's frame. */
  line: z.tuple([coordinateMm, coordinateMm, coordinateMm, coordinateMm]),
  /** Whether the smaller part beside it is turned up, towards the eye, or down; it is scored on the other face. */
  way: z.enum(['up', 'down']).default('up'),
  /** By how much it is turned out of the flat, degrees. */
  deg: z.number().min(0).max(180).default(30),
})

/** See layerSchema. */
export type Fold = z.infer<typeof foldSchema>

/** A strip of card that ties pieces of a layer. */
export const tieSchema = z.looseObject({
  /** Its middle line: x1, y1, x2, y2, mm in the project's frame. */
  line: z.tuple([coordinateMm, coordinateMm, coordinateMm, coordinateMm]),
  widthMm: lengthMm,
  /** The card that it added to the layer: path data as of a piece. */
  added: path,
})

/** See layerSchema. */
export type Tie = z.infer<typeof tieSchema>

const factor = z.number().min(-1000).max(1000)

/** A picture that is printed on a layer. */
export const printSchema = z.looseObject({
  pictureId: id,
  /** From pixels of the picture to mm in the project's frame: a, b, c, d, e, f, as in x' = ax + cy + e, y' = bx + dy + f. */
  map: z.tuple([factor, factor, factor, factor, coordinateMm, coordinateMm]),
  /** Printed so far beyond the outline, so that a cut a little aside shows no white; 0 for a white border. */
  bleedMm: within('bleedMm').default(2),
})

/** See printSchema. */
export type Print = z.infer<typeof printSchema>

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

/** See tintSchema. */
export type Tint = z.infer<typeof tintSchema>

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

/** See layerSchema. */
export type Layer = z.infer<typeof layerSchema>

/** One connected face of a layer, as path data. */
export type Piece = Layer['pieces'][number]

/** A picture as it is printed: a JPEG or PNG file, base64. */
export const pictureSchema = z.looseObject({
  id,
  name: z.string().max(MOST.name),
  type: z.enum(['image/jpeg', 'image/png']),
  data: z.string().min(1).max(MOST.pictureCharacters),
  pixelsWide: whole('pixels'),
  pixelsHigh: whole('pixels'),
})

/** See pictureSchema. */
export type Picture = z.infer<typeof pictureSchema>

/** Layers that are one part: built, moved and copied as one. */
export const assemblySchema = z.looseObject({
  id,
  name,
  /** The part that it lies in. */
  parentId: id.nullable().default(null),
  /** Built on the bench and laid on the stack as one, where that can be; else layer by layer in its place. */
  apart: z.boolean().default(true),
})

/** See assemblySchema. */
export type Assembly = z.infer<typeof assemblySchema>
