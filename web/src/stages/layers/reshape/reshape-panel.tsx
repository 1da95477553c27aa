import { useState } from 'react'
import {
  addMirrored,
  designBox,
  designLayers,
  layerBox,
  scaleAndMove,
  transformLayers,
  type Layer,
  type Project,
} from '@feuillet/core/project'
import { change, changeApart } from '../../../state/edits'
import { SpoilsNote } from '../../../shell/spoils-note'
import { selectProject, selectUnit } from '../../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../../state/store'
import { Button, Choice, Heading, LengthField } from '../../../ui'
import { editor } from '../../../workers'

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
  const ids = all === 'all' ? designLayers(project).map(({ id }) => id) : [layer.id]
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
