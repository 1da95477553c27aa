import { useState } from 'react'
import { z } from 'zod'
import type { Layer } from '@feuillet/core/project'
import { selectUnit } from '../../../state/selectors'
import { useAppSelector } from '../../../state/store'
import { Button, SchemaFields, type SchemaField } from '../../../ui'
import type { Act } from './act'

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
export function EdgeTool({ layer, act }: { layer: Layer; act: Act }) {
  const unit = useAppSelector(selectUnit)
  const [edge, setEdge] = useState<EdgeForm>({ kind: 'scalloped', mm: 8, roomMm: 3 })
  return (
    <>
      <SchemaFields value={edge} unit={unit} schema={edgeSchema} fields={EDGE_FIELDS} onChange={setEdge} />
      <Button
        small
        className="justify-self-start"
        onClick={() =>
          act(
            'edge of',
            { kind: 'edge', layerId: layer.id, edge },
            `“${layer.name}” is too small for this edge.`,
          )
        }
      >
        Give it this edge
      </Button>
    </>
  )
}
