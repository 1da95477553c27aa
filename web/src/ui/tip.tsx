import { Tooltip } from 'radix-ui'
import { useState, type ReactElement } from 'react'

/** A few words about what it is laid on: they come by pointer, by focus and by a touch, and go by Escape. */
export function Tip({ text, children }: { text: string | undefined; children: ReactElement }) {
  const [open, setOpen] = useState(false)
  if (!text) return children
  return (
    <Tooltip.Root open={open} onOpenChange={setOpen}>
      <Tooltip.Trigger
        asChild
        onPointerUp={(event) => {
          if (event.pointerType !== 'mouse') setOpen(true)
        }}
      >
        {children}
      </Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content
          sideOffset={5}
          collisionPadding={8}
          className="z-50 max-w-72 border border-ink bg-sheet px-2.5 py-1.5 text-[13px] leading-snug whitespace-pre-line text-ink"
        >
          {text}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  )
}

/** Round the whole page: how long a pointer rests before a tip comes. */
export const TipProvider = ({ children }: { children: React.ReactNode }) => (
  <Tooltip.Provider delayDuration={450} skipDelayDuration={200}>
    {children}
  </Tooltip.Provider>
)
