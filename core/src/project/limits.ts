// What a maker could mean, and no more: the bounds of every number in a document. Fields on screen take theirs from here.

/** Bounds of numbers: [least, most]. Lengths in mm, times in the unit of their name. */
export const LIMITS = {
  /** A side of a sheet, frame, panel or bed. */
  sizeMm: [0.01, 5000],
  /** A rim, air, clearance, gap between pieces. */
  lengthMm: [0, 2000],
  /** A coordinate of an outline. */
  coordinateMm: [-20_000, 20_000],
  /** A print beyond the outline. */
  bleedMm: [0, 20],
  /** A side of a picture. */
  pixels: [1, 30_000],
  foamHeightMm: [0, 200],
  thicknessMm: [0.01, 50],
  gsm: [1, 10_000],
  padSpanMm: [2, 1000],
  padMarginMm: [0, 200],
  viewingDeg: [0, 60],
  copies: [1, 200],
  spares: [0, 50],
  batch: [1, 200],
  sticks: [0, 4],
  flags: [1, 500],
  count: [0, 1_000_000],
  perPack: [1, 1_000_000],
  price: [0, 1_000_000],
  hourlyRate: [0, 10_000],
  batchRate: [0.5, 1],
  glueLost: [1, 20],
  minutes: [0, 100_000],
  speedMmPerS: [0.1, 5000],
  holdsKPa: [0, 100_000],
  /** A share by which foam gives. */
  give: [0, 0.5],
  /** Seconds to peel and set a pad. */
  peelS: [0, 3600],
  accelMmPerS2: [1, 100_000],
  forceG: [1, 10_000],
  cornerS: [0, 60],
  liftS: [0, 600],
  overcutMm: [0, 20],
  turnDeg: [-3600, 3600],
  passes: [1, 20],
  /** Milliseconds since 1970. */
  time: [-8.64e15, 8.64e15],
} as const satisfies Record<string, readonly [number, number]>

/** How many of a thing a document may hold. */
export const MOST = {
  layers: 500,
  pieces: 20_000,
  /** Corners of all outlines together. */
  corners: 4_000_000,
  folds: 2000,
  ties: 2000,
  papers: 3000,
  foams: 300,
  adhesives: 300,
  offCuts: 500,
  pins: 20_000,
  pictures: 60,
  /** Of a picture, base64: some 12 MB. */
  pictureCharacters: 16_000_000,
  guests: 6,
  ticks: 50_000,
  entries: 20_000,
  name: 200,
  note: 200_000,
  /** Characters of a document, and how deep its values may lie in each other. */
  characters: 150_000_000,
  depth: 60,
} as const

/** A topper's stick is no wider, mm. */
export const STICK_MOST_MM = 40
