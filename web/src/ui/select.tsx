import { Check, ChevronDown } from 'lucide-react'
import { Select as Radix } from 'radix-ui'
import { useId, useState } from 'react'

export interface SelectOption<T extends string> {
  value: T
  label: string
  /** Said of it in the open list only. */
  detail?: string
  /** Options of a group stand together under its name. */
  group?: string
}

interface Props<T extends string> {
  label: string
  /** The empty text where nothing is picked: shows the hint. */
  value: T | ''
  hint?: string
  options: readonly SelectOption<T>[]
  onChange: (value: T) => void
  className?: string
  /** Looks like text until it is pointed at or focused: for cells of a table. */
  quiet?: boolean
}

/** One of many, in a list that opens. */
export function Select<T extends string>({
  label,
  value,
  hint,
  options,
  onChange,
  className = '',
  quiet = false,
}: Props<T>) {
  const [open, setOpen] = useState(false)
  // Its list is drawn once somebody comes near, so that a table full of lists costs no more than their names; letters typed pick from it.
  const [near, setNear] = useState(false)
  const groups = open || near ? [...new Set(options.map(({ group }) => group))] : []
  return (
    <Radix.Root
      value={value}
      open={open}
      onOpenChange={setOpen}
      onValueChange={(next) => next && onChange(next as T)}
    >
      <Radix.Trigger
        aria-label={label}
        onFocus={() => setNear(true)}
        onBlur={() => setNear(false)}
        className={`inline-flex min-w-0 items-center justify-between gap-1 border text-left ${quiet ? 'border-transparent px-0.5 py-0.5 hover:border-line focus:border-plum' : 'border-line bg-sheet px-2 py-1 hover:border-ink'} data-[placeholder]:text-soft ${className}`}
      >
        <span className="min-w-0 truncate">
          <Radix.Value placeholder={hint}>
            {options.find((option) => option.value === value)?.label}
          </Radix.Value>
        </span>
        <Radix.Icon>
          <ChevronDown size={13} className="shrink-0 text-soft" />
        </Radix.Icon>
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          position="popper"
          sideOffset={2}
          collisionPadding={8}
          className="z-40 max-h-[min(420px,var(--radix-select-content-available-height))] min-w-[var(--radix-select-trigger-width)] border border-ink bg-sheet"
        >
          <Radix.Viewport className="py-1">
            {groups.map((group) => (
              <Radix.Group key={group ?? ''}>
                {group && <Radix.Label className="px-3 pt-1.5 text-[12px] text-soft">{group}</Radix.Label>}
                {options
                  .filter((option) => option.group === group)
                  .map((option) => (
                    <Radix.Item
                      key={option.value}
                      value={option.value}
                      aria-description={option.detail}
                      className="flex cursor-pointer items-center justify-between gap-4 px-3 py-1 outline-none data-[highlighted]:bg-ink data-[highlighted]:text-white"
                    >
                      <Radix.ItemText>{option.label}</Radix.ItemText>
                      {option.detail && (
                        <span aria-hidden className="flex-1 text-right text-[13px] opacity-80">
                          {option.detail}
                        </span>
                      )}
                      <Radix.ItemIndicator>
                        <Check size={13} />
                      </Radix.ItemIndicator>
                    </Radix.Item>
                  ))}
              </Radix.Group>
            ))}
          </Radix.Viewport>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  )
}

/** A select with its name beside it. */
export function SelectField<T extends string>(props: Props<T>) {
  const id = useId()
  return (
    <div className="flex items-center justify-between gap-3">
      <span id={id} className="text-soft" aria-hidden>
        {props.label}
      </span>
      <Select {...props} className={props.className ?? 'w-40'} />
    </div>
  )
}
