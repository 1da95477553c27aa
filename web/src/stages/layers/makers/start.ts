// What each maker starts from, given the project it is opened in.
import { measure } from '@feuillet/core/stages/measure'
import {
  ladderRecipeSchema,
  layerRegion,
  letteringRecipeSchema,
  mandalaRecipeSchema,
  rosetteRecipeSchema,
  tonesRecipeSchema,
  type Layer,
  type Project,
  type Recipe,
  type RecipeKind,
  type TonesRecipe,
} from '@feuillet/core/project'
import { regionToPath } from '@feuillet/core/base/geometry'

export const makerNames: Record<RecipeKind, { title: string; words: string }> = {
  ladder: { title: 'Ladder', words: 'Steps inwards or outwards from one silhouette' },
  lettering: { title: 'Lettering', words: 'Words as one piece, apart on a backing, or cut out of sheets' },
  tones: { title: 'Tones', words: 'A photo in two to six tones or colours' },
  rosette: { title: 'Rosette', words: 'A flower of one petal ring at falling sizes' },
  mandala: { title: 'Mandala', words: 'Ornament that repeats round a centre' },
}

/** The first recipe of a kind; null where something must be chosen first (a silhouette, a photo). */
export function startRecipe(kind: RecipeKind, project: Project, layer: Layer | undefined): Recipe | null {
  const { safe, backing } = measure(project)
  const across = Math.round(
    Math.min(safe?.widthMm ?? 120, Number.isFinite(safe?.heightMm ?? NaN) ? safe!.heightMm : Infinity, 300) *
      0.9,
  )
  switch (kind) {
    case 'ladder': {
      if (!layer || layer.pieces.length === 0) return null
      const sheet = backing ?? { widthMm: 165, heightMm: 165 }
      return ladderRecipeSchema.parse({
        kind,
        shape: regionToPath(layerRegion(layer)),
        sheetWidthMm: sheet.widthMm,
        sheetHeightMm: sheet.heightMm,
      })
    }
    case 'lettering':
      return letteringRecipeSchema.parse({
        kind,
        text: 'bon voyage',
        ...(backing ? { sheetWidthMm: backing.widthMm, sheetHeightMm: backing.heightMm } : {}),
        widthMm: project.mount.kind === 'topper' ? project.mount.widthMm : across,
        sticks: project.mount.kind === 'topper' ? project.mount.sticks % 3 : 0,
      })
    case 'tones':
      return null
    case 'rosette':
      return rosetteRecipeSchema.parse({ kind, diameterMm: Math.max(30, Math.round(across * 0.6)) })
    case 'mandala':
      return mandalaRecipeSchema.parse({ kind, diameterMm: Math.max(40, across) })
  }
}

/** A tones recipe for a photo, as large as the backing or the design may be. */
export function tonesOf(
  photo: Pick<TonesRecipe, 'greys' | 'colours' | 'pixelsWide' | 'pixelsHigh'>,
  project: Project,
): Recipe {
  const { backing, safe } = measure(project)
  const room = backing ?? { widthMm: safe?.widthMm ?? 120, heightMm: Infinity }
  const widthMm = Math.min(room.widthMm, (room.heightMm * photo.pixelsWide) / photo.pixelsHigh)
  return tonesRecipeSchema.parse({ kind: 'tones', ...photo, widthMm: Math.round(widthMm * 10) / 10 })
}
