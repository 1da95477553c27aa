import type { ReactNode } from 'react'
import type { Snag } from '@feuillet/core/project'
import { useFailures } from '../plan'
import { SnagList } from './snag-list'

interface Props {
  /** The stage's drawing. */
  children: ReactNode
  title: string
  /** One line under the title. */
  lead?: ReactNode
  /** What is wrong here, first thing under the title; `none` is said where nothing is. */
  snags?: { list: readonly Snag[]; none: string }
  /** What has just happened, before the snags. */
  news?: ReactNode
  panel: ReactNode
  actions?: ReactNode
}

/** A stage's own part of the screen: its drawing in the middle, figures and snags at the right, actions at the foot. */
export function StageFrame({ children, title, lead, snags, news, panel, actions }: Props) {
  return (
    <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_304px]" data-stage-frame>
      <main className="flex min-h-0 min-w-0 flex-col">{children}</main>
      <aside className="flex min-h-0 flex-col border-l border-line bg-panel" aria-label={title}>
        <header className="px-4 pt-3 pb-2">
          <h1 className="text-[20px]">{title}</h1>
          {lead && <p className="mt-0.5 text-[13.5px] text-soft">{lead}</p>}
        </header>
        <NotComputed />
        {snags && (
          <section
            aria-label="Snags"
            tabIndex={snags.list.length > 0 ? 0 : undefined}
            className="max-h-[40%] shrink-0 overflow-y-auto px-4 pb-3"
          >
            <SnagList snags={snags.list} none={snags.none} />
          </section>
        )}
        {/* A part of its own, so that figures stay in sight beside the snags. */}
        <div
          className="min-h-0 flex-1 overflow-y-auto border-t border-line px-4 py-3"
          tabIndex={-1}
          data-in-columns
        >
          {news}
          {panel}
        </div>
        {actions && (
          <footer className="flex flex-wrap gap-2 border-t border-line px-4 py-3">{actions}</footer>
        )}
      </aside>
    </div>
  )
}

/** What could not be computed is never passed over: figures that rest on it are of before. */
function NotComputed() {
  const why = useFailures()
  if (why.length === 0) return null
  return (
    <p role="alert" className="mx-4 mb-3 border-l-4 border-crimson bg-crimson-pale px-3 py-1.5 text-[13.5px]">
      ■ Part of the plan could not be computed: {why.join('; ')}. What rests on it is shown as it was before.
      Your work is kept; undo takes the last change back.
    </p>
  )
}
