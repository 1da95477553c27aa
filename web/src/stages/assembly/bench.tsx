// Bench mode: one step, large, at arm's length; the space bar ticks it off. Its clock notes what each step took; what dries by itself
// runs on while the hands do something else.
import { useEffect, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { colourOf, findLayer, folioOf, letDry, paperOf, type Project } from '@feuillet/core/project'
import { handsMinutesOf, type Step } from '@feuillet/core/stages/assembly'
import { formatMinutes } from '@feuillet/core/base/units'
import { usePlan } from '../../plan'
import { pathOf } from '../../shell/stage-names'
import { change } from '../../state/edits'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { useWords } from '../../state/use-words'
import { useCommand } from '../../commands/use-command'
import { FolioTab } from '../../ui'
import { BenchPicture, TrueSize } from './bench-picture'
import { CutFileCaution, useCutFileCaution } from './cut-file-caution'
import { MishapPanel } from './mishap-panel'
import { tick } from './tick'
import { canSpeak, useAwake, useSpoken } from './use-bench-aids'
import { useStepClock } from './use-step-clock'

const NONE: readonly Step[] = []
/** Shorter than this nothing was done, only ticked (minutes). */
const ONLY_TICKED_MIN = 0.05

const waitsSentence = (title: string): string => `It waits for what still dries: ${title}`

export default function Bench() {
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const project = useAppSelector(selectProject)
  const assembly = usePlan('assembly')
  const steps = assembly?.steps ?? NONE
  const { drying } = project.progress
  /** Pressed as done and still being noted. */
  const [noting, setNoting] = useState<readonly string[]>([])
  const done = [...project.progress.done, ...noting]
  const isDrying = (id: string) => drying.some(({ stepId }) => stepId === id)
  /** The next step that is neither done nor drying by itself; where only drying is left, that. */
  const nextOpen = (from: number): number => {
    const open = (test: (step: Step) => boolean) => {
      const on = steps.findIndex((step, i) => i >= from && test(step))
      return on >= 0 ? on : steps.findIndex(test)
    }
    const working = open(({ id }) => !done.includes(id) && !isDrying(id))
    const any = working >= 0 ? working : open(({ id }) => !done.includes(id))
    return any < 0 ? steps.length : any
  }
  // By name, not by its place: a load that is cut may move others.
  const [asked, setAsked] = useState<string | null>(null)
  const askedAt = asked === null ? -1 : steps.findIndex(({ id }) => id === asked)
  const at = askedAt >= 0 ? askedAt : nextOpen(0)
  const step = steps[at]
  const waitsFor = (step?.after ?? []).flatMap((id) => drying.filter(({ stepId }) => stepId === id))
  const isWaiting = step !== undefined && step.needs.length === 0
  const clock = useStepClock(step?.id)
  const isAwake = useAwake()
  const [isSpoken, setSpoken] = useState(false)
  const [isTrueSize, setTrueSize] = useState(false)
  const [isWrong, setWrong] = useState(false)
  const { words } = useWords()
  const olderFile = useCutFileCaution(step)
  const waits = waitsFor.map(({ title }) => waitsSentence(title))
  const said = step && [step.title, words(step.detail), step.caution, olderFile?.says, ...waits]
  useSpoken(said ? said.filter(Boolean).join('. ') : 'It is built.', isSpoken)
  const leave = () => void navigate(pathOf(project.id, 'assembly'))
  const doneButton = useRef<HTMLButtonElement>(null)
  const goOn = () => {
    const next = steps[at + 1]
    setAsked(next && !done.includes(next.id) ? next.id : null)
    doneButton.current?.focus()
  }
  const finish = () => {
    if (!step) return
    const minutes = clock.minutes()
    const { id } = step
    setNoting((before) => [...before, id])
    void dispatch(tick(step, true, isWaiting || minutes < ONLY_TICKED_MIN ? null : minutes)).finally(() =>
      setNoting((before) => before.filter((noted) => noted !== id)),
    )
    goOn()
  }
  const begin = () => {
    if (!step) return
    const { id: stepId, title, minutes } = step
    dispatch(
      change(`let it dry: ${title}`, (p) =>
        letDry(p, { stepId, title, endsAt: Date.now() + minutes * 60_000 }),
      ),
    )
    goOn()
  }
  const back = () => {
    const before = steps[at - 1]
    if (!before) return
    void dispatch(tick(before, false))
    setAsked(before.id)
    // What comes next is Done again, whichever way it was gone back.
    doneButton.current?.focus()
  }
  useCommand('bench-back', back, { enabled: at > 0 && !isWrong })
  useCommand('bench-leave', leave, { enabled: !isWrong })
  // The space bar presses what has the focus: that is Done, unless the maker went elsewhere.
  const ready = Boolean(assembly)
  useEffect(() => doneButton.current?.focus(), [ready])
  if (!assembly)
    return (
      <main className="h-full bg-night p-8 text-panel" aria-busy>
        <h1 className="text-[20px]">Computing the steps…</h1>
      </main>
    )
  const leftMin = steps.filter((s) => !done.includes(s.id)).reduce((sum, s) => sum + handsMinutesOf(s), 0)
  const picture = { project, step, steps, at }
  const startsClock = isWaiting && !isDrying(step.id)
  return (
    <main className="grid h-full grid-cols-1 gap-x-10 gap-y-4 overflow-y-auto bg-night p-6 text-panel md:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)] md:overflow-hidden md:p-8">
      <div className="flex min-h-72 flex-col md:min-h-0">
        {isTrueSize ? <TrueSize {...picture} /> : <BenchPicture {...picture} />}
      </div>
      <div className="flex min-h-0 flex-col">
        <p className="measure mb-3 text-[18px] text-[#c3c5bf]">
          {step
            ? `step ${at + 1} of ${steps.length} · ${formatMinutes(leftMin)} of handwork left`
            : `${steps.length} steps done`}
        </p>
        <div className="min-h-0 flex-1 overflow-y-auto" aria-live="polite" tabIndex={0}>
          <h1 className="mb-5 text-[38px] leading-[1.1]">{step ? step.title : 'It is built.'}</h1>
          {step && <StepWords step={step} project={project} />}
          {step && (
            <CutFileCaution
              step={step}
              className="mt-5 border-l-4 border-[#e0a948] bg-[#38353a] px-5 py-3 text-[19px]"
            />
          )}
          {waitsFor.map(({ stepId, title }) => (
            <p key={stepId} className="mt-5 border-l-4 border-[#e0a948] bg-[#38353a] px-5 py-3 text-[19px]">
              ▲ {waitsSentence(title)}.
            </p>
          ))}
          {!step && <p className="text-[22px]">Write down what worked in the Journal.</p>}
        </div>
        <button
          ref={doneButton}
          type="button"
          className="clip-corner mt-4 flex items-center justify-between bg-panel px-7 py-5 text-ink hover:bg-white disabled:opacity-50"
          disabled={!step}
          onClick={startsClock ? begin : finish}
        >
          <span className="font-head text-[28px] font-bold">
            {startsClock ? `Let it dry, ${formatMinutes(step.minutes)}` : 'Done'}
          </span>
          <span className="measure text-[18px]">space bar</span>
        </button>
        <div className="mt-3 grid grid-cols-[auto_auto_auto] items-center justify-between gap-x-5 gap-y-2 text-[17px] [&>*]:justify-self-start">
          <Aid onClick={back} disabled={at === 0}>
            ← back
          </Aid>
          {startsClock ? (
            <Aid onClick={finish}>it is dry already</Aid>
          ) : (
            <Aid onClick={clock.pause} disabled={!step} pressed={clock.isPaused}>
              {clock.isPaused ? 'go on after the pause' : 'pause'}
            </Aid>
          )}
          <Aid onClick={() => setTrueSize(!isTrueSize)} pressed={isTrueSize}>
            true size
          </Aid>
          {canSpeak() && (
            <Aid onClick={() => setSpoken(!isSpoken)} pressed={isSpoken}>
              read out
            </Aid>
          )}
          <Aid onClick={() => setWrong(true)} disabled={!step}>
            something went wrong
          </Aid>
          <Aid onClick={leave}>leave the bench (Esc)</Aid>
        </div>
        {isAwake && <p className="mt-1 text-[14px] text-[#c3c5bf]">The screen stays awake.</p>}
      </div>
      {isWrong && step && (
        <MishapPanel
          step={step}
          steps={steps}
          onClose={() => {
            setWrong(false)
            setAsked(null)
          }}
        />
      )}
    </main>
  )
}

/** A smaller thing to press at the bench. */
function Aid({
  pressed,
  ...rest
}: {
  pressed?: boolean
  disabled?: boolean
  onClick: () => void
  children: React.ReactNode
}) {
  return (
    <button
      type="button"
      aria-pressed={pressed}
      className={`min-h-9 underline-offset-4 hover:underline disabled:opacity-40 ${pressed ? 'underline' : ''}`}
      {...rest}
    />
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
