// Files that come in: read in the worker one after the other, with progress and a stop, and put into the project.
import type { Point } from '@feuillet/core/base/geometry'
import { say, type Said } from '@feuillet/core/base/units'
import { proxy } from 'comlink'
import { useMemo, useRef, useState } from 'react'
import { toast } from 'sonner'
import type { ReadOptions } from '@feuillet/core/io/read'
import { haveOnePage, liesWithin, placement, takeIn, type Intake } from '@feuillet/core/stages/layers'
import { addLayers, MOST, openProject, type Paper, type Project } from '@feuillet/core/project'
import { useAppDispatch, useAppSelector, useAppStore } from '../../../state/store'
import { edited } from '../../../state/document'
import { editor, WorkerGone } from '../../../workers'

type Options = Required<Pick<ReadOptions, 'outlines' | 'hairlineMm'>> & { textFont?: string }

interface Taken {
  files: { name: string; bytes: Uint8Array }[]
  before: Project
  after: Project
  /** The page that they share; null where each has its own. */
  page: Page | null
  /** The page of what had come in before them. */
  earlier: Page | null
}

/** A drawing's page, and how far it was moved when it came in. */
interface Page {
  widthMm: number
  heightMm: number
  move: Point
}

export interface IntakeNote {
  text: Said
  bad: boolean
}

/** Something of a drawing that is not in the layers, and where it was, in the project's frame. */
export interface LeftMark {
  what: string
  x: number
  y: number
}

const NO_MARKS: readonly LeftMark[] = []

export function useIntake() {
  const dispatch = useAppDispatch()
  const store = useAppStore()
  const [share, setShare] = useState<number | null>(null)
  const [over, setOver] = useState(false)
  const [notes, setNotes] = useState<IntakeNote[]>([])
  const [options, setOptions] = useState<Options>({ outlines: 'pieces', hairlineMm: 0.2 })
  const [linesOnly, setLinesOnly] = useState(false)
  const [leftMarks, setLeftMarks] = useState<LeftMark[]>([])
  const [taken, setTaken] = useState<Taken | null>(null)
  const halt = useRef<() => void>(() => undefined)
  const layers = useAppSelector((state) => state.document.project?.layers)
  const liesAsRead = useMemo(() => {
    const shapes = (list: Project['layers'] = []) => new Set(list.map(({ pieces }) => pieces))
    const [before, now] = [shapes(taken?.before.layers), shapes(layers)]
    const read = [...shapes(taken?.after.layers)].filter((pieces) => !before.has(pieces))
    return read.filter((pieces) => now.has(pieces)).length * 2 >= read.length
  }, [layers, taken])

  /**
   * Reads files and puts what they hold into the project as it is by then, as one step: what was done meanwhile stays. With
   * `instead` what an earlier reading put in is taken out first, as long as nothing else was changed since.
   */
  const read = async (
    files: Taken['files'],
    how: Options,
    { label, instead }: { label: string; instead: Taken | null },
  ) => {
    const projectId = store.getState().document.project?.id
    setNotes([])
    setShare(0)
    let stopped = false
    // Progress comes by a channel of its own and may arrive after the result.
    let reading = true
    const onShare = (part: number) => reading && setShare(part)
    halt.current = () => {
      stopped = true
      editor.end()
    }
    const found: FileFound[] = []
    const said: IntakeNote[] = []
    for (const file of files) {
      const { name } = file
      const answer = await readFile({ ...file, isOneOf: files.length > 1 }, how, onShare).catch(
        (error: unknown): Said =>
          error instanceof WorkerGone
            ? stopped
              ? `${name}: stopped. Nothing was changed.`
              : `${name}: reading it broke off. Nothing was changed.`
            : `${name}: ${error instanceof Error ? error.message : String(error)}. Nothing was changed.`,
      )
      if (typeof answer === 'object' && 'putInto' in answer) found.push(answer)
      else said.push({ text: answer, bad: !stopped })
      if (stopped) break
    }
    reading = false
    setShare(null)
    const { project } = store.getState().document
    if (stopped || !project || project.id !== projectId) {
      setNotes(said)
      return
    }
    if (instead && project !== instead.after) {
      toast.error('The project was changed while the drawing was read otherwise: it was left as it is.')
      return
    }
    const before = instead ? instead.before : project
    let after = before
    const marks: LeftMark[] = []
    const drawings = found.flatMap(({ intake }) => intake ?? [])
    // What is read otherwise lies where it lay.
    const last = liesAsRead && taken?.after.id === project.id ? taken.page : null
    const earlier = instead ? instead.earlier : last
    const move = moveOf(before, drawings, earlier)
    const [first] = drawings
    const page = first && move ? { widthMm: first.widthMm, heightMm: first.heightMm, move } : null
    for (const one of found) {
      if (after.layers.length + one.layers > MOST.layers) {
        const both = `${after.layers.length} and ${one.layers} layers`
        said.push({
          text: `${one.name}: ${both} are more than the ${MOST.layers} of one project. Nothing was changed.`,
          bad: true,
        })
        continue
      }
      const put = one.putInto(after, move ?? undefined)
      after = put.project
      marks.push(...put.marks)
      said.push({ text: put.text, bad: false })
    }
    setNotes(said)
    setLinesOnly(found.some((one) => one.linesOnly))
    setLeftMarks(marks)
    if (after === before) return
    setTaken({ files, before, after, page, earlier })
    dispatch(edited({ label, project: after }))
  }

  const take = async (list: Iterable<File>) => {
    const project = store.getState().document.project
    const files = await Promise.all(
      [...list].map(async (file) => ({ name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) })),
    )
    // As they are numbered: the tenth after the ninth.
    files.sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }))
    if (project && files.length > 0)
      await read(files, options, { label: `bring in ${files.map((f) => f.name).join(', ')}`, instead: null })
  }

  /** Reads the same files otherwise, as long as nothing was changed since. */
  const again = (patch: Partial<Options>) => {
    const how = { ...options, ...patch }
    setOptions(how)
    if (taken && store.getState().document.project === taken.after)
      void read(taken.files, how, { label: 'read the drawing otherwise', instead: taken })
  }

  /** Sets the text of the drawing in a font of the maker's. Gives a sentence where the font cannot be read. */
  const outlineText = async (file: File): Promise<Said | null> => {
    const bytes = new Uint8Array(await file.arrayBuffer())
    const answer = await editor.ask((api) => api.takeFont('text', bytes))
    if (!answer.ok) return say`${file.name}: ${answer.said}.`
    again({ textFont: 'text' })
    return null
  }

  return {
    leftMarks,
    /** Where they were: once most of what was read lies elsewhere that says nothing any more. */
    marksInPlace: liesAsRead ? leftMarks : NO_MARKS,
    outlineText,
    share,
    over,
    setOver,
    notes,
    options,
    again,
    linesOnly,
    canReadAgain: taken !== null,
    take,
    stop: () => halt.current(),
  }
}

