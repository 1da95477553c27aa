// Something went wrong at a step: what can be saved, what comes off first, which pieces are cut again.
import { useState } from 'react'
import { toast } from 'sonner'
import { afterMishap, mishapsOf, rescueFor, type Mishap, type Step } from '@feuillet/core/stages/assembly'
import {
  colourOf,
  findLayer,
  fromOffCuts,
  layerBox,
  type Project,
  type Supplies,
} from '@feuillet/core/project'
import { growBox } from '@feuillet/core/base/geometry'
import { changeSupplies } from '../../state/edits'
import { keepLying } from '../../state/keep-lying'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, Choice, SheetDialog } from '../../ui'

interface Props {
  step: Step
  steps: readonly Step[]
  onClose: () => void
}

export function MishapPanel({ step, steps, onClose }: Props) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const stock = useAppSelector((state) => state.document.stock)
  const kinds = mishapsOf(step)
  const [mishap, setMishap] = useState<Mishap>(kinds[0]!)
  const layer = findLayer(project, step.layerId)
  const [picked, setPicked] = useState<readonly string[]>([])
  const rescue = rescueFor(project, steps, { step, mishap })
  const pieceIds =
    !rescue.mayRecut || !layer ? [] : layer.pieces.length === 1 ? [layer.pieces[0]!.id] : picked
  const goOn = async (recut: boolean) => {
    let again = 0
    const foamIds = mishap === 'foam ran out' ? (step.takes ?? []).map(({ foamId }) => foamId) : []
    const mend = (held: { project: Project; supplies: Supplies }) => {
      const mended = afterMishap(held, steps, { step, mishap, pieceIds: recut ? pieceIds : [], foamIds })
      again = mended.recut
      return { ...mended, project: fromOffCuts(held.project, mended.project, stock) }
    }
    // Closed first: pressed twice, it would spoil two.
    onClose()
    if (recut) await dispatch(keepLying((held) => mend(held).project))
    dispatch(changeSupplies(`${mishap}: ${step.title}`, mend))
    if (recut)
      toast(
        again > 0
          ? `${again === 1 ? 'One piece is' : `${again} pieces are`} to be cut again; the plan goes on from there.`
          : 'No sheet with that piece is noted as cut: note it under Sheets, and say there what became of it.',
      )
  }
  return (
    <SheetDialog
      open
      onOpenChange={(open) => !open && onClose()}
      title="Something went wrong"
      className="top-12 max-h-[calc(100vh-96px)] w-[640px] overflow-y-auto p-6 text-ink"
    >
      <p className="mb-3 text-soft">At “{step.title}”. Undo brings everything back.</p>
      <Choice
        label="What went wrong"
        value={mishap}
        options={kinds.map((value) => ({ value, label: value }))}
        onChange={setMishap}
      />
      <h3 className="mt-4 mb-1 font-semibold">What can be saved</h3>
      <ul className="list-disc pl-5" data-testid="savings">
        {rescue.save.map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
      {rescue.undo.length > 0 && (
        <>
          <h3 className="mt-4 mb-1 font-semibold">Comes off first, in this order</h3>
          <ol className="list-decimal pl-5" data-testid="undo-first">
            {rescue.undo.map(({ id, title }) => (
              <li key={id}>{title}</li>
            ))}
          </ol>
          <p className="mt-1 text-[13px] text-soft">
            Their ticks are taken back. Foam that was stuck is spent and stays noted as used.
          </p>
        </>
      )}
      {rescue.mayRecut && layer && layer.pieces.length > 1 && (
        <>
          <h3 className="mt-4 mb-1 font-semibold">Which pieces</h3>
          <PiecePicker layerId={layer.id} picked={picked} onPick={setPicked} />
        </>
      )}
      <div className="mt-5 flex flex-wrap gap-2">
        {rescue.mayRecut && (
          <Button look="main" disabled={pieceIds.length === 0} onClick={() => void goOn(true)}>
            Cut {pieceIds.length > 1 ? `${pieceIds.length} pieces` : 'it'} again
          </Button>
        )}
        <Button look={rescue.mayRecut ? undefined : 'main'} onClick={() => void goOn(false)}>
          {mishap === 'foam ran out' ? 'None is left: onto the shopping list' : 'Go on with what there is'}
        </Button>
        <Button look="quiet" onClick={onClose}>
          It was nothing
        </Button>
      </div>
    </SheetDialog>
  )
}

/** The pieces of a layer to press. */
function PiecePicker({
  layerId,
  picked,
  onPick,
}: {
  layerId: string
  picked: readonly string[]
  onPick: (ids: readonly string[]) => void
}) {
  const project = useAppSelector(selectProject)
  const layer = findLayer(project, layerId)!
  const box = growBox(layerBox(layer), 2)
  const toggle = (id: string) =>
    onPick(picked.includes(id) ? picked.filter((one) => one !== id) : [...picked, id])
  return (
    <svg
      className="max-h-56 w-full"
      viewBox={`${box.minX} ${box.minY} ${box.maxX - box.minX} ${box.maxY - box.minY}`}
    >
      {layer.pieces.map(({ id, path }, i) => (
        <path
          key={id}
          d={path}
          fillRule="evenodd"
          role="button"
          tabIndex={0}
          aria-pressed={picked.includes(id)}
          aria-label={`Piece ${i + 1} of ${layer.pieces.length}`}
          fill={picked.includes(id) ? 'var(--color-plum)' : colourOf(project, layer)}
          stroke="#1e2126"
          strokeWidth={picked.includes(id) ? 1.2 : 0.4}
          className="cursor-pointer"
          onClick={() => toggle(id)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' && event.key !== ' ') return
            event.preventDefault()
            toggle(id)
          }}
        />
      ))}
    </svg>
  )
}
