import { useState, type ReactNode } from 'react'
import { Tip } from './tip'

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
  return (
    <div className="grid grid-cols-[minmax(5.5rem,1fr)_minmax(0,auto)] items-baseline gap-x-3">
      <dt className="text-soft">
        {basis ? (
          <Tip text={open ? undefined : `${basis}.`}>
            <button
              type="button"
              aria-expanded={open}
              className="cursor-help text-left underline decoration-dotted underline-offset-3"
              onClick={() => setOpen(!open)}
            >
              {name}
            </button>
          </Tip>
        ) : (
          name
        )}
      </dt>
      <dd className={`measure text-right ${alarm ? 'text-crimson' : ''}`}>
        {alarm && <span aria-hidden>▲ </span>}
        {value}
      </dd>
      {open && <dd className="col-span-2 border-l-2 border-line pl-2 text-[12.5px] text-soft">{basis}.</dd>}
    </div>
  )
}
