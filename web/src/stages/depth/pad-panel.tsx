import { padsToPlan, putPad, type Layer } from '@feuillet/core/project'
import { pathToRegion, regionCentroid } from '@feuillet/core/base/geometry'
import type { Pad } from '@feuillet/core/stages/depth'
import { change } from '../../state/edits'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { useWords } from '../../state/use-words'
import { Button, Heading, LengthField, NumberField, Select } from '../../ui'
import type { PadHand } from './use-pad-hand'

/** The picked pad with its figures, and what the maker may do to the pads of a layer. */
export function PadPanel({ layer, pads, hand }: { layer: Layer; pads: readonly Pad[]; hand: PadHand }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { unit, length, size } = useWords()
  const { foams } = project.drawer
  const { picked } = hand
  const own = project.plan.handPads.filter(({ layerId }) => layerId === layer.id).length
  const freed = project.plan.padFree.filter(({ layerId }) => layerId === layer.id).length
  const edit = (label: string, work: Parameters<typeof change>[1]) =>
    dispatch(change(`${label} under ${layer.name}`, work))
  const add = () => {
    const piece = layer.pieces[0]
    if (!piece) return
    const middle = regionCentroid(pathToRegion(piece.path))
    const foamIds = pads[0]?.foamIds ?? [
      foams.find((foam) => foam.thicknessMm <= layer.joint.gapMm)?.id ?? '',
    ]
    if (!foamIds[0]) return
    edit('put a pad', (p) =>
      putPad(p, {
        id: crypto.randomUUID(),
        layerId: layer.id,
        pieceId: piece.id,
        ...middle,
        rotation: 0,
        bendMm: null,
        foamIds,
      }),
    )
  }
  return (
    <Heading title="Pads by hand">
      {picked ? (
        <div className="grid gap-2">
          <p className="text-[13px] text-soft">
            {picked.handId ? 'Put by you' : 'Planned'}: {size(picked.widthMm, picked.heightMm)},{' '}
            {length(picked.thicknessMm)} high.
          </p>
          <Select
            label="Foam of the pad"
            className="w-full"
            value={picked.foamIds.length === 1 ? picked.foamIds[0]! : ''}
            hint={picked.foamIds.length > 1 ? `${picked.foamIds.length} stacked` : 'foam'}
            options={foams.map((foam) => ({
              value: foam.id,
              label: `${foam.name}, ${size(foam.widthMm, foam.heightMm)}, ${length(foam.thicknessMm)}`,
            }))}
            onChange={(id) => hand.set({ foamIds: [id], bendMm: null }, 'another foam')}
          />
          <div className="grid gap-2">
            <LengthField
              label="From the left"
              unit={unit}
              valueMm={picked.x}
              min={-5000}
              max={5000}
              onChange={(x) => hand.set({ x })}
            />
            <LengthField
              label="From the top"
              unit={unit}
              valueMm={picked.y}
              min={-5000}
              max={5000}
              onChange={(y) => hand.set({ y })}
            />
            <NumberField
              label="Turned"
              unitHint="°"
              value={Math.round(picked.rotation)}
              min={-360}
              max={360}
              onChange={(rotation) => hand.set({ rotation }, 'turn a pad')}
            />
          </div>
          <div className="flex flex-wrap gap-2">
            {picked.handId ? (
              <Button small onClick={hand.toPlan}>
                Leave it to the plan
              </Button>
            ) : (
              <Button small onClick={() => hand.set({}, 'keep a pad')}>
                Keep it here
              </Button>
            )}
            <Button small onClick={hand.remove} title="The plan of the others goes round the spot">
              Take away
            </Button>
          </div>
        </div>
      ) : (
        <p className="text-[13px] text-soft">
          Pick a pad to drag or turn it, to take it away or to make it of another foam. Keys: arrows, R,
          Delete.
        </p>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button small onClick={add}>
          Put one more
        </Button>
        {own + freed > 0 && (
          <Button small onClick={() => edit('plan all pads', (p) => padsToPlan(p, layer.id))}>
            Plan all again ({own} put, {freed} {freed === 1 ? 'spot' : 'spots'} kept free)
          </Button>
        )}
      </div>
    </Heading>
  )
}
