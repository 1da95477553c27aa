import { Switch as Radix } from 'radix-ui'
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
      <Tip text={title}>
        <Radix.Root
          id={id}
          checked={checked}
          onCheckedChange={onChange}
          className="h-[17px] w-[30px] shrink-0 border border-soft bg-sheet aria-checked:border-plum aria-checked:bg-plum"
        >
          <Radix.Thumb className="block size-[11px] translate-x-[2px] bg-soft transition-transform data-[state=checked]:translate-x-[15px] data-[state=checked]:bg-white" />
        </Radix.Root>
      </Tip>
      <label htmlFor={id} className="cursor-pointer">
        {label}
      </label>
    </div>
  )
}
