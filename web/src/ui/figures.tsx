import { useId, useState, type ReactNode } from 'react'

/** A list of figures, each with what it is and, at a press, what it rests on. */
export const Figures = ({ children }: { children: ReactNode }) => <dl className="grid gap-y-1">{children}</dl>

interface Props {
  name: string
  value: ReactNode
  /** What the figure rests on. */
  basis?: string
  alarm?: boolean
}

export function Figure({ name, value, basis, alarm = false }: Props) {
  const [open, setOpen] = useState(false)
  const id = useId()
  return (
    <div title={basis}>
      <div className="flex items-baseline justify-between gap-3">
        <dt className="text-soft">
          {basis ? (
            <button
              type="button"
              aria-expanded={open}
              aria-controls={open ? id : undefined}
              className="cursor-help text-left underline decoration-dotted underline-offset-3"
              onClick={() => setOpen(!open)}
            >
              {name}
            </button>
          ) : (
            name
          )}
        </dt>
        <dd className={`measure text-right whitespace-nowrap ${alarm ? 'text-crimson' : ''}`}>
          {alarm && <span aria-hidden>▲ </span>}
          {value}
        </dd>
      </div>
      {open && (
        <p id={id} className="border-l-2 border-line pl-2 text-[12.5px] text-soft">
          {basis}.
        </p>
      )}
    </div>
  )
}
