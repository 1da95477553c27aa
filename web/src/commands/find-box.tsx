// Find: layers, papers, loads, steps, snags and whatever can be done, by a few letters; arrows and Enter go there.
import { Command } from 'cmdk'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { colourOf, folioOf, type Stage } from '@feuillet/core/project'
import { FolioTab, SheetDialog } from '../ui'
import { commandOf } from './list'
import { doCommand, useAbleCommands } from './use-command'
import { selectProject, selectSnags } from '../state/selectors'
import { usePlan } from '../plan'
import { pathOf } from '../shell/stage-names'
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
    <SheetDialog
      open={open}
      onOpenChange={(finding) => dispatch(looked({ finding }))}
      title="Find"
      hideTitle
      className="top-20 w-[520px]"
    >
      <Finder />
    </SheetDialog>
  )
}

/** So many of a kind are shown at most. */
const MOST = 60

function Finder() {
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const hits = useHits()
  const able = useAbleCommands()
  const projectId = useAppSelector((state) => selectProject(state).id)
  const [text, setText] = useState('')
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  const fits = (line: string) => words.every((word) => line.toLowerCase().includes(word))
  const close = () => dispatch(looked({ finding: false }))
  const found = hits.filter((hit) => fits(`${hit.kind} ${hit.text}`)).slice(0, MOST)
  const orders = able
    .map((id) => ({ id, ...commandOf(id) }))
    .filter(({ title, group }) => fits(`${group} ${title}`))
  return (
    <Command shouldFilter={false} loop label="Find a layer, paper, load, step or snag, or something to do">
      <Command.Input
        autoFocus
        aria-label="Find a layer, paper, load, step or snag"
        placeholder="A layer, paper, load, step, snag, or what to do"
        className="w-full border-0 border-b border-line px-4 py-3 text-[16px]"
        value={text}
        onValueChange={setText}
      />
      <Command.List aria-label="Found" className="max-h-[420px] overflow-y-auto py-1">
        <Command.Empty className="px-4 py-2 text-soft">Nothing of that name here.</Command.Empty>
        {found.map((hit) => (
          <Command.Item
            key={`${hit.kind} ${hit.key}`}
            value={`${hit.kind} ${hit.key}`}
            className={entry}
            onSelect={() => {
              dispatch(looked({ ...hit.view, finding: false }))
              void navigate(pathOf(projectId, hit.stage))
            }}
          >
            <span className="w-12 shrink-0 text-[12px] opacity-75">{hit.kind}</span>
            {hit.tab && <FolioTab {...hit.tab} size={20} />}
            <span className="truncate">{hit.text}</span>
          </Command.Item>
        ))}
        {orders.map(({ id, title, group, shown }) => (
          <Command.Item
            key={id}
            value={id}
            className={entry}
            onSelect={() => {
              close()
              doCommand(id)
            }}
          >
            <span className="w-12 shrink-0 text-[12px] opacity-75">{group === 'Go to' ? 'go to' : 'do'}</span>
            <span className="min-w-0 flex-1 truncate">{title}</span>
            {shown && <span className="measure text-[12px] opacity-75">{shown}</span>}
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  )
}

const entry =
  'flex cursor-pointer items-center gap-3 px-4 py-1.5 data-[selected=true]:bg-ink data-[selected=true]:text-white'
