import { useState } from 'react'
import { z } from 'zod'
import { fewestLayers, keepLayers } from '@feuillet/core/stages/layers'
import {
  addMirrored,
  builtLayers,
  designBox,
  layerBox,
  scaleAndMove,
  transformLayers,
  type Layer,
  type Mend,
  type Project,
} from '@feuillet/core/project'
import { change, changeApart } from '../../state/edits'
import { usePlans } from '../../plan'
import { SpoilsNote } from '../../shell/spoils-note'
import { selectProject, selectUnit } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import {
  AreaField,
  Button,
  Choice,
  Heading,
  LengthField,
  NumberField,
  SchemaFields,
  SelectField,
  type SchemaField,
} from '../../ui'
import { editor } from '../../workers'

/** Size, mirroring and outlines of one layer or of all, proportions locked. */
export function ReshapePanel({ layer }: { layer: Layer }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const [all, setAll] = useState<'one' | 'all'>('all')
  const [outlineMm, setOutlineMm] = useState(2)
  const box = all === 'all' ? designBox(project) : layerBox(layer)
  const width = box.maxX - box.minX
  const middle = { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 }
  const ids = all === 'all' ? undefined : [layer.id]
  const who = all === 'all' ? 'everything' : layer.name
  const addOutline = () => {
    const draw = (p: Project) => editor.ask((api) => api.outline(p, layer.id, outlineMm))
    void dispatch(changeApart(`outline of ${layer.name}`, draw))
  }
  return (
    <Heading title="Reshape">
      <div className="grid gap-2">
        <Choice
          label="What to reshape"
          value={all}
          options={[
            { value: 'all', label: 'everything' },
            { value: 'one', label: 'this layer' },
          ]}
          onChange={setAll}
        />
        {all === 'all' && <SpoilsNote what="size" />}
        <LengthField
          label="Width, proportions locked"
          valueMm={width}
          unit={unit}
          min={1}
          max={2000}
          onChange={(mm) =>
            dispatch(
              change(`scale ${who}`, (p) =>
                transformLayers(p, scaleAndMove(mm / width, middle, middle), ids),
              ),
            )
          }
        />
        <Button
          small
          onClick={() =>
            dispatch(change(`mirror ${who}`, (p) => transformLayers(p, [-1, 0, 0, 1, 2 * middle.x, 0], ids)))
          }
          title="Left becomes right: for the inside of glass, or for cutting from the back"
        >
          Mirror {all === 'all' ? 'everything' : 'this layer'}
        </Button>
        {all === 'one' && (
          <Button
            small
            onClick={() => {
              const whole = designBox(project)
              dispatch(
                change(`mirrored copy of ${layer.name}`, (p) =>
                  addMirrored(p, layer.id, (whole.minX + whole.maxX) / 2),
                ),
              )
            }}
            title="A layer of its own, exchanged about the middle of the design: the other wing of a pair"
          >
            Add a mirrored copy
          </Button>
        )}
        <LengthField
          label="Outline"
          valueMm={outlineMm}
          unit={unit}
          min={0.5}
          max={40}
          onChange={setOutlineMm}
        />
        <Button
          small
          onClick={addOutline}
          title="A new layer in front: the edge of this one, as wide as the outline"
        >
          Add its outline as a layer
        </Button>
      </div>
    </Heading>
  )
}

const HOLE_MM2 = 4

