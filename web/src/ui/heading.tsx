import type { ReactNode } from 'react'

/** A part of a side panel, parted from the one above by a hairline. */
export function Heading({
  title,
  children,
  aside,
}: {
  title: string
  children: ReactNode
  aside?: ReactNode
}) {
  return (
    <section className="border-t border-line py-3 first:border-t-0 first:pt-0">
      <div className="mb-2 flex items-baseline justify-between gap-2">
        <h2 className="font-text text-[14px] font-semibold">{title}</h2>
        {aside}
      </div>
      {children}
    </section>
  )
}
