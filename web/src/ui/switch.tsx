import { useId } from 'react'
import { Tip } from './tip'

/** A yes or no with its words beside it. */
export function Switch({
  label,
  checked,
  onChange,
  title,
}: {
  label: string
  checked: boolean
  onChange: (checked: boolean) => void
  title?: string
}) {
  const id = useId()
  return (
    <div className="flex items-center gap-2 py-0.5">
      <span className="relative inline-flex shrink-0">
        <Tip text={title}>
          <input
            type="checkbox"
            role="switch"
            id={id}
            checked={checked}
            onChange={(event) => onChange(event.target.checked)}
            className="peer h-[17px] w-[30px] cursor-pointer appearance-none border border-soft bg-sheet p-0 checked:border-plum checked:bg-plum"
          />
        </Tip>
        <span className="pointer-events-none absolute top-[3px] left-[3px] size-[11px] bg-soft transition-transform peer-checked:translate-x-[13px] peer-checked:bg-white" />
      </span>
      <label htmlFor={id} className="cursor-pointer">
        {label}
      </label>
    </div>
  )
}
