// Film that is pressed on by heat: what its label says.
import type { Paper } from '@feuillet/core/project'
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
            unitHint="°C"
            value={press.tempC}
            min={60}
            max={230}
            whole
            onChange={(tempC) => onChange({ ...press, tempC })}
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
            150 °C and 15 s stand in until you type what the label of the film says: that counts.
          </p>
        </div>
      )}
    </Heading>
  )
}
