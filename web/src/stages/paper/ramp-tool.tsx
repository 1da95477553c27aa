import { useState } from 'react'
import { assignRamp, rampPapers } from '@feuillet/core/stages/paper'
import { builtLayers, colourOf, folioOf } from '@feuillet/core/project'
import { change } from '../../state/edits'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, FolioTab, Heading, Checkbox, Select } from '../../ui'

/** A ramp between two colours over the chosen layers, shown before it is taken. */
export function RampTool() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { stock } = useAppSelector((state) => state.document)
  const layers = builtLayers(project)
  const [ends, setEnds] = useState<{ from?: string; to?: string }>({})
  const [off, setOff] = useState<ReadonlySet<string>>(new Set())
  if (layers.length < 2) return null
  const chosen = layers.filter((layer) => !off.has(layer.id))
  const from = ends.from ?? colourOf(project, layers[0]!)
  const to = ends.to ?? colourOf(project, layers.at(-1)!)
  const preview = rampPapers(
    chosen.map((layer) => layer.id),
    [from, to],
    stock,
  )
  const toggle = (id: string) =>
    setOff(new Set(off.has(id) ? [...off].filter((other) => other !== id) : [...off, id]))
  const End = ({
    label,
    value,
    onChange,
  }: {
    label: string
    value: string
    onChange: (hex: string) => void
  }) => (
    <label className="flex items-center gap-2">
      <span className="text-soft">{label}</span>
      <input
        type="color"
        className="h-7 w-9 p-0.5"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
      <Select
        label={`${label} paper`}
        className="w-20"
        value=""
        hint="paper…"
        options={stock.map((paper) => ({ value: paper.id, label: paper.name }))}
        onChange={(id) => onChange(stock.find((paper) => paper.id === id)!.colour)}
      />
    </label>
  )
  return (
    <Heading title="Ramp over layers">
      <div className="mb-2 grid gap-1">
        {End({ label: 'Back', value: from, onChange: (hex) => setEnds({ ...ends, from: hex }) })}
        {End({ label: 'Front', value: to, onChange: (hex) => setEnds({ ...ends, to: hex }) })}
      </div>
      <ul className="mb-2 grid gap-1" aria-label="Ramp">
        {layers.map((layer) => {
          const step = preview.find((p) => p.layerId === layer.id)
          return (
            <li key={layer.id}>
              <label className="flex items-center gap-2 text-[13px]">
                <Checkbox
                  checked={!off.has(layer.id)}
                  onChange={() => toggle(layer.id)}
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
      <Button
        small
        disabled={chosen.length < 2}
        onClick={() =>
          dispatch(
            change('ramp of papers', (p, papers) =>
              assignRamp(p, {
                layerIds: chosen.map((layer) => layer.id),
                ends: [from, to],
                stock: papers,
              }),
            ),
          )
        }
      >
        Take this ramp
      </Button>
    </Heading>
  )
}
