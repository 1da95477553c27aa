import { ToggleGroup } from 'radix-ui'
import { Tip } from './tip'

interface Props<T extends string> {
  label: string
  /** Whether the label is shown above it, with a hint. */
  captioned?: boolean
  hint?: string
  /** Null where it is none of them. */
  value: T | null
  options: readonly { value: T; label: string; title?: string }[]
  onChange: (value: T) => void
}

/** One of a few, all in sight. */
export function Choice<T extends string>({ label, captioned, hint, value, options, onChange }: Props<T>) {
  return (
    <div>
      {captioned && <p className="mt-1 mb-1 text-[13px] text-soft">{hint ? `${label} (${hint})` : label}</p>}
      <ToggleGroup.Root
        type="single"
        aria-label={label}
        value={value ?? ''}
        onValueChange={(next) => next && onChange(next as T)}
        className="flex w-full flex-wrap border-r border-b border-ink"
      >
        {options.map((option) => (
          // What is picked is told by aria-checked: the tip lays its own state over the item's.
          <Tip key={option.value} text={option.title}>
            <ToggleGroup.Item
              value={option.value}
              className={`min-w-0 border-t border-l border-ink px-0.5 py-1 text-center whitespace-nowrap hover:bg-sheet aria-checked:bg-ink aria-checked:text-white ${options.length > 4 ? 'flex-auto' : 'flex-1'}`}
            >
              {option.label}
            </ToggleGroup.Item>
          </Tip>
        ))}
      </ToggleGroup.Root>
    </div>
  )
}
