import { useState } from 'react'
import { fewestLayers, keepLayers } from '@feuillet/core/stages/layers'
import { builtLayers } from '@feuillet/core/project'
import { change } from '../../state/edits'
import { usePlans } from '../../plan'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, Heading, NumberField } from '../../ui'

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
