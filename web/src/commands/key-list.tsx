import { Dialog } from 'radix-ui'
import { useAppDispatch, useAppSelector } from '../state/store'
import { looked } from '../state/view'

const keys = [
  ['1 … 7', 'the stages'],
  ['J / K', 'layer below / above'],
  ['[ / ]', 'move the layer back / forward'],
  ['X', 'only this layer'],
  ['E', 'draw the stack apart'],
  ['R', 'turn the piece on the sheet'],
  ['arrows', 'move the piece on the sheet by 1 mm (Shift: 10 mm)'],
  ['Ctrl Z / Ctrl Shift Z', 'undo / redo'],
  ['Ctrl K', 'find'],
  ['space bar', 'bench: done, next step'],
  ['?', 'this list'],
] as const

export function KeyList() {
  const dispatch = useAppDispatch()
  const open = useAppSelector((state) => state.view.keys)
  return (
    <Dialog.Root open={open} onOpenChange={(keys) => dispatch(looked({ keys }))}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/30" />
        <Dialog.Content
          className="fixed top-24 left-1/2 z-30 w-[460px] -translate-x-1/2 border border-ink bg-sheet p-5"
          aria-describedby={undefined}
        >
          <Dialog.Title className="mb-3 text-[19px]">All keys</Dialog.Title>
          <dl className="grid grid-cols-[170px_1fr] gap-y-1.5">
            {keys.map(([key, what]) => (
              <div key={key} className="contents">
                <dt className="measure">{key}</dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
