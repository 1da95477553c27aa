import { useState } from 'react'
import type { Through } from '@feuillet/core/stages/layers'
import type { Layer } from '@feuillet/core/project'
import { Button, Choice } from '../../../ui'
import type { Act } from './act'

/** A layer that stands for openings in what lies behind it. */
export function OpeningsTool({ layer, act }: { layer: Layer; act: Act }) {
  const [through, setThrough] = useState<Through>('next')
  return (
    <>
      <Choice
        captioned
        label="Openings of its shape go through"
        value={through}
        options={[
          { value: 'next', label: 'what it lies on' },
          { value: 'all', label: 'all behind it' },
        ]}
        onChange={setThrough}
      />
      <Button
        small
        className="justify-self-start"
        title="For windows that are drawn as shapes of their own: they are cut out of the card behind, and this layer goes"
        onClick={() =>
          act(
            'openings in place of',
            { kind: 'to-openings', byId: layer.id, through },
            `“${layer.name}” lies on nothing that it can be cut out of.`,
          )
        }
      >
        Openings in place of it
      </Button>
    </>
  )
}