/** Layers made of this one, and its pieces one by one. */
export function ShapeTools({ layer }: { layer: Layer }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const [stepMm, setStepMm] = useState(3)
  const [corners, setCorners] = useState<'round' | 'sharp'>('round')
  const [underMm2, setUnderMm2] = useState(HOLE_MM2)
  const [other, setOther] = useState('')
  const others = project.layers.filter(({ id }) => id !== layer.id)
  const chosen = others.find(({ id }) => id === other) ?? others[0]
  const act = (label: string, action: Mend) =>
    void dispatch(
      changeApart(`${label} ${layer.name}`, (p, stock) => editor.ask((api) => api.mend(p, [action], stock))),
    )
  const copy = (mm: number) =>
    act(mm > 0 ? 'a larger copy of' : 'a smaller copy of', {
      kind: 'offset-copy',
      layerId: layer.id,
      mm,
      corners,
    })
  if (layer.blanks.length > 0)
    return (
      <Heading title="Made of this layer">
        <p className="text-[13px] text-soft">
          It is cut flat and then rolled or folded: grow it anew to change its shape.
        </p>
      </Heading>
    )
  return (
    <Heading title="Made of this layer">
      <div className="grid gap-2">
        <LengthField
          label="All round by"
          valueMm={stepMm}
          unit={unit}
          min={0.1}
          max={200}
          onChange={setStepMm}
        />
        <Choice
          label="Corners of the copy"
          value={corners}
          options={[
            { value: 'round', label: 'round corners' },
            { value: 'sharp', label: 'sharp' },
          ]}
          onChange={setCorners}
        />
        <div className="flex flex-wrap gap-2">
          <Button small title="A layer behind it, larger all round" onClick={() => copy(stepMm)}>
            Larger behind
          </Button>
          <Button small title="A layer in front of it, smaller all round" onClick={() => copy(-stepMm)}>
            Smaller in front
          </Button>
        </div>
        <AreaField
          label="Fill openings under"
          unit={unit}
          valueMm2={underMm2}
          min={0.1}
          max={10_000}
          onChange={setUnderMm2}
        />
        <Button
          small
          className="justify-self-start"
          onClick={() => act('fill openings of', { kind: 'fill-holes', layerId: layer.id, underMm2 })}
        >
          Fill them
        </Button>
        {project.layers.at(-1) !== layer && (
          <Button
            small
            className="justify-self-start"
            title="So far as it is in one piece with it: then what is in front has something to stand on"
            onClick={() => act('go on under what is in front:', { kind: 'fill-under', layerIds: [layer.id] })}
          >
            Go on under what is in front
          </Button>
        )}
        {chosen && (
          <>
            <SelectField
              label="Another layer"
              className="w-36"
              value={chosen.id}
              options={others.map(({ id, name }) => ({ value: id, label: name }))}
              onChange={setOther}
            />
            <Button
              small
              className="justify-self-start"
              title="Its shape becomes an opening here, so that it can be let in"
              onClick={() =>
                act('cut out of', { kind: 'cut-out', layerId: layer.id, byId: chosen.id, roomMm: 0 })
              }
            >
              Cut its shape out of this one
            </Button>
          </>
        )}
        <EdgeTool layer={layer} act={act} />
      </div>
    </Heading>
  )
}

const EDGES = [
  { value: 'scalloped', label: 'scalloped', title: 'Round bumps side by side, as many as come out even' },
  { value: 'torn', label: 'torn', title: 'Wanders in and out, as paper torn by hand' },
  { value: 'holes', label: 'row of holes', title: 'Round holes at even distances inside the edge' },
] as const
const edgeSchema = z.object({
  kind: z.enum(['scalloped', 'torn', 'holes']),
  mm: z.number().min(0.5).max(100),
  roomMm: z.number().min(0.5).max(100),
})
type EdgeForm = z.infer<typeof edgeSchema>
const EDGE_FIELDS: readonly SchemaField<EdgeForm>[] = [
  { kind: 'choice', key: 'kind', label: 'Outer edge', captioned: true, options: EDGES },
  ...(['scalloped', 'torn', 'holes'] as const).map((kind): SchemaField<EdgeForm> => ({
    kind: 'length',
    key: 'mm',
    label: { scalloped: 'Width of a bump', torn: 'Depth', holes: 'Hole across' }[kind],
    min: 0.5,
    max: 100,
    when: (edge) => edge.kind === kind,
  })),
  {
    kind: 'length',
    key: 'roomMm',
    label: 'Card between and outside',
    min: 0.5,
    max: 100,
    when: ({ kind }) => kind === 'holes',
  },
]

/** Another outer edge. */
function EdgeTool({ layer, act }: { layer: Layer; act: (label: string, mend: Mend) => void }) {
  const unit = useAppSelector(selectUnit)
  const [edge, setEdge] = useState<EdgeForm>({ kind: 'scalloped', mm: 8, roomMm: 3 })
  return (
    <>
      <SchemaFields value={edge} unit={unit} schema={edgeSchema} fields={EDGE_FIELDS} onChange={setEdge} />
      <Button
        small
        className="justify-self-start"
        onClick={() => act('edge of', { kind: 'edge', layerId: layer.id, edge })}
      >
        Give it this edge
      </Button>
    </>
  )
}

/** Goes without layers when there are only a few sheets of card. */
export function FewerSheets() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const layers = builtLayers(project)
  const count = layers.length
  const visible = usePlans(
    'visible',
    layers.map((layer) => layer.id),
  )
  const [n, setN] = useState(3)
  if (count < 3 || visible.length < count) return null
  const kept = fewestLayers(project, visible, n)
  return (
    <Heading title="With fewer sheets">
      <NumberField
        label="Layers to keep"
        value={n}
        min={2}
        max={Math.max(2, count - 1)}
        whole
        onChange={setN}
      />
      <p className="my-1.5 text-[13px] text-soft">
        Keeps {kept.map((id) => project.layers.find((layer) => layer.id === id)?.name).join(', ')}: the
        backmost and those of which most is seen.
      </p>
      <Button
        small
        disabled={n >= count}
        onClick={() => dispatch(change(`keep ${n} layers`, (p) => keepLayers(p, kept)))}
      >
        Leave the others out
      </Button>
    </Heading>
  )
}
