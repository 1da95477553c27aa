// How made layers were made: kept in the project so that a maker can be opened again and adjusted. Lengths in mm.
import { z } from 'zod'
import { LIMITS, MOST } from '../limits'

const mm = z.number().min(LIMITS.lengthMm[0]).max(LIMITS.lengthMm[1])
const some = z.number().min(LIMITS.sizeMm[0]).max(LIMITS.sizeMm[1])
const whole = (min: number, max: number) => z.number().int().min(min).max(max)

/** Steps of a silhouette, inwards or outwards. */
export const ladderRecipeSchema = z.looseObject({
  kind: z.literal('ladder'),
  /** The silhouette: path data as in pieces, at its true size. */
  shape: z.string().min(1),
  /** Steps beyond the silhouette itself. */
  steps: whole(1, 40).default(4),
  stepMm: some.default(5),
  direction: z.enum(['inset', 'outset']).default('inset'),
  corners: z.enum(['round', 'sharp']).default('round'),
  /** Openings and bits smaller than this are dropped. */
  speckMm2: z.number().min(0).max(1_000_000).default(4),
  sheetWidthMm: some,
  sheetHeightMm: some,
  /** Width of a plain border in front; 0 for none. */
  borderMm: mm.default(0),
})

/** How a line or a letter differs from the rest of the words. */
const own = {
  /** Another font, by its name; the words' own where it is not given. */
  font: z.string().max(MOST.name).optional(),
  /** Times the size of the rest, and times its width. */
  size: z.number().min(0.2).max(5).default(1),
  stretch: z.number().min(0.3).max(3).default(1),
  /** Moved to the right and up, mm. */
  rightMm: z.number().min(-200).max(200).default(0),
  upMm: z.number().min(-200).max(200).default(0),
}

/** Words as one piece, apart on a backing, or cut out of sheets. */
export const letteringRecipeSchema = z.looseObject({
  kind: z.literal('lettering'),
  text: z.string().min(1).max(200),
  /** A shipped font's name, or `own` for one that the maker brings. */
  font: z.string().max(MOST.name).default('pacifico'),
  /** Signs to draw in the font's alternate shape, such as `bg`; `*` for all. */
  alternates: z.string().max(MOST.name).default(''),
  widthMm: some.default(130),
  /** Letters in one piece; apart, as the font sets them; or cut out of full sheets, wider from sheet to sheet. */
  style: z.enum(['joined', 'apart', 'cut-out']).default('joined'),
  /** Cut out: how many sheets wider than the words themselves, by how much each, and the size of the sheets. */
  cutSteps: whole(1, 12).default(3),
  cutStepMm: some.default(3),
  corners: z.enum(['round', 'sharp']).default('round'),
  sheetWidthMm: some.default(165),
  sheetHeightMm: some.default(165),
  /** How wide neighbours must be joined. */
  joinMm: some.default(1.5),
  /** Dots and accents: joined by a strip, or moved down until they touch. */
  dots: z.enum(['strip', 'moved']).default('moved'),
  /** How strips look that tie what does not touch. */
  bridge: z.enum(['straight', 'flared', 'bowed']).default('straight'),
  /** Each backing step goes out so far; 0 for no backing. */
  backingMm: mm.default(4),
  backingSteps: whole(1, 4).default(1),
  /** Gaps in a backing narrower than this are filled. */
  fillGapsMm: mm.default(3),
  lineGap: z.number().min(0.5).max(2).default(1),
  /** Lines that differ, by their place from 0. */
  lines: z
    .array(z.looseObject({ line: whole(0, 99), ...own }))
    .max(100)
    .default([]),
  /** Letters that differ: which of its line from 0 (spaces count), turned clockwise, drawn in which other shape (from 1; 0 for its own). */
  letters: z
    .array(
      z.looseObject({
        line: whole(0, 99),
        at: whole(0, 199),
        ...own,
        turnDeg: z.number().min(-180).max(180).default(0),
        shape: whole(0, 99).default(0),
      }),
    )
    .max(200)
    .default([]),
  sticks: whole(0, 4).default(0),
  stickMm: some.default(4),
  /** Thickness of one sheet of the words and their backings. */
  paperMm: some.default(0.29),
})

/** x, y, x, y … of a line. */
const points = z.array(z.number().min(-100_000).max(100_000)).min(2).max(20_000)

