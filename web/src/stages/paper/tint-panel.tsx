// A layer that is coloured by hand: with which ink, how far past what shows, darker edges.
import { setLayer, type Layer, type Tint } from '@feuillet/core/project'
import { change } from '../../state/edits'
import { selectProject, selectUnit } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Heading, LengthField, SelectField, Switch } from '../../ui'

const NO_EDGE = 'none'

export function TintPanel({ layer }: { layer: Layer }) {
  const dispatch = useAppDispatch()
  const { drawer } = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const { inks } = drawer
  const { tint } = layer
  const set = (label: string, next: Tint | null) =>
    dispatch(change(label, (p) => setLayer(p, layer.id, { tint: next })))
  const first = inks[0]
  if (!first && !tint) return null
  const options = inks.map(({ id, name, on }) => ({
    value: id,
    label: on === 'light card' ? name : `${name}, on ${on}`,
  }))
  return (
    <Heading
      title="Coloured by hand"
      aside={
        <Switch
          label="coloured"
          checked={tint !== null}
          onChange={(on) =>
            set(
              on ? `colour ${layer.name}` : `${layer.name} stays as its paper`,
              on && first
                ? { inkId: first.id, colour: first.colour, edgeInkId: null, edgeMm: 3, bleedMm: 4 }
                : null,
            )
          }
          title="It counts as a colour of its own, gets a step with drying, and a guide at true size among the files"
        />
      }
    >
      {tint && (
        <div className="grid gap-2">
          <SelectField
            label="Ink"
            value={tint.inkId}
            options={options}
            onChange={(inkId) =>
              set('ink', {
                ...tint,
                inkId,
                colour: inks.find(({ id }) => id === inkId)?.colour ?? tint.colour,
              })
            }
          />
          <LengthField
            label="Past what shows"
            unit={unit}
            valueMm={tint.bleedMm}
            max={60}
            onChange={(bleedMm) => set('how far the ink goes', { ...tint, bleedMm })}
          />
          <SelectField
            label="Edges with"
            value={tint.edgeInkId ?? NO_EDGE}
            options={[{ value: NO_EDGE, label: 'nothing more' }, ...options]}
            onChange={(id) => set('ink of the edges', { ...tint, edgeInkId: id === NO_EDGE ? null : id })}
          />
          {tint.edgeInkId !== null && (
            <LengthField
              label="Edge as wide as"
              unit={unit}
              valueMm={tint.edgeMm}
              min={0.5}
              max={40}
              onChange={(edgeMm) => set('width of the edge', { ...tint, edgeMm })}
            />
          )}
        </div>
      )}
    </Heading>
  )
}
