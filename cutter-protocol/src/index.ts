/**
 * What passes between the page and the simulated machine: the load that is sent, the commands, and the state that comes back.
 * Both sides check by the same schemas. Lengths in mm from the sheet's top left corner, times in ms since 1970 or in seconds.
 */
import { z } from 'zod'

const sideMm = z.number().positive().max(5000)
const passes = z.number().int().min(1).max(20)

/** A sheet to be cut, with everything that the machine must know of it. */
export const loadSchema = z.object({
  /** Unlike that of any other load: the project's id and the load's. */
  id: z.string().min(1).max(400),
  name: z.string().max(200),
  /** What the sheet's tag says; the maker confirms it. */
  tag: z.string().min(1).max(400),
  colour: z.string().regex(/^#[0-9a-f]{6}$/i),
  plot: z.string().max(12_000_000),
  sheet: z.object({ widthMm: sideMm, heightMm: sideMm, rimMm: z.number().min(0).max(2000) }),
  setting: z.object({ name: z.string().max(100), tack: z.string().max(20), passes }),
  /** Passes that this paper needs with a sharp blade. */
  passesNeeded: passes,
  pace: z.object({
    speedMmPerS: z.number().positive().max(5000),
    /** With the tool lifted. */
    travelMmPerS: z.number().positive().max(1e12).default(150),
    accelMmPerS2: z.number().positive().max(1e18).default(600),
    cornerS: z.number().min(0).max(60),
    liftS: z.number().min(0).max(600),
  }),
})

export const FAULTS = ['slip', 'blunt', 'power'] as const
export const STATUSES = [
  'idle',
  'asking',
  'cutting',
  'paused',
  'slipped',
  'off',
  'done',
  'cancelled',
] as const

/** Commands with what they carry. Those about a load name it, so that no page meddles with another's. */
export const commandSchemas = {
  load: loadSchema,
  confirm: z.object({ id: z.string().max(400), tag: z.string().max(400) }),
  pause: z.object({ id: z.string().max(400) }),
  resume: z.object({ id: z.string().max(400) }),
  cancel: z.object({ id: z.string().max(400) }),
  again: z.object({ id: z.string().max(400) }),
  power: z.object({}),
  speed: z.object({ speed: z.number().min(1).max(200) }),
  fault: z.object({ fault: z.enum(FAULTS), on: z.boolean() }),
  /** A page has put an ended run into its journal: the machine may forget it. */
  noted: z.object({ id: z.string().max(400), startedAt: z.number() }),
} as const

/** A run that has ended; times in ms since 1970. */
export const endedRunSchema = z.object({
  id: z.string(),
  name: z.string(),
  startedAt: z.number(),
  ranS: z.number(),
  passes: z.number().int(),
  outcome: z.enum(['cut', 'partly', 'cancelled']),
})

/** What the machine says of itself. */
export const stateSchema = z.object({
  status: z.enum(STATUSES),
  load: loadSchema.omit({ plot: true }).nullable(),
  /** Null while nothing is loaded. */
  tool: z.object({ x: z.number(), y: z.number(), down: z.boolean() }).nullable(),
  /** Moves of the plot that are done in this pass: every way of the tool is a lift and then its points. */
  movesDone: z.number().int().min(0),
  share: z.number(),
  secondsLeft: z.number(),
  pass: z.number().int(),
  passes: z.number().int(),
  speed: z.number(),
  faults: z.object({ slip: z.boolean(), blunt: z.boolean(), power: z.boolean() }),
  /** How a finished run came out. */
  outcome: z.enum(['cut', 'partly']).nullable(),
  /** Machine time of the run so far, all its passes (s); going over it again is a run of its own. */
  ranS: z.number(),
  startedAt: z.number().nullable(),
  endedAt: z.number().nullable(),
  /** Runs that have ended and that no page has noted yet, the oldest first. */
  unnoted: z.array(endedRunSchema),
})

/** Why a command is refused, in one sentence. */
export const refusalSchema = z.object({ why: z.string() })

export type CutterLoad = z.infer<typeof loadSchema>
export type CutterState = z.infer<typeof stateSchema>
export type EndedRun = z.infer<typeof endedRunSchema>
export type CutterStatus = CutterState['status']
export type Fault = (typeof FAULTS)[number]
export type CutterCommand = keyof typeof commandSchemas
export type CommandBody<Name extends CutterCommand> = z.infer<(typeof commandSchemas)[Name]>
