import { Check } from 'lucide-react'
import { Checkbox as Radix } from 'radix-ui'

/** A box to tick. The label is for those who do not see what stands beside it. */
export const Checkbox = ({
  label,
  checked,
  onChange,
  className = '',
}: {
  label: string
  checked: boolean
  onChange: (checked: boolean) => void
  className?: string
}) => (
  <Radix.Root
    checked={checked}
    onCheckedChange={(next) => onChange(next === true)}
    aria-label={label}
    className={`grid size-[17px] shrink-0 place-content-center border border-soft bg-sheet data-[state=checked]:border-plum data-[state=checked]:bg-plum ${className}`}
  >
    <Radix.Indicator>
      <Check size={13} strokeWidth={3} color="#fff" />
    </Radix.Indicator>
  </Radix.Root>
)
