// A colour, picked with what the browser has for it.

interface Props {
  label: string
  value: string
  onChange: (hex: string) => void
  /** Told once, when it is left, and not at every shade passed over. */
  whenLeft?: boolean
  className?: string
}

export function ColourInput({ label, value, onChange, whenLeft = false, className = 'h-7 w-9' }: Props) {
  const common = {
    type: 'color',
    'aria-label': label,
    className: `border border-line bg-sheet p-0.5 ${className}`,
  }
  if (!whenLeft) return <input {...common} value={value} onChange={(event) => onChange(event.target.value)} />
  return (
    <input
      {...common}
      key={value}
      defaultValue={value}
      onBlur={(event) => event.target.value !== value && onChange(event.target.value)}
    />
  )
}
