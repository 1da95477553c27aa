import { memo } from 'react'
import type { DraftStep, Step } from '@feuillet/core/stages/assembly'
import { colourOf, findLayer, folioOf } from '@feuillet/core/project'
import { formatMinutes } from '@feuillet/core/base/units'
import { selectProject } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { useOlderFile } from '../../state/use-older-file'
import { Checkbox, FolioTab } from '../../ui'
import { useStepSheet } from './use-step-sheet'

interface Props {
  step: Step
  number: number
  done: boolean
  isNext: boolean
  picked: boolean
  onPick: () => void
  onTick: (ticked: boolean) => void
}

export const StepRow = memo(function StepRow({ step, number, done, isNext, picked, onPick, onTick }: Props) {
  const project = useAppSelector(selectProject)
  const { load, isCut } = useStepSheet(step.loadId)
  const olderAt = useOlderFile(step.kind === 'cut' && !done && !isCut ? load : undefined)
  const layer = findLayer(project, step.layerId)
  return (
    <li className={`flex items-center gap-3 ${picked ? 'bg-panel' : ''}`} data-step={step.id}>
      <Checkbox className="ml-2" checked={done} onChange={onTick} label={`Done: ${step.title}`} />
      <button
        type="button"
        onClick={onPick}
        className={`flex min-w-0 flex-1 items-center gap-3 py-1.5 pr-2 text-left ${done ? 'text-soft line-through decoration-1' : ''}`}
      >
        <span className="measure w-6 text-right text-[12.5px] text-soft no-underline">{number}</span>
        {layer ? (
          <FolioTab folio={folioOf(project, layer.id)} colour={colourOf(project, layer)} size={22} />
        ) : load ? (
          <FolioTab folio={load.folios[0] ?? null} colour={load.paper.colour} size={22} />
        ) : (
          <span className="w-[22px] text-center text-soft">{step.needs.length === 0 ? '◷' : '·'}</span>
        )}
        <span className={`min-w-0 flex-1 leading-snug ${isNext ? 'font-semibold' : ''}`}>
          {isNext && <span className="text-plum">next: </span>}
          {step.title}
          {(step.caution !== null || olderAt !== null) && <span className="text-ochre">&nbsp;▲</span>}
          {olderAt !== null && (
            <span className="text-[13px] text-ochre"> its file is older than the plan</span>
          )}
        </span>
        <span className="measure text-[12.5px] whitespace-nowrap text-soft">
          {step.needs.length === 0 ? 'wait ' : ''}
          {formatMinutes(step.minutes)}
        </span>
      </button>
    </li>
  )
})

/** A step of the order of work, before its time is known. */
export const DraftRow = memo(function DraftRow({ step, number }: { step: DraftStep; number: number }) {
  const project = useAppSelector(selectProject)
  const layer = findLayer(project, step.layerId)
  return (
    <li className="flex items-center gap-3 border-b border-line py-1.5 pr-2 pl-2 text-soft">
      <span className="measure w-6 text-right text-[12.5px]">{number}</span>
      {layer ? (
        <FolioTab folio={folioOf(project, layer.id)} colour={colourOf(project, layer)} size={22} />
      ) : (
        <span className="w-[22px] text-center">{step.needs.length === 0 ? '◷' : '·'}</span>
      )}
      <span className="min-w-0 flex-1 leading-snug">{step.title}</span>
    </li>
  )
})