/**
 * How far drawings are moved when they come in; null where each goes its own way. Layers of one work, a file each, lie as their pages do, and
 * so does one that comes in later, where it lies in what the work lives in.
 */
function moveOf(project: Project, drawings: readonly Intake[], known: Page | null): Point | null {
  if (known && haveOnePage([known, ...drawings]) && liesWithin(project, drawings, known.move))
    return known.move
  return drawings.length === 1 || haveOnePage(drawings) ? placement(project, drawings) : null
}

/** What a file holds, ready to be put into whatever the project is by then. */
interface FileFound {
  name: string
  layers: number
  linesOnly: boolean
  /** Null where it is a project's. */
  intake: Intake | null
  /** `move` where it goes along with others. */
  putInto: (project: Project, move?: Point) => { project: Project; text: string; marks: LeftMark[] }
}

/** Reads a file; gives a sentence where it cannot be read. */
async function readFile(
  file: Taken['files'][number] & { isOneOf: boolean },
  how: Options,
  onShare: (share: number) => unknown,
): Promise<FileFound | Said> {
  const { name, bytes, isOneOf } = file
  if (/\.json$/i.test(name)) {
    const { project: other, healed } = openProject(new TextDecoder().decode(bytes))
    const said = [`${words(other.layers.length)}, with their papers.`, ...healed].join(' ')
    return {
      name,
      layers: other.layers.length,
      linesOnly: false,
      intake: null,
      putInto: (project) => ({
        project: addLayers(withPapers(project, other.drawer.papers), other.layers),
        text: `${name}: ${said}`,
        marks: [],
      }),
    }
  }
  const result = await editor.ask((api) => api.importDrawing(file, how, proxy(onShare)))
  if (!result.ok) return say`${name}: ${result.said}. Nothing was changed.`
  const intake = isOneOf ? namedAfter(name, result.intake) : result.intake
  return {
    name,
    layers: intake.layers.length,
    linesOnly: intake.linesOnly,
    intake,
    putInto: (project, move = placement(project, [intake])) => ({
      project: takeIn(project, intake, move),
      text: `${name}: ${words(intake.layers.length)}.${leftWords(intake)}`,
      marks: intake.leftAt.map(({ what, at }) => ({ what, x: at.x + move.x, y: at.y + move.y })),
    }),
  }
}

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
    ? ` Left out: ${leftOut.map((l) => `${l.count} × ${l.what}`).join(', ')}.`
    : ' Nothing was left out.'
