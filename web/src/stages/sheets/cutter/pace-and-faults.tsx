import { Heading, SelectField, Switch } from '../../../ui'
import type { CutterState, Fault } from './use-cutter'
import type { Tell } from './run-commands'

const SPEEDS = [1, 5, 20, 60, 200]

const FAULTS: readonly { fault: Fault; label: string }[] = [
  { fault: 'slip', label: 'Mat slips on the way' },
  { fault: 'blunt', label: 'Blade is worn' },
  { fault: 'power', label: 'Power fails on the way' },
]

/** How fast the simulated machine runs, and what goes wrong on the way. */
export function PaceAndFaults({ cutter, tell }: { cutter: CutterState; tell: Tell }) {
  return (
    <Heading title="Pace and faults">
      <div className="mb-2">
        <SelectField
          label="Pace"
          className="w-28"
          value={String(cutter.speed)}
          options={[...new Set([...SPEEDS, cutter.speed])].map((speed) => ({
            value: String(speed),
            label: `× ${speed}`,
          }))}
          onChange={(speed) => void tell('speed', { speed: Number(speed) })}
        />
      </div>
      <div className="grid gap-1">
        {FAULTS.map(({ fault, label }) => (
          <Switch
            key={fault}
            label={label}
            checked={cutter.faults[fault]}
            onChange={(on) => void tell('fault', { fault, on })}
          />
        ))}
      </div>
    </Heading>
  )
}
