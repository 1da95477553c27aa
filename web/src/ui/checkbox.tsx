import { Check } from 'lucide-react'

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
  // The browser's own box: lists have hundreds, and one that is made up of parts is measured as it comes up.
  <span className={`grid size-[17px] shrink-0 place-items-center ${className}`}>
    <input
      type="checkbox"
      aria-label={label}
      checked={checked}
      onChange={(event) => onChange(event.target.checked)}
      className="peer col-start-1 row-start-1 size-[17px] cursor-pointer appearance-none border border-soft bg-sheet p-0 checked:border-plum checked:bg-plum"
    />
    <Check
      size={13}
      strokeWidth={3}
      color="#fff"
      className="pointer-events-none invisible col-start-1 row-start-1 peer-checked:visible"
    />
  </span>
)
