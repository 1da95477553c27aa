import { Tip } from '../ui'
import { Redo2, Undo2 } from 'lucide-react'
import { Link } from 'react-router'
import type { Stage } from '@feuillet/core/project'
import { change } from '../state/edits'
import { Busy } from './busy'
import { ProjectMenu } from './project-menu'
import { selectProject, selectSaved, selectStages, type StageState } from '../state/selectors'
import { pathOf, stageName } from './stage-names'
import { useAppDispatch, useAppSelector } from '../state/store'
import { looked } from '../state/view'
import { redo, undo } from '../commands/history'

const marks: Record<StageState, string> = { untouched: '○', 'under way': '◐', 'in order': '●' }

export function TopBar({ stage }: { stage: Stage }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const stages = useAppSelector(selectStages)
  const { past, future, forgotten } = useAppSelector((state) => state.document)
  const saved = useAppSelector(selectSaved)
  const tool =
    'inline-flex h-7 min-w-8 items-center justify-center border border-line bg-panel px-2 hover:bg-sheet'
  return (
    <header className="col-span-2 flex min-w-0 items-end gap-3 bg-ground pr-3 max-[1220px]:gap-2">
      <div className="flex w-[240px] shrink-0 items-center gap-2 self-center pl-3 max-[1220px]:w-[230px]">
        <Link to="/" aria-label="To the shelf of projects" className="flex shrink-0 items-center gap-1.5">
          <img src="/mark.svg" alt="" width={24} height={24} />
          <span className="font-head text-[19px] font-bold">Feuillet</span>
        </Link>
        <ProjectMenu />
      </div>
      <nav aria-label="Stages" className="flex min-w-0 flex-1 items-end gap-1">
        {stages.map(({ stage: name, state, snags, stops }, i) => (
          <Tip key={name} text={`${stageName[name]} (${i + 1}): ${state}${snags ? `, ${snags} snags` : ''}`}>
            <Link
              to={pathOf(project.id, name)}
              aria-current={name === stage ? 'page' : undefined}
              className={`clip-tab flex shrink-0 items-center gap-1.5 px-2.5 font-semibold max-[1440px]:grid max-[1440px]:grid-cols-[auto_auto] max-[1440px]:content-center max-[1440px]:justify-between max-[1440px]:gap-x-2 max-[1440px]:gap-y-0 max-[1440px]:leading-tight max-[1220px]:gap-x-1 max-[1220px]:px-2 max-[1220px]:text-[13px] ${name === stage ? 'h-[46px] bg-panel' : 'mb-1.5 h-10 bg-[#c6c8c3] hover:bg-[#cfd1cc]'}`}
            >
              <span aria-hidden className="text-[12px]">
                {marks[state]}
              </span>
              <span className="max-[1440px]:order-last max-[1440px]:col-span-2">{stageName[name]}</span>
              {snags > 0 && (
                <span
                  className={`measure px-1.5 text-[12px] whitespace-nowrap text-white max-[1440px]:text-[11px] max-[1440px]:leading-[13px] max-[1220px]:px-1 max-[1220px]:text-[10.5px] ${stops > 0 ? 'bg-crimson' : 'bg-ochre'}`}
                  aria-label={`${snags} snags`}
                >
                  {stops > 0 ? '■' : '▲'} {snags}
                </span>
              )}
            </Link>
          </Tip>
        ))}
      </nav>
      <div className="flex shrink-0 items-center gap-1.5 self-center">
        <Busy />
        {saved !== 'saved' && (
          <span className={`text-[12px] ${saved === 'failed' ? 'text-crimson' : 'text-soft'}`}>
            {saved === 'failed' ? '■ not kept' : 'keeping…'}
          </span>
        )}
        <Tip
          text={
            past.length
              ? `Undo: ${past.at(-1)!.label} (Ctrl+Z)${forgotten ? '; steps long past are let go, see past versions' : ''}`
              : undefined
          }
        >
          <button
            type="button"
            className={tool}
            disabled={past.length === 0}
            aria-label="Undo"
            aria-description={past.at(-1)?.label}
            onClick={() => dispatch(undo())}
          >
            <Undo2 size={15} />
          </button>
        </Tip>
        <Tip text={future.length ? `Redo: ${future.at(-1)!.label} (Ctrl+Shift+Z)` : undefined}>
          <button
            type="button"
            className={tool}
            disabled={future.length === 0}
            aria-label="Redo"
            aria-description={future.at(-1)?.label}
            onClick={() => dispatch(redo())}
          >
            <Redo2 size={15} />
          </button>
        </Tip>
        <Tip text="Switch between mm and inches">
          <button
            type="button"
            className={`${tool} measure`}
            aria-label={`Units: ${project.unit}`}
            onClick={() => dispatch(change('units', (p) => ({ ...p, unit: p.unit === 'mm' ? 'in' : 'mm' })))}
          >
            {project.unit}
          </button>
        </Tip>
        <button
          type="button"
          className={`${tool} gap-2 whitespace-nowrap`}
          onClick={() => dispatch(looked({ finding: true }))}
        >
          Find <span className="measure text-[12px] text-soft max-[1220px]:hidden">Ctrl K</span>
        </button>
      </div>
    </header>
  )
}
