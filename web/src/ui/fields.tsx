import { useId, useState, type KeyboardEvent } from 'react'
import {
  formatLength,
  lengthForEditing,
  parseLength,
  type Unit,
  MM_PER_INCH,
} from '@feuillet/core/base/units'

interface FieldProps {
  label: string
  shown: string
  /** Null for what cannot be read; a sentence for what cannot be. */
  read: (text: string) => number | null | string
  onChange: (value: number) => void
  unitHint?: string
  /** The unit is typed with the figure: the field has its room too. */
  hasUnit?: boolean
}

/** A text that becomes a number when the maker leaves it or presses Enter; Escape takes it back. */
function TypedNumber({ label, shown, read, onChange, unitHint, hasUnit = false }: FieldProps) {
  const id = useId()
  const [text, setText] = useState<string | null>(null)
  const [wrong, setWrong] = useState<string | null>(null)
  const commit = () => {
    if (text === null || text.trim() === shown) {
      setText(null)
      setWrong(null)
      return
    }
    const value = read(text)
    if (typeof value === 'number') {
      setText(null)
      setWrong(null)
      onChange(value)
    } else setWrong(value ?? 'This cannot be read.')
  }
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') commit()
    if (event.key === 'Escape') {
      setText(null)
      setWrong(null)
    }
  }
  return (
    <div>
      <label htmlFor={id} className="flex items-center justify-between gap-3">
        <span className="text-soft">{label}</span>
        <span className="flex items-baseline gap-1.5">
          <input
            id={id}
            className={`measure ${hasUnit ? 'w-34.5' : 'w-26'} text-right ${wrong ? 'border-crimson!' : ''}`}
            value={text ?? shown}
            aria-invalid={wrong !== null}
            aria-describedby={wrong ? `${id}-wrong` : unitHint ? `${id}-unit` : undefined}
            onChange={(event) => setText(event.target.value)}
            onFocus={(event) => event.target.select()}
            onBlur={commit}
            onKeyDown={onKeyDown}
          />
          {unitHint && (
            <span id={`${id}-unit`} aria-hidden className="measure w-7 text-soft">
              {unitHint}
            </span>
          )}
        </span>
      </label>
      {wrong && (
        <p id={`${id}-wrong`} role="alert" className="mt-1 text-right text-[13px] text-crimson">
          ▲ {wrong}
        </p>
      )}
    </div>
  )
}

interface LengthProps {
  label: string
  valueMm: number
  unit: Unit
  onChange: (mm: number) => void
  min?: number
  max?: number
}

/** A length: takes `8 1/2`, `8.5 in`, `216`, `21.6cm`, and reckons: `5 3/8 / 2`, `12 in - 2 × 1/4 in`. */
export function LengthField({ label, valueMm, unit, onChange, min = 0, max = 5000 }: LengthProps) {
  return (
    <TypedNumber
      label={label}
      shown={lengthForEditing(valueMm, unit)}
      unitHint={unit === 'mm' ? 'mm' : undefined}
      hasUnit={unit === 'in'}
      onChange={onChange}
      read={(text) => {
        const mm = parseLength(text, unit)
        if (mm === null)
          return 'Type a length such as 8 1/2, 8.5 in, 216 or 21.6cm, or reckon: 5 3/8 / 2, 216 - 2 × 5.'
        if (mm < min || mm > max) return `Between ${formatLength(min, unit)} and ${formatLength(max, unit)}.`
        return mm
      }}
    />
  )
}

interface AreaProps {
  label: string
  valueMm2: number
  unit: Unit
  min: number
  max: number
  onChange: (mm2: number) => void
}

/** An area in square mm, or in square inches. */
export function AreaField({ label, valueMm2, unit, min, max, onChange }: AreaProps) {
  const one = unit === 'in' ? MM_PER_INCH ** 2 : 1
  return (
    <NumberField
      label={label}
      unitHint={`${unit}²`}
      // So many places that a square mm is told.
      value={Number((valueMm2 / one).toFixed(unit === 'in' ? 4 : 2))}
      min={Number((min / one).toFixed(4))}
      max={Number((max / one).toFixed(4))}
      onChange={(typed) => onChange(typed * one)}
    />
  )
}

interface NumberProps {
  label: string
  value: number
  unitHint?: string
  min: number
  max: number
  whole?: boolean
  onChange: (value: number) => void
}

export function NumberField({ label, value, unitHint, min, max, whole = false, onChange }: NumberProps) {
  return (
    <TypedNumber
      label={label}
      shown={String(value)}
      unitHint={unitHint}
      onChange={onChange}
      read={(text) => {
        const typed = Number(text.trim().replace(',', '.'))
        if (text.trim() === '' || !Number.isFinite(typed)) return 'Type a number.'
        if (whole && !Number.isInteger(typed)) return 'Type a whole number.'
        if (typed < min || typed > max) return `Between ${min} and ${max}.`
        return typed
      }}
    />
  )
}
