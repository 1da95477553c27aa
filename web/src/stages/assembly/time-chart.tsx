import { Tip } from '../../ui'
import type { Step } from '@feuillet/core/stages/assembly'
import { formatMinutes } from '@feuillet/core/base/units'

const lanes = [
  { name: 'cutter', holds: (step: Step) => step.needs.includes('cutter') },
  { name: 'hands', holds: (step: Step) => step.needs.includes('hands') },
  { name: 'waiting', holds: (step: Step) => step.needs.length === 0 },
]

/** Cutter, hands and waiting side by side along the time of the build. */
export function TimeChart({
  steps,
  total,
  done,
  picked,
  onPick,
}: {
  steps: readonly Step[]
  total: number
  done: readonly string[]
  picked: string | undefined
  onPick: (stepId: string) => void
}) {
  const every = [5, 10, 15, 30, 60, 120, 240].find((k) => total / k <= 9) ?? 480
  const marks = Array.from({ length: Math.floor(total / every) + 1 }, (_, k) => k * every)
  return (
    <section
      aria-label="Time of the build"
      className="mx-5 mt-4 mb-2 border border-line bg-panel px-3 pt-2 pb-1"
    >
      <div className="grid grid-cols-[62px_1fr] items-center gap-y-1">
        {lanes.map(({ name, holds }) => (
          <div key={name} className="contents">
            <span className="text-[12.5px] text-soft">{name}</span>
            <div className="relative h-5 bg-ground/60">
              {steps.filter(holds).map((step) => (
                <Tip
                  key={step.id}
                  text={`${step.title}: ${formatMinutes(step.startMin)} to ${formatMinutes(step.endMin)}`}
                >
                  <button
                    type="button"
                    tabIndex={-1}
                    aria-hidden
                    onClick={() => onPick(step.id)}
                    className={`absolute top-0 h-full border-r border-panel ${picked === step.id ? 'bg-plum' : done.includes(step.id) ? 'bg-line' : name === 'waiting' ? 'bg-ochre' : 'bg-ink'}`}
                    style={{
                      left: `${(step.startMin / total) * 100}%`,
                      width: `max(2px, ${((step.endMin - step.startMin) / total) * 100}%)`,
                    }}
                  />
                </Tip>
              ))}
            </div>
          </div>
        ))}
        <span />
        <div className="relative h-5">
          {marks.map((mark) => (
            <span
              key={mark}
              className="measure absolute text-[11.5px] whitespace-nowrap text-soft"
              style={{ left: `${(mark / total) * 100}%` }}
            >
              {formatMinutes(mark)}
            </span>
          ))}
        </div>
      </div>
    </section>
  )
}
