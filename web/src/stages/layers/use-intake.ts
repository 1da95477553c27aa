// Files that come in: read in the worker one after the other, with progress and a stop, and put into the project.
import { proxy } from 'comlink'
import { useRef, useState } from 'react'
import type { ReadOptions } from '@feuillet/core/io/read'
import { placement, takeIn, type Intake } from '@feuillet/core/stages/layers'
import { addLayers, readProject, type Project } from '@feuillet/core/project'
import { derivedAgain } from '../../plan/derive-again'
import { useAppDispatch, useAppStore } from '../../state/store'
import { edited } from '../../state/document'
import { compute, restartCompute } from '../../workers/compute'

type Options = Required<Pick<ReadOptions, 'outlines' | 'hairlineMm'>> & { textFont?: string }

interface Taken {
  files: { name: string; bytes: Uint8Array }[]
  before: Project
  after: Project
}

export interface IntakeNote {
  text: string
  bad: boolean
}

/** Something of a drawing that is not in the layers, and where it was, in the project's frame. */
export interface LeftMark {
  what: string
  x: number
  y: number
}

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

  const read = async (files: Taken['files'], before: Project, how: Options, label: string) => {
    setNotes([])
    setShare(0)
    let stopped = false
    // Progress comes by a channel of its own and may arrive after the result.
    let reading = true
    const onShare = (part: number) => reading && setShare(part)
    const stop = new Promise<'stopped'>((done) => {
      halt.current = () => {
        stopped = true
        restartCompute()
        done('stopped')
      }
    })
    let after = before
    const said: IntakeNote[] = []
    let lines = false
    const marks: LeftMark[] = []
    for (const { name, bytes } of files) {
      const answer = await Promise.race([takeFile(name, bytes, how, after, onShare), stop])
      if (answer === 'stopped' || stopped) {
        said.push({ text: `${name}: stopped. Nothing was changed.`, bad: false })
        after = before
        void dispatch(derivedAgain())
        break
      }
      said.push({ text: answer.text, bad: answer.project === null })
      if (answer.project) after = answer.project
      lines ||= answer.linesOnly
      marks.push(...answer.marks)
    }
    reading = false
    setShare(null)
    setNotes(said)
    setLinesOnly(lines)
    setLeftMarks(marks)
    if (after === before) return
    setTaken({ files, before, after })
    dispatch(edited({ label, project: after }))
  }

  const take = async (list: Iterable<File>) => {
    const project = store.getState().work.project
    const files = await Promise.all(
      [...list].map(async (file) => ({ name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) })),
    )
    if (project && files.length > 0)
      await read(files, project, options, `bring in ${files.map((f) => f.name).join(', ')}`)
  }

  /** Reads the same files otherwise, as long as nothing was changed since. */
  const again = (patch: Partial<Options>) => {
    const how = { ...options, ...patch }
    setOptions(how)
    if (taken && store.getState().work.project === taken.after)
      void read(taken.files, taken.before, how, 'read the drawing otherwise')
  }

  /** Sets the text of the drawing in a font of the maker's. Gives a sentence where the font cannot be read. */
  const outlineText = async (file: File): Promise<string | null> => {
    const answer = await compute.takeFont('text', new Uint8Array(await file.arrayBuffer()))
    if (!answer.ok) return `${file.name}: ${answer.sentence}.`
    again({ textFont: 'text' })
    return null
  }

  return {
    leftMarks,
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

/** One file put into a project; null where it could not be read. */
async function takeFile(
  name: string,
  bytes: Uint8Array,
  how: Options,
  project: Project,
  onShare: (share: number) => unknown,
): Promise<{ project: Project | null; text: string; linesOnly: boolean; marks: LeftMark[] }> {
  if (/\.json$/i.test(name)) {
    try {
      const other = readProject(new TextDecoder().decode(bytes))
      const papers = [
        ...project.drawer.papers,
        ...other.drawer.papers.filter((paper) => !project.drawer.papers.some((p) => p.id === paper.id)),
      ]
      const next = addLayers({ ...project, drawer: { ...project.drawer, papers } }, other.layers)
      return {
        project: next,
        text: `${name}: ${words(other.layers.length)}, with their papers.`,
        linesOnly: false,
        marks: [],
      }
    } catch (error) {
      return {
        project: null,
        text: `${name}: ${error instanceof Error ? error.message : String(error)}. Nothing was changed.`,
        linesOnly: false,
        marks: [],
      }
    }
  }
  const result = await compute.importDrawing(name, bytes, how, proxy(onShare))
  if (!result.ok)
    return {
      project: null,
      text: `${name}: ${result.sentence}. Nothing was changed.`,
      linesOnly: false,
      marks: [],
    }
  const move = placement(project, result.intake)
  return {
    project: takeIn(project, result.intake),
    text: `${name}: ${words(result.intake.layers.length)}.${leftWords(result.intake)}`,
    linesOnly: result.intake.linesOnly,
    marks: result.intake.leftAt.map(({ what, at }) => ({ what, x: at.x + move.x, y: at.y + move.y })),
  }
}

const words = (n: number): string => `${n} ${n === 1 ? 'layer' : 'layers'}`

const leftWords = ({ leftOut }: Intake): string =>
  leftOut.length > 0
    ? ` Left out: ${leftOut.map((l) => `${l.count} × ${l.what}`).join(', ')}.`
    : ' Nothing was left out.'
