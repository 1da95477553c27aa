// Papers for many layers at once, shown before they are taken: running on from one colour to another, or set off against each other.
import { zodResolver } from '@hookform/resolvers/zod'
import { useMemo, useState } from 'react'
import { Controller, useForm, useWatch } from 'react-hook-form'
import { z } from 'zod'
import {
  assignContrast,
  assignRamp,
  colouredLayers,
  contrastPapers,
  rampPapers,
  TOO_ALIKE,
} from '@feuillet/core/stages/paper'
import { builtLayers, colourOf, folioOf, type Layer, type Paper } from '@feuillet/core/project'
import { change } from '../../state/edits'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import {
  Button,
  Checkbox,
  Choice,
  ColourInput,
  Figure,
  Figures,
  FolioTab,
  Heading,
  NumberField,
  Select,
} from '../../ui'

const colour = z.string().regex(/^#[0-9a-f]{6}$/i)
/** Null while it is the colour that the layer at that end has. */
const endsSchema = z.object({ back: colour.nullable(), front: colour.nullable() })
type Ends = z.infer<typeof endsSchema>

const ENDS = [
  { name: 'back', label: 'Back' },
  { name: 'front', label: 'Front' },
] as const

/** Layers of which some stay as they are. */
interface Part {
  layers: readonly Layer[]
  off: readonly string[]
  onOff: (off: readonly string[]) => void
}

export function ColoursTool() {
  const project = useAppSelector(selectProject)
  const [way, setWay] = useState<'ramp' | 'contrast'>('ramp')
  const [off, onOff] = useState<readonly string[]>([])
  const layers = builtLayers(project)
  const coloured = useMemo(() => colouredLayers(project), [project])
  if (layers.length < 2) return null
  return (
    <Heading title="Colours over layers">
      <div className="mb-2">
        <Choice
          label="How colours follow each other"
          value={way}
          options={[
            { value: 'ramp', label: 'ramp', title: 'From one colour to another in even steps' },
            {
              value: 'contrast',
              label: 'contrast',
              title: 'Each clear of what it lies on, out of few papers',
            },
          ]}
          onChange={setWay}
        />
      </div>
      {way === 'ramp' ? (
        <RampForm layers={layers} off={off} onOff={onOff} />
      ) : (
        <ContrastForm layers={coloured} off={off} onOff={onOff} />
      )}
    </Heading>
  )
}

/** A ramp between two colours over the chosen layers. */
function RampForm({ layers, off, onOff }: Part) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { stock } = useAppSelector((state) => state.document)
  const { control, handleSubmit } = useForm<Ends>({
    defaultValues: { back: null, front: null },
    resolver: zodResolver(endsSchema),
  })
  const wanted = useWatch({ control })
  const chosen = useMemo(() => layers.flatMap(({ id }) => (off.includes(id) ? [] : [id])), [layers, off])
  const ends = {
    back: wanted.back ?? colourOf(project, layers[0]!),
    front: wanted.front ?? colourOf(project, layers.at(-1)!),
  }
  const { back, front } = ends
  const taken = useMemo(
    () => rampPapers(project, { layerIds: chosen, ends: [back, front], stock }),
    [project, chosen, back, front, stock],
  )
  const take = () =>
    dispatch(
      change('ramp of papers', (p, papers) =>
        assignRamp(p, { layerIds: chosen, ends: [ends.back, ends.front], stock: papers }),
      ),
    )
  return (
    // Radix puts hidden fields of the form beside what it draws: they stay within it.
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
      <Preview layers={layers} off={off} onOff={onOff} taken={taken} />
      <Button small type="submit" disabled={chosen.length < 2}>
        Take this ramp
      </Button>
    </form>
  )
}

/** Few papers that set the chosen layers off against what they lie on. */
function ContrastForm({ layers, off, onOff }: Part) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { stock } = useAppSelector((state) => state.document)
  const [typed, setTyped] = useState<number | null>(null)
  const chosen = useMemo(() => layers.flatMap(({ id }) => (off.includes(id) ? [] : [id])), [layers, off])
  const most = Math.min(typed ?? chosen.length, chosen.length)
  const { papers, leastStep } = useMemo(
    () => contrastPapers(project, { layerIds: chosen, stock, most }),
    [project, chosen, stock, most],
  )
  return (
    <>
      <div className="mb-2">
        <NumberField
          label="Papers, at most"
          value={most}
          min={1}
          max={Math.max(1, chosen.length)}
          whole
          onChange={setTyped}
        />
      </div>
      <Preview layers={layers} off={off} onOff={onOff} taken={papers} />
      {Number.isFinite(leastStep) && (
        <Figures>
          <Figure
            name="Closest neighbours"
            value={leastStep.toFixed(1)}
            alarm={leastStep < TOO_ALIKE}
            basis="CIEDE2000, as large as the papers at hand make it; from 25 on colours stay as near as can be to those of now"
          />
        </Figures>
      )}
      <div className="mt-2">
        <Button
          small
          disabled={papers.length === 0}
          onClick={() =>
            dispatch(
              change('papers that set layers off', (p, held) =>
                assignContrast(p, { layerIds: chosen, stock: held, most }),
              ),
            )
          }
        >
          Take these papers
        </Button>
      </div>
    </>
  )
}

/** What each layer would be of; a tick leaves it as it is. */
function Preview({
  layers,
  off,
  onOff,
  taken,
}: Part & { taken: readonly { layerId: string; wanted?: string; paper: Paper }[] }) {
  const project = useAppSelector(selectProject)
  return (
    <ul className="mb-2 grid gap-1" aria-label="Papers to take">
      {layers.map((layer) => {
        const step = taken.find(({ layerId }) => layerId === layer.id)
        const isOff = off.includes(layer.id)
        return (
          <li key={layer.id}>
            <label className="flex items-center gap-2 text-[13px]">
              <Checkbox
                checked={!isOff}
                onChange={() => onOff(isOff ? off.filter((id) => id !== layer.id) : [...off, layer.id])}
                label={`${layer.name} takes part`}
              />
              <FolioTab
                folio={folioOf(project, layer.id)}
                colour={step?.paper.colour ?? colourOf(project, layer)}
                size={18}
              />
              {step?.wanted && (
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
  )
}
