// The core's functions in a worker: everything that needs shapes to be cut or joined.
import { expose } from 'comlink'
import wasmUrl from 'clipper2-wasm/wasm?url'
import { demo, type DemoName } from '@feuillet/core/demo'
import type { ReadOptions } from '@feuillet/core/io/read'
import { loadGeometry } from '@feuillet/core/base/geometry'
import {
  intake,
  mergeLayers,
  outlineOverlay,
  shows,
  type Intake,
  type Slant,
  type Visible,
} from '@feuillet/core/stages/layers'
import type { Font, Made } from '@feuillet/core/stages/layers/makers'
import type { Mend, Paper, Project, Recipe } from '@feuillet/core/project'
import {
  firstFree,
  settle,
  whyIllegal,
  type Load,
  type NestInstance,
  type NestLayout,
  type Placement,
} from '@feuillet/core/stages/sheets'
import { derive, mendAll, type Derived } from '@feuillet/core/planner'
import type { FileSet } from '@feuillet/core/io/exports'

const ready = loadGeometry(wasmUrl)

/** First layouts by the fingerprint of their run: a change elsewhere need not nest again. */
const nested = new Map<string, NestLayout>()
const KEEP_LAYOUTS = 120

const fonts = new Map<string, Font>()

const api = {
  async derive(project: Project, stock: Paper[], found: Map<string, NestLayout>): Promise<Derived> {
    await ready
    const derived = derive(project, stock, new Map([...nested, ...found]))
    for (const { run, layout } of derived.runs) nested.set(run.fingerprint, layout)
    for (const key of [...nested.keys()].slice(0, Math.max(0, nested.size - KEEP_LAYOUTS))) nested.delete(key)
    return derived
  },
  /** Layers of an SVG or DXF file. A file that cannot be read comes back as one sentence. */
  async importDrawing(
    name: string,
    bytes: Uint8Array,
    options: Pick<ReadOptions, 'outlines' | 'hairlineMm'> & { textFont?: string },
    onProgress: (share: number) => void,
  ): Promise<{ ok: true; intake: Intake } | { ok: false; sentence: string }> {
    await ready
    // Readers and writers of files are loaded when the first file comes or goes.
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
      return { ok: false, sentence: error instanceof Error ? error.message : String(error) }
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
  /** One press that mends a snag, or several of a kind one after the other. */
  async mend(project: Project, actions: readonly Mend[], stock: Paper[]): Promise<Project> {
    await ready
    return mendAll(project, actions, stock)
  },
  /** A new layer that is the outline of another. */
  async outline(project: Project, layerId: string, widthMm: number): Promise<Project> {
    await ready
    return outlineOverlay(project, layerId, widthMm)
  },
  /** What shows of each layer, from a slant where one is given. */
  async shows(project: Project, slant?: Slant): Promise<Visible[]> {
    await ready
    return shows(project, slant)
  },
  /** Keeps a font under a name for the lettering maker. */
  async takeFont(name: string, bytes: Uint8Array): Promise<{ ok: true } | { ok: false; sentence: string }> {
    const { readFont } = await import('@feuillet/core/stages/layers/makers')
    try {
      fonts.set(name, readFont(bytes))
      return { ok: true }
    } catch (error) {
      return { ok: false, sentence: error instanceof Error ? error.message : String(error) }
    }
  },
  hasFont: (name: string): boolean => fonts.has(name),
  /** Layers of a maker's recipe; a setting that is not possible comes back as one sentence. */
  async make(recipe: Recipe): Promise<{ ok: true; made: Made } | { ok: false; sentence: string }> {
    await ready
    const { makeLayers } = await import('@feuillet/core/stages/layers/makers')
    try {
      return {
        ok: true,
        made: makeLayers(recipe, recipe.kind === 'lettering' ? fonts.get(recipe.font) : undefined),
      }
    } catch (error) {
      return { ok: false, sentence: error instanceof Error ? error.message : String(error) }
    }
  },
  /** Why a placement may not be; null where it is legal. */
  async tryPlace(instance: NestInstance, placement: Placement, others: Placement[]): Promise<string | null> {
    await ready
    return whyIllegal(instance, placement, others)
  },
  /** Slides pieces (`id#copy`) towards the corner of their sheet. */
  async settle(instance: NestInstance, placements: Placement[], keys: string[]): Promise<Placement[]> {
    await ready
    return settle(instance, placements, new Set(keys))
  },
  /** The first free place for a piece on the sheet it names; null where there is none. */
  async firstFree(
    instance: NestInstance,
    placement: Placement,
    others: Placement[],
  ): Promise<Placement | null> {
    await ready
    return firstFree(instance, placement, others)
  },
  /** Plot text of a load, for the cutter. */
  async plot(project: Project, load: Load): Promise<string> {
    const { plotOf } = await import('@feuillet/core/io/exports')
    return plotOf(project, load)
  },
  async picture(project: Project, load: Load): Promise<string> {
    const { loadPicture } = await import('@feuillet/core/io/exports')
    return loadPicture(project, load)
  },
  async files(project: Project, derived: Derived): Promise<FileSet> {
    await ready
    const { cutFiles, listFiles, testSquareFiles } = await import('@feuillet/core/io/exports')
    return new Map([
      ...testSquareFiles(project),
      ...cutFiles(project, derived.loads),
      ...(await listFiles(project, derived)),
    ])
  },
}

export type ComputeApi = typeof api

expose(api)