/** A picture in a few tones. */
export const tonesRecipeSchema = z.looseObject({
  kind: z.literal('tones'),
  /** The picture in greys, row by row, one byte a pixel, base64. */
  greys: z.string().min(1).max(6_000_000),
  /** The same in red, green and blue, three bytes a pixel. */
  colours: z.string().max(18_000_000).optional(),
  /** Parted by grey, by the colours of the picture, or by the best few of the papers. */
  by: z.enum(['greys', 'colours', 'papers']).default('greys'),
  papers: z
    .array(z.looseObject({ paperId: z.string(), colour: z.string().regex(/^#[0-9a-f]{6}$/i) }))
    .max(500)
    .default([]),
  pixelsWide: whole(2, 2000),
  pixelsHigh: whole(2, 2000),
  widthMm: some.default(180),
  levels: whole(2, 6).default(4),
  /** Greys (0 to 255) between neighbouring tones, rising; empty for the best ones. */
  thresholds: z.array(z.number().min(0).max(255)).max(8).default([]),
  /** Radius of the blur in mm of the finished piece. */
  smoothMm: mm.default(0.6),
  /** Smoothed all over, or within areas and not across their edges. */
  filter: z.enum(['plain', 'edges']).default('plain'),
  /** How much contrast against the surroundings is raised. */
  contrast: z.number().min(0).max(1).default(0),
  speckMm2: z.number().min(0).max(1_000_000).default(8),
  /** Small spots that stand out, as the light in an eye. */
  spots: z.enum(['kept', 'dropped']).default('kept'),
  /** Areas that the brush gave to a tone, the back being 1, the last on top; points in mm. */
  strokes: z
    .array(z.looseObject({ tone: whole(1, 6), widthMm: some, points }))
    .max(500)
    .default([]),
  /** A loose outline round the subject (mm), and how far inside it the subject's edge may lie: what is outside goes to the back. */
  outline: z
    .looseObject({ points: points.min(6), looseMm: some.default(10) })
    .nullable()
    .default(null),
  /** Outlines stray so far at the most when they are made plainer. */
  detailMm: some.default(0.1),
  /** Width of strips that tie the pieces of each layer to one; 0 leaves them loose, each on the layer beneath. */
  tieMm: mm.default(0),
  /** Which tone is the full sheet at the back. */
  back: z.enum(['light', 'dark']).default('light'),
  crop: z.enum(['none', 'oval', 'rounded']).default('none'),
  /** Width of a mat round the picture, in front of it; 0 for none. */
  matMm: mm.default(0),
})

/** Rings of petals at falling sizes round a rolled centre. */
export const rosetteRecipeSchema = z.looseObject({
  kind: z.literal('rosette'),
  petal: z.enum(['round', 'pointed', 'heart', 'lobed']).default('round'),
  /** A ring of the maker's own, as path data, in place of drawn petals. */
  shape: z.string().optional(),
  petals: whole(3, 16).default(6),
  diameterMm: some.default(80),
  /** Sizes of ring, the largest first; each is cut twice. */
  sizes: whole(1, 8).default(4),
  /** Sizes fall by a ratio or by an equal step. */
  fall: z.enum(['ratio', 'step']).default('ratio'),
  /** Each ring's size against the one below. */
  ratio: z.number().min(0.4).max(0.97).default(0.8),
  /** Each ring is so much less across than the one below. */
  stepMm: some.default(12),
  /** How far the tips of petals are curled up; 0 leaves them flat. */
  curlMm: mm.default(0),
  /** Diameter of the rolled centre; 0 for none. */
  centreMm: mm.default(14),
  fringeMm: some.default(12),
  paperMm: some.default(0.29),
  /** The strip of the centre, folded in half lengthwise or of single card. */
  strip: z.enum(['folded', 'single']).default('folded'),
  /** Share of the fringe's height that is cut in. */
  fringeDepth: z.number().min(0.2).max(0.95).default(0.7),
  /** From slit to slit of the fringe. */
  slitMm: some.default(1.5),
  /** The longest strip that a sheet holds: a longer one is cut in parts. */
  longestMm: some.default(280),
  leaves: whole(0, 6).default(2),
  /** Each leaf's size against the one before. */
  leafRatio: z.number().min(0.5).max(1).default(1),
  /** Leaves are folded along their middle, or cupped by a flap under a slit. */
  leaf: z.enum(['folded', 'cupped']).default('folded'),
  /** How far a cupped leaf turns up, degrees. */
  cupDeg: z.number().min(5).max(80).default(25),
  /** Width of the flap that is glued under. */
  flapMm: some.default(6),
})

/** Openings that repeat round a centre, layer by layer. */
export const mandalaRecipeSchema = z.looseObject({
  kind: z.literal('mandala'),
  fold: whole(3, 24).default(12),
  diameterMm: some.default(120),
  layers: whole(2, 8).default(5),
  /** Narrowest strip that may be left between openings. */
  stripMm: some.default(1.5),
  seed: whole(0, 999_999).default(1),
})

const colour = z.string().regex(/^#[0-9a-f]{6}$/i)

/** Flags on a twine. */
export const garlandRecipeSchema = z.looseObject({
  kind: z.literal('garland'),
  shape: z.enum(['pennant', 'swallowtail', 'banner', 'scalloped', 'round', 'own']).default('pennant'),
  /** A flag of the maker's own, as path data; its box is fitted to width and height. */
  own: z.string().optional(),
  flags: whole(1, 200).default(9),
  flagWidthMm: some.default(110),
  flagHeightMm: some.default(140),
  /** A scalloped edge is a row of circles about so wide. */
  scallopMm: some.default(22),
  /** From flag to flag along the twine, and free twine at either end. */
  gapMm: mm.default(20),
  endsMm: mm.default(300),
  /** Colours of the flags: given one after the other, repeated, or mirrored about the middle. */
  colours: z.array(colour).min(1).max(40).default(['#2f5d8c', '#f3efe4', '#c8553d']),
  order: z.enum(['list', 'repeating', 'mirrored']).default('repeating'),
  /** A flap folded over the twine and glued, or two eyelets that the twine runs through. */
  fixing: z.enum(['flap', 'eyelets']).default('flap'),
  flapMm: some.default(18),
  eyeletMm: some.default(4),
  /** From hook to hook; 0 for a twenty-fifth less than what hangs. */
  spanMm: mm.default(0),
  /** A letter for each flag; spaces leave a flag without. Needs a font. */
  text: z.string().max(200).default(''),
  font: z.string().max(MOST.name).default('fredoka'),
})

/** A pair of wings from one half, to be folded up. */
export const wingsRecipeSchema = z.looseObject({
  kind: z.literal('wings'),
  /** A drawn wing, or the maker's own half as path data: its left side joins the body. */
  wing: z.enum(['gull', 'butterfly', 'own']).default('gull'),
  own: z.string().optional(),
  spanMm: some.default(90),
  heightMm: some.default(50),
  /** What lies flat and is glued. */
  bodyMm: some.default(8),
  /** How far each wing is turned up, degrees. */
  deg: z.number().min(0).max(85).default(35),
})

/** A piece that stands before the stack, held by the inner frame. */
export const sceneRecipeSchema = z.looseObject({
  kind: z.literal('scene'),
  /** What stands: the maker's own shape as path data, or a row of houses. */
  shape: z.string().optional(),
  /** Stands on the floor of the frame, hangs from its ceiling, runs all round, or adorns corners and sides. */
  hold: z.enum(['stands', 'hangs', 'wraps', 'adorns']).default('stands'),
  /** Which corners or sides are adorned. */
  places: z
    .enum([
      'upper corners',
      'lower corners',
      'four corners',
      'upper left',
      'upper right',
      'lower left',
      'lower right',
      'both sides',
      'left side',
      'right side',
    ])
    .default('upper corners'),
  widthMm: some.default(120),
  heightMm: some.default(60),
  /** What is folded and glued to the frame. */
  barMm: some.default(8),
  /** From the pane to the face of the piece. */
  fromPaneMm: mm.default(10),
  /** The inner frame: width, height and depth. */
  frameWidthMm: some.default(200),
  frameHeightMm: some.default(200),
  frameDepthMm: some.default(30),
  /** A band is glued on itself by a flap of this. */
  flapMm: some.default(12),
  /** The longest strip that a sheet holds. */
  longestMm: some.default(280),
  thicknessMm: some.default(0.3),
  gsm: z.number().min(40).max(1500).default(250),
  seed: whole(0, 999_999).default(1),
})

/** A picture under a ring, with a clear pane under the ring where it is wanted. */
export const windowRecipeSchema = z.looseObject({
  kind: z.literal('window'),
  /** What is seen of the picture, by the ring's opening. */
  shape: z.enum(['round', 'oval', 'rounded', 'heart', 'own']).default('round'),
  /** An opening of the maker's own, as path data; its box is fitted to width and height. */
  own: z.string().optional(),
  widthMm: some.default(90),
  heightMm: some.default(90),
  /** How wide the ring is round the opening. */
  ringMm: some.default(10),
  /** How far the picture and the pane reach under the ring. */
  underMm: some.default(5),
  /** A clear pane glued under the ring, or none. */
  pane: z.enum(['clear', 'none']).default('clear'),
  /** From the picture up to what lies over it, on foam; 0 glues it down. */
  raisedMm: mm.default(0),
  bleedMm: z.number().min(LIMITS.bleedMm[0]).max(LIMITS.bleedMm[1]).default(2),
  /** The picture, by its id among the project's; without one a plain sheet waits for a photo to be stuck on. */
  picture: z
    .looseObject({
      id: z.string().min(1).max(120),
      pixelsWide: whole(LIMITS.pixels[0], LIMITS.pixels[1]),
      pixelsHigh: whole(LIMITS.pixels[0], LIMITS.pixels[1]),
    })
    .nullable()
    .default(null),
})

/** A recipe of any maker. */
export const recipeSchema = z.discriminatedUnion('kind', [
  ladderRecipeSchema,
  letteringRecipeSchema,
  tonesRecipeSchema,
  rosetteRecipeSchema,
  mandalaRecipeSchema,
  garlandRecipeSchema,
  wingsRecipeSchema,
  sceneRecipeSchema,
  windowRecipeSchema,
])

/** A maker's settings as JSON Schema: what each may be, and what it is where a recipe does not say. */
export interface RecipeSettings {
  kind: string
  /** Settings without which there is no recipe. */
  needs: string[]
  settings: Record<string, unknown>
}

/** The settings of every maker. */
export const recipeSettings = (): RecipeSettings[] =>
  recipeSchema.options.map((schema) => {
    const { properties, required } = z.toJSONSchema(schema, { io: 'input' })
    const { kind, ...settings } = properties as Record<string, { const?: string }>
    return { kind: kind!.const!, needs: (required ?? []).filter((name) => name !== 'kind'), settings }
  })

const factor = z.number().min(-1000).max(1000)
const shift = z.number().min(-100_000).max(100_000)

/** Layers that a maker grew, with the recipe they came of. */
export const grownSchema = z.looseObject({
  id: z.string().min(1),
  recipe: recipeSchema,
  layerIds: z.array(z.string()),
  /** Where the maker put it since: a map from where it would be grown (a, b, c, d, e, f; mm). */
  place: z.tuple([factor, factor, factor, factor, shift, shift]).optional(),
})

/** See ladderRecipeSchema. */
export type LadderRecipe = z.infer<typeof ladderRecipeSchema>
/** A line of words that differs from the rest. */
export type OwnLine = LetteringRecipe['lines'][number]
/** A letter that differs from the rest. */
export type OwnLetter = LetteringRecipe['letters'][number]
/** See letteringRecipeSchema. */
export type LetteringRecipe = z.infer<typeof letteringRecipeSchema>
/** See tonesRecipeSchema. */
export type TonesRecipe = z.infer<typeof tonesRecipeSchema>
/** See rosetteRecipeSchema. */
export type RosetteRecipe = z.infer<typeof rosetteRecipeSchema>
/** See mandalaRecipeSchema. */
export type MandalaRecipe = z.infer<typeof mandalaRecipeSchema>
/** See garlandRecipeSchema. */
export type GarlandRecipe = z.infer<typeof garlandRecipeSchema>
/** See wingsRecipeSchema. */
export type WingsRecipe = z.infer<typeof wingsRecipeSchema>
/** See sceneRecipeSchema. */
export type SceneRecipe = z.infer<typeof sceneRecipeSchema>
/** See windowRecipeSchema. */
export type WindowRecipe = z.infer<typeof windowRecipeSchema>
/** See recipeSchema. */
export type Recipe = z.infer<typeof recipeSchema>
/** Which maker. */
export type RecipeKind = Recipe['kind']
/** See grownSchema. */
export type Grown = z.infer<typeof grownSchema>
