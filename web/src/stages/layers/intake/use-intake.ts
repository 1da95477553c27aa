// Files that come in: read in the worker one after the other, with progress and a stop, and put into the project.
import type { Point } from '@feuillet/core/base/geometry'
import { say, type Said } from '@feuillet/core/base/units'
import { useMemo, useRef, useState } from 'react'
import { toast } from 'sonner'
import { haveOnePage, liesWithin, placement, type Intake } from '@feuillet/core/stages/layers'
import type { Unseen } from '@feuillet/core/io/read'
import { MOST, type Project } from '@feuillet/core/project'
import { useAppDispatch, useAppSelector, useAppStore } from '../../../state/store'
import { edited } from '../../../state/document'
import { editor, WorkerGone } from '../../../workers'
import { sizeRestsOn, type Untold } from './file-units'
import { opened, type Opened } from './open-files'
import {
  kindOf,
  placedTogether,
  readFile,
  type FileFound,
  type Kind,
  type LeftMark,
  type Options,
  type SourceFile,
} from './read-file'

interface Taken {
  files: readonly SourceFile[]
  before: Project
  after: Project
  /** The page that they share; null where each has its own. */
  page: Page | null
  /** The page of what had come in before them. */
  earlier: Page | null
  /** The first of each kind that does not say how large it is, as it was taken. */
  untold: readonly Untold[]
  /** Nothing but thin lines is drawn in one of them. */
  linesOnly: boolean
  /** What any of them holds and does not show. */
  unseen: readonly Unseen[]
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

const UNSEEN: readonly Unseen[] = ['hidden', 'outside']

const NO_MARKS: readonly LeftMark[] = []

export function useIntake() {
  const dispatch = useAppDispatch()
  const store = useAppStore()
  const [share, setShare] = useState<number | null>(null)
  const [over, setOver] = useState(false)
  const [notes, setNotes] = useState<IntakeNote[]>([])
  const [options, setOptions] = useState<Options>({
    outlines: 'pieces',
    hairlineMm: 0.2,
    unseen: [],
    unitMm: {},
  })
  const [leftMarks, setLeftMarks] = useState<LeftMark[]>([])
  const [taken, setTaken] = useState<Taken | null>(null)
  const [packed, setPacked] = useState<Opened['toPick']>([])
  const halt = useRef<() => void>(() => undefined)
  const layers = useAppSelector((state) => state.document.project?.layers)
  const isAsRead = useAppSelector((state) => taken !== null && state.document.project === taken.after)
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
    { label, instead, said = [] }: { label: string; instead: Taken | null; said?: IntakeNote[] },
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
    const each: FileFound[] = []
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
      if (typeof answer === 'object' && 'putInto' in answer) each.push(answer)
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
    const found = placedTogether(each)
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
    const untold = untoldOf(found)
    setNotes([...said, ...untold.map((one) => ({ text: sizeRestsOn(one), bad: false }))])
    setLeftMarks(marks)
    if (after === before) return
    setTaken({
      files,
      before,
      after,
      page,
      earlier,
      untold,
      linesOnly: drawings.some((one) => one.linesOnly),
      unseen: UNSEEN.filter((what) => drawings.some(({ unseen }) => unseen.includes(what))),
    })
    dispatch(edited({ label, project: after }))
  }

  /** Takes what was dropped or chosen; of a zip with several drawings the maker picks first. */
  const take = async (list: Iterable<File>) => {
    setNotes([])
    setPacked([])
    setShare(0)
    halt.current = () => editor.end()
    const projectId = store.getState().document.project?.id
    const { files, toPick, said } = await opened(list)
    setShare(null)
    if (store.getState().document.project?.id !== projectId) return
    setPacked(toPick)
    if (files.length > 0) await bringIn(files, said)
    else setNotes(said)
  }

  const bringIn = async (files: readonly SourceFile[], said: IntakeNote[] = []) => {
    // As they are numbered: the tenth after the ninth.
    const sorted = [...files].sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }))
    const label = `bring in ${sorted.map(({ name }) => name).join(', ')}`
    // Of each drawing what it does not show stays out at first.
    const how = { ...options, unseen: [] }
    setOptions(how)
    if (store.getState().document.project) await read(sorted, how, { label, instead: null, said })
  }

  const pick = async (files: readonly SourceFile[]) => {
    setPacked([])
    if (files.length > 0) await bringIn(files)
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
    linesOnly: taken?.linesOnly ?? false,
    unseen: taken?.unseen ?? [],
    /** What was read is as it was read: only then can it be read otherwise. */
    canReadAgain: isAsRead,
    /** Drawings that do not say how large they are, one of each kind. */
    untold: taken?.untold ?? [],
    packed,
    pick,
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

/** The first of each kind that does not say how large it is. */
function untoldOf(found: readonly FileFound[]): Untold[] {
  const byKind = new Map<Kind, Untold>()
  for (const { name, intake } of found) {
    const kind = kindOf(name)
    if (!intake || intake.unitMm === null || byKind.has(kind)) continue
    const { unitMm, widthMm, heightMm } = intake
    byKind.set(kind, { name, kind, unitMm, widthMm, heightMm })
  }
  return [...byKind.values()]
}
