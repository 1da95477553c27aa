// What the work will live in: frames, cards, panels and whatever else holds it.
import { z } from 'zod'
import { coordinateMm, id, lengthMm, name, sizeMm, whole, within } from './fields'
import { LIMITS, STICK_MOST_MM } from '../limits'

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
        widthMm: within('sizeMm').max(STICK_MOST_MM).default(4),
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

/** See mountSchema. */
export type Mount = z.infer<typeof mountSchema>

/** A mount as a file may have it: what is left out takes its default. */
export type NewMount = z.input<typeof mountSchema>

/** Kinds of work. */
export type MountKind = Mount['kind']

/** A mount that is a frame. */
export type FrameMount = Extract<Mount, { kind: 'frame' }>

/** A frame, panel, card or topper that was measured once, under a name, to be taken for other projects. */
export const measuredSchema = z.looseObject({ id, name, mount: mountSchema })

/** See measuredSchema. */
export type Measured = z.infer<typeof measuredSchema>
