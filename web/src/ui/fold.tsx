import { ChevronRight } from 'lucide-react'
import { Collapsible } from 'radix-ui'
import type { ReactNode } from 'react'

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
export const Fold = ({
  title,
  beside,
  children,
  open,
  onOpenChange,
  startOpen = false,
  className = '',
}: Props) => (
  <Collapsible.Root open={open} onOpenChange={onOpenChange} defaultOpen={startOpen} className={className}>
    <div className="flex items-center gap-2">
      <Collapsible.Trigger className="group flex min-w-0 flex-1 items-center gap-1 text-left">
        <ChevronRight
          size={14}
          aria-hidden
          className="shrink-0 text-soft transition-transform group-data-[state=open]:rotate-90"
        />
        <span className="min-w-0 flex-1">{title}</span>
      </Collapsible.Trigger>
      {beside}
    </div>
    <Collapsible.Content>{children}</Collapsible.Content>
  </Collapsible.Root>
)
