// Commands that grow a project from less: a silhouette, a picture, words.
import { readSvg } from '@feuillet/core/io/read'
import { regionToPath, union } from '@feuillet/core/base/geometry'
import {
  greysOf,
  grow,
  makeLayers,
  readFont,
  toBase64,
  withMadePapers,
  type Font,
} from '@feuillet/core/stages/layers/makers'
import { starterStock } from '@feuillet/core/stages/paper'
import {
  ladderRecipeSchema,
  letteringRecipeSchema,
  LIMITS,
  mountSchema,
  newProject,
  pictureSchema,
  recipeSchema,
  recipeSettings,
  tonesRecipeSchema,
  writeProject,
  type Mount,
  type NewMount,
  type Picture,
  type Project,
  type Recipe,
} from '@feuillet/core/project'
import { wordsIn } from '@feuillet/core/base/units'
import { BadInput } from '@feuillet/core/base'
import { basename } from 'node:path'
import { named, readFile, readFileLater, put } from './files'
import { type Screen } from './screen'
import { numberOption, readArgs, UsageError } from './usage'

const OUTPUT = { o: { type: 'string', short: 'o' } } as const
const text = { type: 'string' } as const

/** Pixels that a picture is brought down to before its tones are found. */
const MOST_PIXELS = 640

interface Growth {
  name: string
  mount: NewMount
  recipe: Recipe
  font?: Font
  screen: Screen
}

function grown({ name, mount, recipe, font, screen }: Growth): Project {
  const made = makeLayers(recipe, font)
  for (const remark of made.remarks) screen.error(`note: ${wordsIn(remark, 'mm')}`)
  return grow(newProject(`made-${recipe.kind}`, name, mount), recipe.kind, { recipe, made })
}

const frameOf = (widthMm: number, heightMm: number): NewMount => ({
  kind: 'frame',
  spacer: { widthMm, heightMm },
  opening: { widthMm: Math.max(1, widthMm - 14), heightMm: Math.max(1, heightMm - 14) },
  depthMm: 24,
  clearanceMm: 2,
  airMm: 5,
})

/** How short and how long a side may be, mm. */
const [LEAST_MM, MOST_MM] = LIMITS.sizeMm

function sizeOption(value: string | boolean | undefined): [number, number] {
  const m = typeof value === 'string' ? /^(\d+(?:\.\d+)?)[x×](\d+(?:\.\d+)?)$/i.exec(value) : null
  const sides = [Number(m?.[1]), Number(m?.[2])] as const
  if (!sides.every((mm) => mm >= LEAST_MM && mm <= MOST_MM))
    throw new UsageError(
      `--sheet takes WIDTHxHEIGHT in mm, each from ${LEAST_MM} to ${MOST_MM}, such as 165x165`,
    )
  return [...sides]
}

/** A recipe file: a recipe of any maker, with the mount it is for and the pictures it names beside it where it has them. */
function recipeOf(text: string): { recipe: Recipe; mount: Mount | null; pictures: Picture[] } {
  let doc: unknown
  try {
    doc = JSON.parse(text)
  } catch {
    throw new BadInput('this is not a recipe: it is not JSON')
  }
  const parsed = recipeSchema.safeParse(doc)
  if (!parsed.success) {
    const [issue] = parsed.error.issues
    throw new BadInput(`${issue?.path.join('.') || 'the recipe'}: ${issue?.message ?? 'it cannot be read'}`)
  }
  const { mount, pictures = [] } = doc as { mount?: unknown; pictures?: unknown }
  const shown = pictureSchema.array().safeParse(pictures)
  if (!shown.success)
    throw new BadInput(`pictures.${shown.error.issues[0]!.path.join('.')}: ${shown.error.issues[0]!.message}`)
  if (mount === undefined) return { recipe: parsed.data, mount: null, pictures: shown.data }
  const own = mountSchema.safeParse(mount)
  if (!own.success)
    throw new BadInput(`mount.${own.error.issues[0]!.path.join('.')}: ${own.error.issues[0]!.message}`)
  return { recipe: parsed.data, mount: own.data, pictures: shown.data }
}

/** What a recipe is for where its file does not say. */
function mountFor(recipe: Recipe, { widthMm, heightMm }: { widthMm: number; heightMm: number }): NewMount {
  switch (recipe.kind) {
    case 'garland':
      return { kind: 'garland', flags: recipe.flags, gapMm: recipe.gapMm, endsMm: recipe.endsMm }
    case 'lettering':
      return { kind: 'topper', widthMm, sticks: recipe.sticks }
    case 'scene': {
      const { frameWidthMm, frameHeightMm, frameDepthMm } = recipe
      return { ...frameOf(frameWidthMm, frameHeightMm), depthMm: frameDepthMm } as NewMount
    }
    case 'ladder':
      return frameOf(recipe.sheetWidthMm, recipe.sheetHeightMm)
    case 'tones':
      return frameOf(widthMm, heightMm)
    default:
      return { kind: 'free' }
  }
}

