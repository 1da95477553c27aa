// Edits that cut and join shapes, files that come in, layers that are grown: each takes what it needs and gives back what came
// of it. It keeps nothing but fonts.
import type { Said } from '@feuillet/core/base/units'
import { BadInput } from '@feuillet/core/base'
import { expose } from 'comlink'
import wasmUrl from 'clipper2-wasm/wasm?url'
import { demo, demoThings, type DemoName } from '@feuillet/core/demo'
import type { PackedFile, ReadOptions } from '@feuillet/core/io/read'
import { loadGeometry } from '@feuillet/core/base/geometry'
import { intake, mergeLayers, outlineOverlay, type Intake } from '@feuillet/core/stages/layers'
import type { Font, Made } from '@feuillet/core/stages/layers/makers'
import type { Mend, Paper, Project, Recipe } from '@feuillet/core/project'
import { mendAll } from '@feuillet/core/stages'
import { fitsOf, type GapPlan } from '@feuillet/core/stages/depth'
import {
  planFair,
  type AtHand,
  type Candidate,
  type FairGoal,
  type FairPlan,
} from '@feuillet/core/stages/journal'
import { answering } from './answering'

const ready = loadGeometry(wasmUrl)
const fonts = new Map<string, Font>()

/** What a maker asked for, or why it cannot be, in one sentence. */
type Answer<T> = ({ ok: true } & T) | { ok: false; said: Said }

const saidOf = (error: unknown) => ({
  ok: false as const,
  said: error instanceof BadInput ? error.said : error instanceof Error ? error.message : String(error),
})

const api = {
  ...answering,
  /** Layers of an SVG or DXF file. */
  async importDrawing(
    { name, bytes }: { name: string; bytes: Uint8Array },
    options: Pick<ReadOptions, 'outlines' | 'hairlineMm' | 'unseen' | 'unitMm'> & { textFont?: string },
    onProgress: (share: number) => void,
  ): Promise<Answer<{ intake: Intake }>> {
    await ready
    // Readers of files are loaded when the first file comes.
    const { readDrawing } = await import('@feuillet/core/io/read')
    const { outlineWords } = await import('@feuillet/core/stages/layers/makers')
    const font = fonts.get(options.textFont ?? '')
    try {
      // Reading takes about half of the time, sorting into layers the rest.
      const drawing = readDrawing(name, bytes, {
        ...options,
        onProgress: (share) => onProgress(share / 2),
        ...(font ? { outlineText: (words) => outlineWords(font, words) } : {}),
      })
      return { ok: true, intake: intake(drawing, (share) => onProgress(0.5 + share / 2)) }
    } catch (error) {
      return saidOf(error)
    }
  },
  async unpack(zip: Uint8Array): Promise<Answer<{ files: PackedFile[] }>> {
    const { drawingsIn } = await import('@feuillet/core/io/read')
    try {
      return { ok: true, files: drawingsIn(zip) }
    } catch (error) {
      return saidOf(error)
    }
  },
  async merge(project: Project, layerIds: string[]): Promise<Project> {
    await ready
    return mergeLayers(project, layerIds)
  },
  async demo(name: DemoName): Promise<Project> {
    await ready
    return demo(name)
  },
  demoThings: () => demoThings,
  /** The best numbers for a fair; throws where nothing fits what is wanted. */
  fair(candidates: readonly Candidate[], atHand: AtHand, goal: FairGoal): FairPlan {
    return planFair(candidates, atHand, goal)
  },
  /** Gaps from the shallowest fit to the deepest. */
  async fits(project: Project): Promise<GapPlan[]> {
    await ready
    return fitsOf(project)
  },
  /** One press that mends a snag, or several of a kind one after the other. */
  async mend(project: Project, actions: readonly Mend[], stock: readonly Paper[]): Promise<Project> {
    await ready
    return mendAll(project, actions, stock)
  },
  /** A new layer that is the outline of another. */
  async outline(project: Project, layerId: string, widthMm: number): Promise<Project> {
    await ready
    return outlineOverlay(project, layerId, widthMm)
  },
  /** Keeps a font under a name for the lettering maker. */
  async takeFont(name: string, bytes: Uint8Array): Promise<Answer<object>> {
    const { readFont } = await import('@feuillet/core/stages/layers/makers')
    try {
      fonts.set(name, readFont(bytes))
      return { ok: true }
    } catch (error) {
      return saidOf(error)
    }
  },
  hasFont: (name: string): boolean => fonts.has(name),

  /** Shapes of a sign in a kept font as path data: its own, and each other one that the font offers. */
  shapesOf: async (name: string, sign: string): Promise<string[]> => {
    await ready
    const { shapesOf } = await import('@feuillet/core/stages/layers/makers')
    const font = fonts.get(name)
    return font ? shapesOf(font, sign) : []
  },
  /** Layers of a maker's recipe. */
  async make(recipe: Recipe): Promise<Answer<{ made: Made }>> {
    await ready
    const { makeLayers } = await import('@feuillet/core/stages/layers/makers')
    try {
      return {
        ok: true,
        made: makeLayers(recipe, 'font' in recipe ? fonts.get(String(recipe.font)) : undefined, fonts),
      }
    } catch (error) {
      return saidOf(error)
    }
  },
}

export type EditApi = typeof api

expose(api)
