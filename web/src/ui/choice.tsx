import { ToggleGroup } from 'radix-ui'

interface Props<T extends string> {
  label: string
  /** Whether the label is shown above it, with a hint. */
  captioned?: boolean
  hint?: string
  value: T
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
        value={value}
        onValueChange={(next) => next && onChange(next as T)}
        className="flex w-full border border-ink"
      >
        {options.map((option) => (
          <ToggleGroup.Item
            key={option.value}
            value={option.value}
            title={option.title}
            className="min-w-0 flex-1 border-l border-ink px-1 py-1 text-center first:border-l-0 hover:bg-sheet data-[state=on]:bg-ink data-[state=on]:text-white"
          >
            {option.label}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
    </div>
  )
}
