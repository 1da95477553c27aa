// What each maker starts from, given the project it is opened in.
import { measure } from '@feuillet/core/stages/measure'
import {
  garlandRecipeSchema,
  ladderRecipeSchema,
  layerRegion,
  letteringRecipeSchema,
  mandalaRecipeSchema,
  rosetteRecipeSchema,
  sceneRecipeSchema,
  tonesRecipeSchema,
  windowRecipeSchema,
  wingsRecipeSchema,
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
  garland: { title: 'Garland', words: 'Flags on a twine, in the order of their colours' },
  wings: { title: 'Wings', words: 'A pair cut from one half, to be folded up' },
  scene: {
    title: 'Standing piece',
    words: 'Stands in the frame on feet, hangs from a bar, runs all round, or adorns its corners',
  },
  window: { title: 'Photo window', words: 'A picture under a ring, with a clear pane or without' },
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
        ...(project.mount.kind === 'topper' && {
          sticks: Math.min(4, project.mount.sticks),
          stickMm: project.mount.stick.widthMm,
        }),
      })
    case 'tones':
      return null
    case 'rosette':
      return rosetteRecipeSchema.parse({ kind, diameterMm: Math.max(30, Math.round(across * 0.6)) })
    case 'garland': {
      const own = project.mount.kind === 'garland' ? project.mount : null
      const { flags, gapMm, endsMm } = own ?? { flags: 9, gapMm: 20, endsMm: 300 }
      return garlandRecipeSchema.parse({ kind, flags, gapMm, endsMm })
    }
    case 'wings':
      return wingsRecipeSchema.parse({ kind, spanMm: Math.max(30, Math.round(across * 0.6)) })
    case 'scene': {
      const { mount } = project
      const frame =
        mount.kind === 'frame'
          ? {
              frameWidthMm: mount.spacer.widthMm,
              frameHeightMm: mount.spacer.heightMm,
              frameDepthMm: mount.depthMm,
              widthMm: Math.round(mount.spacer.widthMm * 0.6),
              fromPaneMm: Math.round(mount.depthMm * 0.4),
              barMm: Math.max(3, Math.round(mount.depthMm * 0.3)),
            }
          : {}
      return sceneRecipeSchema.parse({ kind, ...frame })
    }
    case 'window': {
      const sideMm = Math.max(30, Math.round(across * 0.5))
      return windowRecipeSchema.parse({ kind, widthMm: sideMm, heightMm: sideMm })
    }
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
