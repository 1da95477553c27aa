/** Bench times of the hands: starting values of ours that the journal will correct. */
export const BENCH = {
  /** Peeling and setting one pad. */
  padSeconds: 8,
  gluePartSeconds: 10,
  /** Along the outline of what is glued, up to `glueCmMost`. */
  glueCmSeconds: 1,
  glueCmMost: 240,
  /** One opening. */
  weedSeconds: 1.5,
  /** A loose bit that is kept and belongs somewhere. */
  looseSeconds: 5,
  /** Taking one sheet off the mat. */
  peelMinutes: 0.3,
  prepareMinutes: 3,
  /** One printed sheet; its ink until it does not smear. */
  printMinutes: 4,
  inkMinutes: 15,
  /** Laying one layer on the stack. */
  layMinutes: 0.75,
  /** One fold, after taking the piece up. */
  scoreMinutes: 0.25,
  takeUpMinutes: 0.3,
  /** One piece curled or cupped; one strip rolled and glued. */
  curlMinutes: 0.6,
  rollMinutes: 3,
  /** One layer coloured by hand, and its edges. */
  colourMinutes: 4,
  colourEdgeMinutes: 2,
  dryFitMinutes: 2,
  dryFitLayerMinutes: 0.25,
  /** Fixing the stack to its board, the pane, and closing the frame, each. */
  frameMinutes: 3,
  cardMinutes: 2,
  stickMinutes: 2,
  /** A piece stood into the frame; a flag put on its twine. */
  standMinutes: 4,
  flagMinutes: 1,
  /** A pin set by hand. */
  pinMinutes: 0.3,
  /** The plate heats up; it is set down and moved on; film and card cool; a press where the label is not noted. */
  plateMinutes: 5,
  pressMinutes: 0.5,
  coolMinutes: 2,
  pressSeconds: 20,
  /** Film brought onto the pane. */
  paneMinutes: 5,
} as const

/** Where the project names no glue: its times. */
export const UNNAMED_GLUE = { handleMin: 10, dryMin: 60 } as const
