import {
  isGluedFlat,
  glueOf,
  pieceJoint,
  pieceRegion,
  setPieceFoam,
  setPieceJoint,
  type Layer,
} from '@feuillet/core/project'
import { boxHeight, boxWidth, regionBox } from '@feuillet/core/base/geometry'
import { gapChoices } from '@feuillet/core/stages/depth'
import { change } from '../../state/edits'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { useWords } from '../../state/use-words'
import { glueOptions } from '../../state/glue-options'
import { Button, Choice, Heading, Select } from '../../ui'

/** No piece is picked; a piece takes the glue of its layer. */
const NONE = 'none'
/** Of more pieces only those that are held otherwise are listed: the others are picked on the drawing. */
const MOST_LISTED = 40

/** Pieces of a layer that may be held otherwise than it. */
export const hasPieceJoints = ({ joint, pieces }: Layer): boolean =>
  pieces.length > 1 && (joint.kind === 'foam' || joint.kind === 'glue')

/** How a single piece of the layer is held, where that is otherwise than the rest. */
export function PiecePanel({
  layer,
  pieceId,
  onPick,
}: {
  layer: Layer
  pieceId: string | null
  onPick: (pieceId: string | null) => void
}) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { size, length } = useWords()
  const onFoam = layer.joint.kind === 'foam'
  const wantedMm = onFoam ? 2 * layer.joint.gapMm : 2
  const listed = layer.pieces
    .map((piece, k) => ({ piece, k }))
    .filter(
      ({ piece }) =>
        layer.pieces.length <= MOST_LISTED ||
        piece.id === pieceId ||
        pieceJoint(layer.joint, piece.id) !== undefined,
    )
  const nameOf = ({ piece, k }: (typeof listed)[number]) => {
    const box = regionBox(pieceRegion(piece))
    const own = pieceJoint(layer.joint, piece.id)
    const how = !own
      ? ''
      : own.gapMm
        ? `, ${length(own.gapMm)} of foam`
        : onFoam
          ? ', glued flat'
          : `, ${glueOf(project, layer, piece.id)?.name ?? 'glue'}`
    return `${k + 1}: ${size(boxWidth(box), boxHeight(box))}${how}`
  }
  const set = (adhesiveId: string | null | undefined, pieceIds: readonly string[]) =>
    dispatch(
      change(`what holds ${pieceIds.length === 1 ? 'a piece' : 'pieces'} of ${layer.name}`, (p) =>
        setPieceJoint(p, { layerId: layer.id, pieceIds }, adhesiveId),
      ),
    )
  const setFoam = (gapMm: number, id: string) =>
    dispatch(
      change(`foam under a piece of ${layer.name}`, (p) =>
        setPieceFoam(p, { layerId: layer.id, pieceIds: [id] }, gapMm),
      ),
    )
  const own = pieceJoint(layer.joint, pieceId ?? undefined)
  const made = gapChoices(project.drawer.foams).map((choice) => choice.gapMm)
  // One that the foam at hand makes no more stays to be seen.
  const heights = own?.gapMm && !made.includes(own.gapMm) ? [...made, own.gapMm] : made
  /** Twice its layer's, as near as the foam at hand comes to it. */
  const firstFoam = made.toSorted((a, b) => Math.abs(a - wantedMm) - Math.abs(b - wantedMm))[0] ?? wantedMm
  const otherwise = layer.pieces.filter(({ id }) => pieceJoint(layer.joint, id))
  return (
    <Heading title="Single pieces">
      <div className="grid gap-2">
        <Select
          label={`A piece of ${layer.name}`}
          className="w-full"
          value={pieceId ?? NONE}
          options={[
            { value: NONE, label: 'pick one, here or on the drawing' },
            ...listed.map((one) => ({ value: one.piece.id, label: nameOf(one) })),
          ]}
          onChange={(id) => onPick(id === NONE ? null : id)}
        />
        {pieceId && (
          <Choice
            label="How this piece is held"
            value={own?.gapMm ? 'foam' : isGluedFlat(layer, pieceId) ? 'flat' : 'layer'}
            options={[
              { value: 'layer', label: 'as its layer' },
              ...(onFoam
                ? [
                    {
                      value: 'flat' as const,
                      label: 'glued flat',
                      title:
                        'Without foam, onto what is right beneath it; what lies on it comes down with it',
                    },
                  ]
                : []),
              {
                value: 'foam',
                label: 'own foam',
                title: 'On pads of a height of its own, as where foam is doubled under one petal',
              },
            ]}
            onChange={(how) =>
              how === 'foam' ? setFoam(firstFoam, pieceId) : set(how === 'flat' ? null : undefined, [pieceId])
            }
          />
        )}
        {pieceId && own?.gapMm && (
          <Select
            label="Foam under this piece"
            className="w-full"
            value={String(own.gapMm)}
            options={heights.map((mm) => ({ value: String(mm), label: length(mm) }))}
            onChange={(mm) => setFoam(Number(mm), pieceId)}
          />
        )}
        {pieceId && (!onFoam || own) && !own?.gapMm && (
          <Select
            label="Glue of this piece"
            className="w-full"
            value={own?.adhesiveId ?? NONE}
            options={[
              { value: NONE, label: 'as its layer', detail: glueOf(project, layer)?.name ?? 'none' },
              ...glueOptions(project.drawer.adhesives),
            ]}
            onChange={(id) => set(id === NONE ? (onFoam ? null : undefined) : id, [pieceId])}
          />
        )}
        {otherwise.length > 0 && (
          <p className="flex items-center justify-between gap-2 text-[13px] text-soft">
            {otherwise.length === 1 ? '1 piece is' : `${otherwise.length} pieces are`} held otherwise.
            <Button
              small
              onClick={() =>
                set(
                  undefined,
                  otherwise.map(({ id }) => id),
                )
              }
            >
              All as the layer
            </Button>
          </p>
        )}
      </div>
    </Heading>
  )
}
