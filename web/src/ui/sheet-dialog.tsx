import { Dialog } from 'radix-ui'
import type { ReactNode } from 'react'

interface Props {
  open: boolean
  onOpenChange: (open: boolean) => void
  title: string
  /** The title is there for those who do not see the dialog only. */
  hideTitle?: boolean
  className?: string
  children: ReactNode
}

/** A sheet laid over the page. */
export const SheetDialog = ({
  open,
  onOpenChange,
  title,
  hideTitle = false,
  className = '',
  children,
}: Props) => (
  <Dialog.Root open={open} onOpenChange={onOpenChange}>
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/30" />
      <Dialog.Content
        className={`fixed left-1/2 z-30 max-w-[calc(100vw-32px)] -translate-x-1/2 border border-ink bg-sheet ${className}`}
        aria-describedby={undefined}
      >
        <Dialog.Title className={hideTitle ? 'sr-only' : 'mb-3 text-[19px]'}>{title}</Dialog.Title>
        {children}
      </Dialog.Content>
    </Dialog.Portal>
  </Dialog.Root>
)
