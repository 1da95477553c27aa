// One file as layers: read in the worker, ready to be put into whatever the project is by then.
import { regionArea, type Point } from '@feuillet/core/base/geometry'
import { say, type Said } from '@feuillet/core/base/units'
import type { ReadOptions } from '@feuillet/core/io/read'
import { addLayers, layerRegion, MOST, openProject, type Paper, type Project } from '@feuillet/core/project'
import { onOnePlane, placement, takeIn, type Intake } from '@feuillet/core/stages/layers'
import { proxy } from 'comlink'
import { editor } from '../../../workers'

/** A file as it was dropped, or as it was in a zip. */
export interface SourceFile {
  name: string
  bytes: Uint8Array
}

/** Kinds of drawing that may not say how large they are. */
export type Kind = 'svg' | 'dxf'

export type Options = Required<Pick<ReadOptions, 'outlines' | 'hairlineMm' | 'unseen'>> & {
  textFont?: string
  /** What one unit is, mm, of drawings that do not say how large they are. */
  unitMm: Partial<Record<Kind, number>>
}

/** Something of a drawing that is not in the layers, and where it was, in the project's frame. */
export interface LeftMark {
  what: string
  x: number
  y: number
}

/** What a file holds. */
export interface FileFound {
  name: string
  layers: number
  /** Null where it is a project's. */
  intake: Intake | null
  /** `move` where it goes along with others. */
  putInto: (project: Project, move?: Point) => { project: Project; text: string; marks: LeftMark[] }
}

export const kindOf = (name: string): Kind => (/\.dxf(\.gz)?$/i.test(name) ? 'dxf' : 'svg')

/** Reads a file; gives a sentence where it cannot be read. */
export async function readFile(
  file: SourceFile & { isOneOf: boolean },
  how: Options,
  onShare: (share: number) => unknown,
): Promise<FileFound | Said> {
  const { name, bytes, isOneOf } = file
  if (/\.json$/i.test(name)) return ofProject(name, bytes)
  const { unitMm, ...others } = how
  const unit = unitMm[kindOf(name)]
  const options = { ...others, ...(unit !== undefined && { unitMm: unit }) }
  const result = await editor.ask((api) => api.importDrawing({ name, bytes }, options, proxy(onShare)))
  if (!result.ok) return say`${name}: ${result.said}. Nothing was changed.`
  return found(name, isOneOf ? namedAfter(name, result.intake) : result.intake)
}

function ofProject(name: string, bytes: Uint8Array): FileFound {
  const { project: other, healed } = openProject(new TextDecoder().decode(bytes))
  const said = [`${words(other.layers.length)}, with their papers.`, ...healed].join(' ')
  return {
    name,
    layers: other.layers.length,
    intake: null,
    putInto: (project) => ({
      project: addLayers(withPapers(project, other.drawer.papers), other.layers),
      text: `${name}: ${said}`,
      marks: [],
    }),
  }
}

const found = (name: string, intake: Intake): FileFound => ({
  name,
  layers: intake.layers.length,
  intake,
  putInto: (project, move = placement(project, [intake])) => ({
    project: takeIn(project, intake, move),
    text: `${name}: ${words(intake.layers.length)}. ${leftWords(intake)}`,
    marks: intake.leftAt.map(({ what, at }) => ({ what, x: at.x + move.x, y: at.y + move.y })),
  }),
})

/**
 * Files as they lie together: without a page of their own on the page that they share, where their coordinates say how. Layers in a
 * file each whose names bear no number come with the most card behind.
 */
export function placedTogether(files: readonly FileFound[]): FileFound[] {
  const intakes = onOnePlane(files.flatMap(({ intake }) => intake ?? []))
  let at = 0
  const placed = files.map((one) => (one.intake ? found(one.name, intakes[at++]!) : one))
  const isUnordered = placed.every(({ name, intake }) => intake?.layers.length === 1 && !/\d/.test(name))
  return isUnordered ? placed.toSorted((a, b) => cardOf(b) - cardOf(a)) : placed
}

const cardOf = ({ intake }: FileFound): number =>
  (intake?.layers ?? []).reduce((sum, layer) => sum + regionArea(layerRegion(layer)), 0)

/** A drawing of one layer bears the name of its file where there are several files: those of one work are all black, or all unnamed. */
function namedAfter(file: string, intake: Intake): Intake {
  const [layer, ...others] = intake.layers
  const name = file.replace(/\.[^.]+$/, '').slice(0, MOST.name)
  return layer && others.length === 0 && name ? { ...intake, layers: [{ ...layer, name }] } : intake
}

/** A project with papers that it does not have yet. */
function withPapers(project: Project, papers: readonly Paper[]): Project {
  const own = new Set(project.drawer.papers.map((paper) => paper.id))
  const fresh = papers.filter((paper) => !own.has(paper.id))
  return { ...project, drawer: { ...project.drawer, papers: [...project.drawer.papers, ...fresh] } }
}

const words = (n: number): string => `${n} ${n === 1 ? 'layer' : 'layers'}`

const leftWords = ({ leftOut }: Intake): string =>
  leftOut.length > 0
    ? `Left out: ${leftOut.map((l) => `${l.count} × ${l.what}`).join(', ')}.`
    : 'Nothing was left out.'
