// Commands that can be done on every stage of an open project.
import { useNavigate } from 'react-router'
import { builtLayers, moveLayer, STAGES } from '@feuillet/core/project'
import { saveProjectFile } from '../shell/save-project'
import { pathOf } from '../shell/stage-names'
import { change } from '../state/edits'
import { selectProject, selectStageSnags, selectView } from '../state/selectors'
import { useAppDispatch, useAppSelector } from '../state/store'
import { looked, pickedLayer } from '../state/view'
import type { Stage } from '@feuillet/core/project'
import { redo, undo } from './history'
import { useCommand } from './use-command'

export function StageCommands({ stage }: { stage: Stage }) {
  useGoing()
  useLayers()
  useLooking(stage)
  useProject()
  return null
}

function useGoing(): void {
  const navigate = useNavigate()
  const { id } = useAppSelector(selectProject)
  const steps = useAppSelector((state) => state.document.project?.layers.length ?? 0)
  for (const stage of STAGES)
    // A fixed list: the hooks come in the same order each time.
    // eslint-disable-next-line react-hooks/rules-of-hooks
    useCommand(`go-${stage}`, () => void navigate(pathOf(id, stage)))
  useCommand('go-bench', () => void navigate(pathOf(id, 'bench')), { enabled: steps > 0 })
  useCommand('go-shelf', () => void navigate('/'))
}

function useLayers(): void {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { layerId } = useAppSelector(selectView)
  const layers = builtLayers(project)
  const at = layers.findIndex((layer) => layer.id === layerId)
  const pick = (k: number) =>
    dispatch(pickedLayer(layers[Math.max(0, Math.min(layers.length - 1, k))]?.id ?? null))
  const move = (by: number) =>
    layerId !== null &&
    dispatch(
      change('move a layer', (p) =>
        moveLayer(p, layerId, p.layers.findIndex((layer) => layer.id === layerId) + by),
      ),
    )
  useCommand('layer-below', () => pick(at < 0 ? layers.length - 1 : at - 1))
  useCommand('layer-above', () => pick(at < 0 ? 0 : at + 1))
  useCommand('layer-back', () => move(-1), { enabled: layerId !== null })
  useCommand('layer-forward', () => move(1), { enabled: layerId !== null })
}

function useLooking(stage: Stage): void {
  const dispatch = useAppDispatch()
  const { only, apart, snagAt } = useAppSelector(selectView)
  const snags = useAppSelector((state) => selectStageSnags(state, stage))
  useCommand('only-picked', () => dispatch(looked({ only: !only })))
  useCommand('draw-apart', () => dispatch(looked({ apart: !apart })))
  const step = (by: number) => {
    const from = snagAt === null || snagAt >= snags.length ? (by > 0 ? -1 : 0) : snagAt
    const next = (from + by + snags.length) % snags.length
    const snag = snags[next]!
    dispatch(looked({ snagAt: next, at: snag.at, ...(snag.layer ? { layerId: snag.layer } : {}) }))
  }
  useCommand('next-snag', () => step(1), { enabled: snags.length > 0 })
  useCommand('last-snag', () => step(-1), { enabled: snags.length > 0 })
  useCommand('look-away', () => dispatch(looked({ at: null, partKeys: [], snagAt: null })))
}

function useProject(): void {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { past, future } = useAppSelector((state) => state.document)
  useCommand('undo', () => dispatch(undo()), { enabled: past.length > 0 })
  useCommand('redo', () => dispatch(redo()), { enabled: future.length > 0 })
  useCommand('units', () => dispatch(change('units', (p) => ({ ...p, unit: p.unit === 'mm' ? 'in' : 'mm' }))))
  useCommand('save', () => saveProjectFile(project))
  useCommand('versions', () => dispatch(looked({ versions: true })))
  useCommand('find', () => dispatch(looked({ finding: true })))
  useCommand('keys', () => dispatch(looked({ keys: true })))
}
