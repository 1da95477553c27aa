import { useAppDispatch, useAppSelector } from '../state/store'
import { looked } from '../state/view'
import { SheetDialog } from '../ui'
import { commandGroups, commandOf } from './list'

/** All keys, by what they act on. */
export function KeyList() {
  const dispatch = useAppDispatch()
  const open = useAppSelector((state) => state.view.keys)
  return (
    <SheetDialog
      open={open}
      onOpenChange={(keys) => dispatch(looked({ keys }))}
      title="All keys"
      className="top-12 max-h-[calc(100vh-96px)] w-[760px] overflow-y-auto p-5"
    >
      <Keys />
    </SheetDialog>
  )
}

/** Put together when the dialog is opened. */
const Keys = () => (
  <div className="columns-2 gap-8">
    {commandGroups().map(([group, ids]) => {
      const keyed = ids.map(commandOf).filter(({ shown }) => shown)
      return keyed.length === 0 ? null : (
        <section key={group} className="mb-4 break-inside-avoid">
          <h3 className="mb-1 font-text text-[13px] font-semibold text-soft">{group}</h3>
          <dl className="grid grid-cols-[126px_1fr] gap-y-1">
            {keyed.map(({ title, shown }) => (
              <div key={title} className="contents">
                <dt className="measure">{shown}</dt>
                <dd>{title}</dd>
              </div>
            ))}
          </dl>
        </section>
      )
    })}
  </div>
)
