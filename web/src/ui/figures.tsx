import type { ReactNode } from 'react'

/** A list of figures, each with what it is and, on hover, what it rests on. */
export const Figures = ({ children }: { children: ReactNode }) => <dl className="grid gap-y-1">{children}</dl>

interface Props {
  name: string
  value: ReactNode
  /** What the figure rests on. */
  basis?: string
  alarm?: boolean
}

export function Figure({ name, value, basis, alarm = false }: Props) {
  return (
    <div className="flex items-baseline justify-between gap-3" title={basis}>
      <dt className={`text-soft ${basis ? 'cursor-help decoration-line decoration-dotted underline underline-offset-3' : ''}`}>{name}</dt>
      <dd className={`measure text-right whitespace-nowrap ${alarm ? 'text-crimson' : ''}`}>{value}</dd>
    </div>
  )
}
