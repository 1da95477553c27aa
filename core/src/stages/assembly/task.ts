import type { Said } from '../../base/units'
import type { Adhesive, FoamCount, Ink, Layer, Press } from '../../project'
import type { GlueAmount, Shim } from '../depth'
import type { Load } from '../sheets'

/** What a step is about. */
export type StepKind =
  | 'prepare'
  | 'print'
  | 'cut'
  | 'weed'
  | 'score'
  | 'shape'
  | 'colour'
  | 'press'
  | 'dry-fit'
  | 'pad'
  | 'glue'
  | 'lay'
  | 'dry'
  | 'mount'
  | 'glaze'
  | 'close'

/** What is busy with a step. */
export type Resource = 'cutter' | 'hands'

/** What the first layer is laid on. */
export type Ground = 'bench' | 'bench in its place' | 'board' | 'fabric' | 'card' | 'canvas' | 'wood'

/** What the wording of a job needs to know beside its kind. */
export type About =
  | { step: 'prepare'; sheets: number; pads: number }
  /** Pictures onto a sheet before it is cut, and their ink dry. */
  | { step: 'print'; load: Load; pieces: number }
  | { step: 'ink'; load: Load }
  | { step: 'cut'; load: Load; first: boolean }
  | { step: 'weed'; load: Load; pieces: number; holes: number; loose: number }
  | { step: 'score'; layer: Layer }
  /** Curled, cupped or rolled by hand. */
  | { step: 'shape'; layer: Layer }
  /** By hand, with an ink, its edges with another; then it dries. */
  | { step: 'colour'; layer: Layer; ink: Ink | null; edge: Ink | null }
  | { step: 'colour-dries'; layer: Layer; minutes: number }
  /** Film onto the card right below it, by a hot plate that is set down so often. */
  | { step: 'press'; layer: Layer; onto: Layer[]; press: Press | null; presses: number }
  /** So many layers of the stack, and so many that the frame or the pane bears. */
  | { step: 'dry-fit'; layers: number; aside: number }
  /** The first layer of the stack, from whichever side. */
  | {
      step: 'start'
      layer: Layer
      faceDown: boolean
      pads: PadCount[]
      ground: Ground
      pins: number
      asOne?: BuiltPart
    }
  /** The hindmost layer of a part that is built on the bench. */
  | { step: 'begin'; layer: Layer; part: string }
  /** Pads on the back of `layer`; face down it lies on the stack already. */
  | { step: 'pad'; layer: Layer; pads: PadCount[] }
  /** `glued` pieces of a padded layer are too narrow for a pad; `onWet`, what lies beneath is glued and wet still. */
  | {
      step: 'lay'
      layer: Layer
      faceDown: boolean
      pads: number
      glued: number
      /** Pieces of it that the maker wants glued flat. */
      flat: GlueCount[]
      onWet: boolean
      asOne?: BuiltPart
      on?: string
    }
  /** With the joint's own glue; null where the project names none. */
  | {
      step: 'glue'
      layer: Layer
      glue: Adhesive | null
      amount: GlueAmount | null
      /** Pieces that take another glue. */
      others: GlueCount[]
      faceDown: boolean
      pads: number
      onWet: boolean
      asOne?: BuiltPart
      /** The part on the bench that it goes onto; absent where that is the stack. */
      on?: string
    }
  | { step: 'hold'; layer: Layer; glue: Adhesive | null }
  /** Of several glues the one that dries the longest. */
  | { step: 'dry'; glue: Adhesive | null }
  | { step: 'mount-frame'; shim: Shim | null }
  | { step: 'glaze' }
  | { step: 'close'; airMm: number; ring: boolean; mat: boolean; hanger: boolean }
  | { step: 'mount-panel'; surface: 'canvas' | 'wood' }
  | { step: 'mount-card'; stackMm: number }
  /** `places` from the left edge, mm. */
  | { step: 'mount-sticks'; sticks: number; places: number[] }
  /** The piece that hides the sticks. */
  | { step: 'cover'; layer: Layer }
  | { step: 'dry-sticks' }
  /** Held in the frame by its folded bars. */
  | { step: 'stand'; layer: Layer }
  /** Sheets of foam that stand the work off the pane. */
  | { step: 'stand-off'; sheets: number; thicknessMm: number; mat: boolean }
  /** So many pads of one build before the work, under the lip. */
  | { step: 'lip-pads'; count: number; mm: number; foams: readonly string[] }
  /** Film or card onto the pane. */
  | { step: 'on-pane'; layer: Layer }
  /** A flag onto the twine, the `nth` from the left of so many; which end of the twine is left free before or behind it. */
  | { step: 'flag'; layer: Layer; nth: number; of: number; gapMm: number; endsMm: number; isFolded: boolean }

