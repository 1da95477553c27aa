import type { ReactNode } from 'react'

interface Props {
  /** The stage's drawing. */
  children: ReactNode
  title: string
  /** One line under the title. */
  lead?: ReactNode
  panel: ReactNode
  actions?: ReactNode
}

/** A stage's own part of the screen: its drawing in the middle, figures and snags at the right, actions at the foot. */
export function StageFrame({ children, title, lead, panel, actions }: Props) {
  return (
    <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_304px]">
      <main className="flex min-h-0 min-w-0 flex-col">{children}</main>
      <aside className="flex min-h-0 flex-col border-l border-line bg-panel" aria-label={title}>
        <div className="min-h-0 flex-1 overflow-y-auto px-4 py-3">
          <header className="mb-3">
            <h1 className="text-[20px]">{title}</h1>
            {lead && <p className="mt-0.5 text-[13.5px] text-soft">{lead}</p>}
          </header>
          {panel}
        </div>
        {actions && <footer className="flex flex-wrap gap-2 border-t border-line px-4 py-3">{actions}</footer>}
      </aside>
    </div>
  )
}
