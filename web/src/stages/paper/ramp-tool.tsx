import { zodResolver } from '@hookform/resolvers/zod'
import { Controller, useForm, useWatch } from 'react-hook-form'
import { z } from 'zod'
import { assignRamp, rampPapers } from '@feuillet/core/stages/paper'
import { builtLayers, colourOf, folioOf } from '@feuillet/core/project'
import { change } from '../../state/edits'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, Checkbox, ColourInput, FolioTab, Heading, Select } from '../../ui'

const colour = z.string().regex(/^#[0-9a-f]{6}$/i)
const rampSchema = z.object({
  /** Null while it is the colour that the layer at that end has. */
  back: colour.nullable(),
  front: colour.nullable(),
  /** Layers that stay as they are. */
  off: z.array(z.string()),
})
type Ramp = z.infer<typeof rampSchema>

const ENDS = [
  { name: 'back', label: 'Back' },
  { name: 'front', label: 'Front' },
] as const

/** A ramp between two colours over the chosen layers, shown before it is taken. */
export function RampTool() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { stock } = useAppSelector((state) => state.document)
  const layers = builtLayers(project)
  const { control, handleSubmit } = useForm<Ramp>({
    defaultValues: { back: null, front: null, off: [] },
    resolver: zodResolver(rampSchema),
  })
  const { off = [], ...wanted } = useWatch({ control })
  if (layers.length < 2) return null
  const chosen = layers.flatMap(({ id }) => (off.includes(id) ? [] : [id]))
  const ends = {
    back: wanted.back ?? colourOf(project, layers[0]!),
    front: wanted.front ?? colourOf(project, layers.at(-1)!),
  }
  const preview = rampPapers(chosen, [ends.back, ends.front], stock)
  const take = () =>
    dispatch(
      change('ramp of papers', (p, papers) =>
        assignRamp(p, { layerIds: chosen, ends: [ends.back, ends.front], stock: papers }),
      ),
    )
  return (
    <Heading title="Ramp over layers">
      {/* Radix puts hidden fields of the form beside what it draws: they stay within it. */}
      <form className="relative" onSubmit={(event) => void handleSubmit(take)(event)}>
        <div className="mb-2 grid gap-1">
          {ENDS.map(({ name, label }) => (
            <Controller
              key={name}
              control={control}
              name={name}
              render={({ field: { onChange } }) => (
                <div className="flex items-center gap-2">
                  <span className="text-soft">{label}</span>
                  <ColourInput label={label} value={ends[name]} onChange={onChange} />
                  <Select
                    label={`${label} paper`}
                    className="w-20"
                    value=""
                    hint="paper…"
                    options={stock.map((paper) => ({ value: paper.id, label: paper.name }))}
                    onChange={(id) => onChange(stock.find((paper) => paper.id === id)!.colour)}
                  />
                </div>
              )}
            />
          ))}
        </div>
        <Controller
          control={control}
          name="off"
          render={({ field: { onChange } }) => (
            <ul className="mb-2 grid gap-1" aria-label="Ramp">
              {layers.map((layer) => {
                const step = preview.find((p) => p.layerId === layer.id)
                const isOff = off.includes(layer.id)
                return (
                  <li key={layer.id}>
                    <label className="flex items-center gap-2 text-[13px]">
                      <Checkbox
                        checked={!isOff}
                        onChange={() =>
                          onChange(isOff ? off.filter((id) => id !== layer.id) : [...off, layer.id])
                        }
                        label={`${layer.name} in the ramp`}
                      />
                      <FolioTab
                        folio={folioOf(project, layer.id)}
                        colour={step?.paper.colour ?? colourOf(project, layer)}
                        size={18}
                      />
                      {step && (
                        <span
                          aria-hidden
                          className="h-3.5 w-5 border border-line"
                          style={{ background: step.wanted }}
                        />
                      )}
                      <span className={`truncate ${step ? '' : 'text-soft'}`}>
                        {step ? step.paper.name : 'as it is'}
                      </span>
                    </label>
                  </li>
                )
              })}
            </ul>
          )}
        />
        <Button small type="submit" disabled={chosen.length < 2}>
          Take this ramp
        </Button>
      </form>
    </Heading>
  )
}