export const makerCommands = {
  ladder: {
    usage: 'ladder FILE.svg --steps 4 --step-mm 5 --sheet 165x165 [--outset] [--sharp] [-o PROJECT]',
    run(args: string[], screen: Screen) {
      const { positionals, values } = readArgs(args, ['FILE'], {
        ...OUTPUT,
        steps: text,
        'step-mm': text,
        sheet: text,
        outset: { type: 'boolean' },
        sharp: { type: 'boolean' },
      })
      const steps = numberOption(values, 'steps', { other: 4, min: 1, max: 40 })
      if (!Number.isInteger(steps)) throw new UsageError('--steps takes a whole number')
      const stepMm = numberOption(values, 'step-mm', { other: 5, min: 0.1, max: 200 })
      const [sheetWidthMm, sheetHeightMm] = sizeOption(values.sheet ?? '165x165')
      const file = positionals[0]!
      const shape = readFile(file, (bytes) =>
        regionToPath(union(...readSvg(bytes).shapes.map((s) => s.region))),
      )
      const recipe = ladderRecipeSchema.parse({
        kind: 'ladder',
        shape,
        steps,
        stepMm,
        sheetWidthMm,
        sheetHeightMm,
        direction: values.outset ? 'outset' : 'inset',
        corners: values.sharp ? 'sharp' : 'round',
      })
      const mount = frameOf(sheetWidthMm, sheetHeightMm)
      const name = `Ladder of ${basename(file, '.svg')}`
      const project = named(file, () => grown({ name, mount, recipe, screen }))
      put(writeProject(project), values.o, screen)
    },
  },
  tones: {
    usage: 'tones IMAGE.png|jpg|webp --levels 4 --width-mm 180 [--dark] [-o PROJECT]',
    async run(args: string[], screen: Screen) {
      const { positionals, values } = readArgs(args, ['IMAGE'], {
        ...OUTPUT,
        levels: text,
        'width-mm': text,
        dark: { type: 'boolean' },
      })
      const levels = numberOption(values, 'levels', { other: 4, min: 2, max: 6 })
      if (!Number.isInteger(levels)) throw new UsageError('--levels takes a whole number')
      const widthMm = numberOption(values, 'width-mm', { other: 180, min: 10, max: 1000 })
      const file = positionals[0]!
      // Pictures are decoded by native code that no other command needs to load.
      const { default: sharp } = await import('sharp')
      const { data, info } = await readFileLater(file, async (bytes) => {
        try {
          // Turned as the camera says, then brought down to what card can show.
          return await sharp(bytes, { failOn: 'error', limitInputPixels: 100_000_000 })
            .rotate()
            .resize({ width: MOST_PIXELS, height: MOST_PIXELS, fit: 'inside', withoutEnlargement: true })
            .ensureAlpha()
            .toColourspace('srgb')
            .raw()
            .toBuffer({ resolveWithObject: true })
        } catch {
          throw new BadInput('this is not a PNG, JPEG or WebP picture that can be read')
        }
      })
      if (info.width < 2 || info.height < 2)
        throw new BadInput(`${file}: the picture is too small or too narrow: there is nothing to part`)
      const recipe = tonesRecipeSchema.parse({
        kind: 'tones',
        greys: toBase64(greysOf(data)),
        pixelsWide: info.width,
        pixelsHigh: info.height,
        widthMm,
        levels,
        back: values.dark ? 'dark' : 'light',
      })
      const mount = frameOf(widthMm, (widthMm * info.height) / info.width)
      const name = `Tones of ${basename(file)}`
      const project = named(file, () => grown({ name, mount, recipe, screen }))
      put(writeProject(project), values.o, screen)
    },
  },
  grow: {
    usage: 'grow RECIPE.json [--font FILE.ttf] [-o PROJECT] | grow list',
    run(args: string[], screen: Screen) {
      const { positionals, values } = readArgs(args, ['RECIPE'], { ...OUTPUT, font: text })
      const file = positionals[0]!
      if (file === 'list') {
        put(JSON.stringify({ recipes: recipeSettings() }, null, 2) + '\n', values.o, screen)
        return
      }
      const { recipe, mount, pictures } = readFile(file, (bytes) => recipeOf(new TextDecoder().decode(bytes)))
      const font = values.font ? readFile(values.font, readFont) : undefined
      const project = named(file, () => {
        const made = makeLayers(recipe, font)
        for (const remark of made.remarks) screen.error(`note: ${wordsIn(remark, 'mm')}`)
        const across = { widthMm: made.widthMm, heightMm: made.heightMm }
        const name = `Grown ${recipe.kind}`
        const empty = newProject(`made-${recipe.kind}`, name, mount ?? mountFor(recipe, across))
        return withMadePapers(
          grow({ ...empty, pictures }, recipe.kind, { recipe, made }),
          made,
          starterStock(),
        )
      })
      put(writeProject(project), values.o, screen)
    },
  },
  letter: {
    usage: 'letter "WORDS" --font FILE.ttf --width-mm 130 [--backing-mm 4] [--sticks 2] [-o PROJECT]',
    run(args: string[], screen: Screen) {
      const { positionals, values } = readArgs(args, ['WORDS'], {
        ...OUTPUT,
        font: text,
        'width-mm': text,
        'backing-mm': text,
        sticks: text,
      })
      if (!values.font) throw new UsageError('--font FILE.ttf is missing')
      const widthMm = numberOption(values, 'width-mm', { other: 130, min: 10, max: 1000 })
      const backingMm = numberOption(values, 'backing-mm', { other: 4, min: 0, max: 50 })
      const sticks = numberOption(values, 'sticks', { other: 0, min: 0, max: 4 })
      const font = readFile(values.font, readFont)
      const words = positionals[0]!.replaceAll('\\n', '\n')
      if (words.trim() === '' || words.length > 200) throw new UsageError('WORDS takes 1 to 200 signs')
      const recipe = letteringRecipeSchema.parse({
        kind: 'lettering',
        text: words,
        font: 'own',
        widthMm,
        backingMm,
        sticks: Math.round(sticks),
      })
      const mount: NewMount = {
        kind: 'topper',
        widthMm,
        sticks: Math.round(sticks),
        depthMm: 8,
        clearanceMm: 0,
      }
      const name = words.split('\n')[0]!.slice(0, 60)
      const project = named(values.font, () => grown({ name, mount, recipe, font, screen }))
      put(writeProject(project), values.o, screen)
    },
  },
}
