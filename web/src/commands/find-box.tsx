// Find: stages, layers, papers, loads, steps, snags by a few letters; arrows and Enter go there.
import { Dialog } from 'radix-ui'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { colourOf, folioOf, STAGES, type Stage } from '@feuillet/core/project'
import { FolioTab } from '../ui'
import { selectProject, selectSnags } from '../state/selectors'
import { usePlan } from '../plan'
import { pathOf, stageName } from '../shell/stage-names'
import { useAppDispatch, useAppSelector } from '../state/store'
import { useWords } from '../state/use-words'
import { looked, type ViewState } from '../state/view'

interface Hit {
  key: string
  kind: string
  text: string
  stage: Stage
  view: Partial<ViewState>
  tab?: { folio: number | null; colour: string }
}

function useHits(): Hit[] {
  const project = useAppSelector(selectProject)
  const loads = usePlan('loads') ?? []
  const steps = usePlan('assembly')?.steps ?? []
  const snags = useAppSelector(selectSnags)
  const { words } = useWords()
  return [
    ...STAGES.map((stage) => ({ key: stage, kind: 'stage', text: stageName[stage], stage, view: {} })),
    ...project.layers.map((layer) => ({
      key: layer.id,
      kind: 'layer',
      text: layer.name,
      stage: 'layers' as const,
      view: { layerId: layer.id },
      tab: { folio: folioOf(project, layer.id), colour: colourOf(project, layer) },
    })),
    ...project.drawer.papers.map((paper) => ({
      key: paper.id,
      kind: 'paper',
      text: paper.name,
      stage: 'paper' as const,
      view: { layerId: project.layers.find((layer) => layer.paperId === paper.id)?.id ?? null },
      tab: { folio: null, colour: paper.colour },
    })),
    ...loads.map((load) => ({
      key: load.id,
      kind: 'load',
      text: `Load ${load.number}: ${load.paper.name}`,
      stage: 'sheets' as const,
      view: { loadId: load.id },
    })),
    ...steps.map((step) => ({
      key: step.id,
      kind: 'step',
      text: step.title,
      stage: 'assembly' as const,
      view: { stepId: step.id },
    })),
    ...snags.map((snag, i) => ({
      key: `snag${i}`,
      kind: 'snag',
      text: words(snag.message),
      stage: snag.stage,
      view: { at: snag.at, ...(snag.layer ? { layerId: snag.layer } : {}) },
    })),
  ]
}

export function FindBox() {
  const dispatch = useAppDispatch()
  const open = useAppSelector((state) => state.view.finding)
  return (
    <Dialog.Root open={open} onOpenChange={(finding) => dispatch(looked({ finding }))}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/30" />
        <Dialog.Content
          className="fixed top-20 left-1/2 z-30 w-[520px] -translate-x-1/2 border border-ink bg-sheet"
          aria-describedby={undefined}
        >
          <Dialog.Title className="sr-only">Find</Dialog.Title>
          <Finder />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}

function Finder() {
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const hits = useHits()
  const projectId = useAppSelector((state) => selectProject(state).id)
  const [text, setText] = useState('')
  const [at, setAt] = useState(0)
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  const shown = hits
    .filter((hit) => words.every((word) => `${hit.kind} ${hit.text}`.toLowerCase().includes(word)))
    .slice(0, 12)
  const go = (hit: Hit | undefined) => {
    if (!hit) return
    dispatch(looked({ ...hit.view, finding: false }))
    void navigate(pathOf(projectId, hit.stage))
  }
  return (
    <>
      <input
        autoFocus
        role="combobox"
        aria-expanded
        aria-controls="find-hits"
        aria-activedescendant={shown[at] && `hit-${shown[at].key}`}
        aria-label="Find a layer, paper, load, step or snag"
        placeholder="A layer, paper, load, step or snag"
        className="w-full border-0 border-b border-line px-4 py-3 text-[16px]"
        value={text}
        onChange={(event) => {
          setText(event.target.value)
          setAt(0)
        }}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown') setAt(Math.min(shown.length - 1, at + 1))
          else if (event.key === 'ArrowUp') setAt(Math.max(0, at - 1))
          else if (event.key === 'Enter') go(shown[at])
          else return
          event.preventDefault()
        }}
      />
      <ul id="find-hits" role="listbox" aria-label="Found" className="max-h-[420px] overflow-y-auto py-1">
        {shown.map((hit, i) => (
          <li
            key={`${hit.kind} ${hit.key}`}
            id={`hit-${hit.key}`}
            role="option"
            aria-selected={i === at}
            className={`flex cursor-pointer items-center gap-3 px-4 py-1.5 ${i === at ? 'bg-ink text-white' : 'hover:bg-panel'}`}
            onClick={() => go(hit)}
          >
            <span className="w-12 shrink-0 text-[12px] opacity-75">{hit.kind}</span>
            {hit.tab && <FolioTab {...hit.tab} size={20} />}
            <span className="truncate">{hit.text}</span>
          </li>
        ))}
        {shown.length === 0 && <li className="px-4 py-2 text-soft">Nothing of that name here.</li>}
      </ul>
    </>
  )
}
