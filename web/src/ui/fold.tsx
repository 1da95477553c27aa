import { ChevronRight } from 'lucide-react'
import { useId, useState, type ReactNode } from 'react'

interface Props {
  title: ReactNode
  /** Stands at the right of the title, and folds nothing. */
  beside?: ReactNode
  children: ReactNode
  open?: boolean
  onOpenChange?: (open: boolean) => void
  startOpen?: boolean
  className?: string
}

/** What folds under its title. */
export function Fold({
  title,
  beside,
  children,
  open,
  onOpenChange,
  startOpen = false,
  className = '',
}: Props) {
  const id = useId()
  const [own, setOwn] = useState(startOpen)
  const shown = open ?? own
  const toggle = () => {
    setOwn(!shown)
    onOpenChange?.(!shown)
  }
  return (
    <div className={className}>
      <div className="flex items-center gap-2">
        <button
          type="button"
          aria-expanded={shown}
          aria-controls={id}
          onClick={toggle}
          className="group flex min-w-0 flex-1 items-center gap-1 text-left"
        >
          <ChevronRight
            size={14}
            aria-hidden
            className="shrink-0 text-soft transition-transform group-aria-expanded:rotate-90"
          />
          <span className="min-w-0 flex-1">{title}</span>
        </button>
        {beside}
      </div>
      <div id={id} hidden={!shown}>
        {shown && children}
      </div>
    </div>
  )
}
