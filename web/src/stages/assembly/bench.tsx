// Bench mode: one step, large, at arm's length; the space bar ticks it off.
import { useEffect, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import {
  builtLayers,
  colourOf,
  findLayer,
  folioOf,
  paperOf,
  viewBox,
  type Project,
} from '@feuillet/core/project'
import type { Step } from '@feuillet/core/stages/assembly'
import { formatMinutes } from '@feuillet/core/base/units'
import { usePlan } from '../../plan'
import { pathOf } from '../../shell/stage-names'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { useWords } from '../../state/use-words'
import { useCommand } from '../../commands/use-command'
import { Board } from '../../drawing/board'
import { GlueMarks } from '../../drawing/glue-marks'
import { StackDrawing } from '../../drawing/stack'
import { FolioTab } from '../../ui'
import { tick } from './tick'

export default function Bench() {
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const project = useAppSelector(selectProject)
  const assembly = usePlan('assembly')
  const steps = assembly?.steps ?? []
  const { done } = project.progress
  const firstOpen = steps.findIndex((step) => !done.includes(step.id))
  const [asked, setAsked] = useState<number | null>(null)
  const at = asked ?? (firstOpen < 0 ? steps.length : firstOpen)
  const step = steps[at]
  const leave = () => void navigate(pathOf(project.id, 'assembly'))
  const doneButton = useRef<HTMLButtonElement>(null)
  const finish = () => {
    if (!step) return
    dispatch(tick(step, true))
    setAsked(at + 1)
  }
  const back = () => {
    const before = steps[at - 1]
    if (!before) return
    dispatch(tick(before, false))
    setAsked(at - 1)
    // What comes next is Done again, whichever way it was gone back.
    doneButton.current?.focus()
  }
  useCommand('bench-back', back, { enabled: at > 0 })
  useCommand('bench-leave', leave)
  // The space bar presses what has the focus: that is Done, unless the maker went elsewhere.
  const ready = Boolean(assembly)
  useEffect(() => doneButton.current?.focus(), [ready])
  if (!assembly)
    return (
      <main className="h-full bg-night p-8 text-panel" aria-busy>
        <h1 className="text-[20px]">Computing the steps…</h1>
      </main>
    )
  const leftMin = steps
    .slice(at)
    .filter((s) => s.needs.includes('hands'))
    .reduce((sum, s) => sum + s.minutes, 0)
  return (
    <main className="grid h-full grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)] gap-10 bg-night p-10 text-panel">
      <div className="flex min-h-0 flex-col">
        <BenchPicture project={project} step={step} steps={steps} at={at} />
      </div>
      <div className="flex min-h-0 flex-col">
        <p className="measure mb-3 text-[18px] text-[#c3c5bf]">
          {step
            ? `step ${at + 1} of ${steps.length} · ${formatMinutes(leftMin)} of handwork left`
            : `${steps.length} steps done`}
        </p>
        <div className="min-h-0 flex-1 overflow-y-auto" aria-live="polite">
          <h1 className="mb-5 text-[42px] leading-[1.1]">{step ? step.title : 'It is built.'}</h1>
          {step && <StepWords step={step} project={project} />}
          {!step && <p className="text-[22px]">Write down what worked in the Journal.</p>}
        </div>
        <button
          ref={doneButton}
          type="button"
          className="clip-corner mt-4 flex items-center justify-between bg-panel px-7 py-6 text-ink hover:bg-white disabled:opacity-50"
          disabled={!step}
          onClick={finish}
        >
          <span className="font-head text-[30px] font-bold">Done</span>
          <span className="measure text-[18px]">space bar</span>
        </button>
        <div className="mt-4 flex justify-between text-[19px]">
          <button
            type="button"
            className="underline-offset-4 hover:underline disabled:opacity-40"
            disabled={at === 0}
            onClick={back}
          >
            ← back
          </button>
          <button type="button" className="underline-offset-4 hover:underline" onClick={leave}>
            leave the bench (Esc)
          </button>
        </div>
      </div>
    </main>
  )
}

function StepWords({ step, project }: { step: Step; project: Project }) {
  const { words } = useWords()
  const layer = findLayer(project, step.layerId)
  return (
    <>
      {layer && (
        <div className="mb-5 flex items-center gap-4">
          <FolioTab folio={folioOf(project, layer.id)} colour={colourOf(project, layer)} size={56} />
          <div className="text-[21px] leading-tight">
            <p className="font-semibold">{layer.name}</p>
            <p>{paperOf(project, layer)?.name ?? ''}</p>
          </div>
        </div>
      )}
      <p className="text-[22px] leading-[1.4]">{words(step.detail)}</p>
      {step.caution && (
        <p className="mt-5 border-l-4 border-[#e0a948] bg-[#38353a] px-5 py-3 text-[19px]">
          <span aria-hidden>▲ </span>
          {step.caution}
        </p>
      )}
    </>
  )
}

/** The stack as far as it is built, this step's layer in place; pads and glue on its back as seen through it. */
function BenchPicture({
  project,
  step,
  steps,
  at,
}: {
  project: Project
  step: Step | undefined
  steps: readonly Step[]
  at: number
}) {
  const map = usePlan('padMap', step?.kind === 'pad' ? step.layerId : null)
  const glue = usePlan('glueMap', step?.kind === 'glue' ? step.layerId : null)
  const holding = step?.kind === 'pad' || step?.kind === 'glue'
  const layers = builtLayers(project)
  const laid = new Set(
    steps
      .slice(0, at)
      .filter((s) => s.kind === 'lay' || s.kind === 'glue')
      .map((s) => s.layerId),
  )
  const sticking = Boolean(step?.layerId)
  const shown =
    sticking || laid.size > 0
      ? layers.filter((layer) => laid.has(layer.id) || layer.id === step?.layerId)
      : layers
  const box = viewBox(project)
  const pads = map?.pads ?? []
  return (
    <Board name="bench" box={box} unit={project.unit} label="The stack at this step" rulers={false}>
      {(px) => (
        <>
          <StackDrawing
            project={project}
            layers={shown}
            px={px}
            strong={holding && step.layerId ? new Set([step.layerId]) : undefined}
          />
          {glue && <GlueMarks glue={glue} px={px} ink="#1e2126" />}
          {pads.map((pad, i) => (
            <rect
              key={i}
              transform={`translate(${pad.x} ${pad.y}) rotate(${pad.rotation})`}
              x={-pad.widthMm / 2}
              y={-pad.heightMm / 2}
              width={pad.widthMm}
              height={pad.heightMm}
              fill="#fff"
              stroke="#1e2126"
              strokeWidth={px * 1.2}
            />
          ))}
        </>
      )}
    </Board>
  )
}