/** A part that was built on the bench and is laid as one: its hindmost layer is the one that the step names. */
export interface BuiltPart {
  name: string
  layers: number
}

/** So many pieces with one glue; null where the project names none. */
export interface GlueCount {
  glue: Adhesive | null
  count: number
}

/** So many pads of one kind. */
export interface PadCount {
  /** Height, mm. */
  mm: number
  count: number
  /** Sides, mm. */
  size: readonly [number, number]
  /** The foams of one, stacked from the thickest on. */
  foams: readonly string[]
  /** To peel and set one. */
  seconds: number
  /** Strips that are bent along a curve. */
  bent: boolean
}

/** A task of the graph: what it waits for and how long it takes, without a word. */
export interface Job {
  /** Stays the same when the plan is made again: ticks hang on it. */
  id: string
  kind: StepKind
  /** Ids of jobs that must be done before. What is not in the plan counts as done. */
  after: string[]
  /** What is busy with it; a drying step needs nothing. */
  needs: Resource[]
  minutes: number
  /** So many minutes at its beginning take hands as well, that put a sheet in; absent where none do, or hands are needed all along. */
  handsMin?: number
  /** By our own values, where something was learned; else as above. */
  oursMin?: number
  layerId: string | null
  loadId: string | null
  /** The one piece of its layer that it is about; absent where it is about all of them. */
  pieceId?: string
  /** The part that it takes up as one, and the layers of it; its own is the hindmost. */
  asOne?: { partId: string; layerIds: readonly string[] }
  /** Layers that it comes onto or over: the hindmost, and of those on it only the uppermost; absent where nothing is laid. */
  onto?: readonly string[]
  /** Layers of a part that must lie on the bench before it, where it is built there; absent on the stack. */
  onBench?: readonly string[]
  /** Which of a batch that is made one by one, from 1. */
  nth?: number
  /** Foam that it uses up for one of the batch, single pads. */
  takes?: readonly FoamCount[]
}

/** What keeps cutter and hands busy. */
export type Work = Pick<Job, 'needs' | 'minutes' | 'handsMin'>

/** Minutes of a pair of hands. */
export const handsMinutesOf = ({ needs, minutes, handsMin = 0 }: Work): number =>
  needs.includes('hands') ? minutes : Math.min(minutes, handsMin)

/** A job of the graph with what its wording needs. */
export interface Untold extends Job {
  about: About
}

/** A job as the maker reads it. */
export interface Task extends Job {
  title: string
  /** What to do and to watch, for the bench. */
  detail: Said
  /** The usual caution where someone can be hurt or a sheet lost. */
  caution: string | null
}

/** A task with its times, minutes from the start of the work. */
export interface Step extends Task {
  startMin: number
  endMin: number
}

/** All steps of a work. */
export interface AssemblyPlan {
  /** In the order in which they start. */
  steps: Step[]
  /** From the first step to the end of the last, drying included. */
  minutes: number
  /** Minutes of the maker's hands. */
  handsMinutes: number
}
