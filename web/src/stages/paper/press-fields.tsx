// Film that is pressed on by heat: what its label says.
import type { Paper } from '@feuillet/core/project'
import { celsiusOf, degreesIn, degreeUnit, formatHeat } from '@feuillet/core/base/units'
import { selectUnit } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { Heading, NumberField, SelectField, Switch } from '../../ui'

const PEELS = [
  { value: 'hot', label: 'hot' },
  { value: 'warm', label: 'lukewarm' },
  { value: 'cold', label: 'cold' },
] as const

export function PressFields({
  paper: { name, press },
  onChange,
}: {
  paper: Paper
  onChange: (press: Paper['press']) => void
}) {
  const unit = useAppSelector(selectUnit)
  return (
    <Heading
      title="Film for heat"
      aside={
        <Switch
          label="pressed on"
          checked={press !== null}
          onChange={(on) => onChange(on ? { tempC: 150, seconds: 15, peel: 'warm' } : null)}
          title={`Whether ${name} is pressed onto card with a hot plate`}
        />
      }
    >
      {press && (
        <div className="grid gap-2">
          <NumberField
            label="How hot"
            unitHint={degreeUnit(unit)}
            value={Math.round(degreesIn(press.tempC, unit))}
            min={degreesIn(60, unit)}
            max={degreesIn(230, unit)}
            whole
            onChange={(degrees) => onChange({ ...press, tempC: celsiusOf(degrees, unit) })}
          />
          <NumberField
            label="How long"
            unitHint="s"
            value={press.seconds}
            min={1}
            max={300}
            whole
            onChange={(seconds) => onChange({ ...press, seconds })}
          />
          <SelectField
            label="Peeled"
            value={press.peel}
            options={PEELS}
            onChange={(peel) => onChange({ ...press, peel })}
          />
          <p className="text-[13px] text-soft">
            {formatHeat(150, unit)} and 15 s stand in until you type what the label of the film says: that
            counts.
          </p>
        </div>
      )}
    </Heading>
  )
}
