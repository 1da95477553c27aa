import { useState } from 'react'
import type { Layer, Mend } from '@feuillet/core/project'
import { changeApart } from '../../../state/edits'
import { selectProject, selectUnit } from '../../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../../state/store'
import { AreaField, Button, Choice, Heading, LengthField, SelectField } from '../../../ui'
import { editor } from '../../../workers'
import { EdgeTool } from './edge-tool'
import { OpeningsTool } from './openings-tool'

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
  const act = (label: string, action: Mend, idle: string) =>
    void dispatch(
      changeApart(
        `${label} ${layer.name}`,
        (p, stock) => editor.ask((api) => api.mend(p, [action], stock)),
        `${idle} Nothing was changed.`,
      ),
    )
  const copy = (mm: number) =>
    act(
      mm > 0 ? 'a larger copy of' : 'a smaller copy of',
      { kind: 'offset-copy', layerId: layer.id, mm, corners },
      'Of so much smaller a copy nothing would be left.',
    )
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
          onClick={() =>
            act(
              'fill openings of',
              { kind: 'fill-holes', layerId: layer.id, underMm2 },
              `“${layer.name}” has no opening as small.`,
            )
          }
        >
          Fill them
        </Button>
        {project.layers.at(-1) !== layer && (
          <Button
            small
            className="justify-self-start"
            title="So far as it is in one piece with it: then what is in front has something to stand on"
            onClick={() =>
              act(
                'go on under what is in front:',
                { kind: 'fill-under', layerIds: [layer.id] },
                `Nothing in front lies edge to edge with “${layer.name}”.`,
              )
            }
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
                act(
                  'cut out of',
                  { kind: 'cut-out', layerId: layer.id, byId: chosen.id, roomMm: 0 },
                  `“${chosen.name}” lies nowhere over “${layer.name}”, or over all of it.`,
                )
              }
            >
              Cut its shape out of this one
            </Button>
          </>
        )}
        {project.layers[0] !== layer && <OpeningsTool layer={layer} act={act} />}
        <EdgeTool layer={layer} act={act} />
      </div>
    </Heading>
  )
}
