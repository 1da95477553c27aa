/** A yes or no with its words beside it. */
export function Switch({
  label,
  checked,
  onChange,
  title,
}: {
  label: string
  checked: boolean
  onChange: (checked: boolean) => void
  title?: string
}) {
  return (
    <label className="flex cursor-pointer items-center gap-2 py-0.5" title={title}>
      <input type="checkbox" checked={checked} onChange={(event) => onChange(event.target.checked)} />
      {label}
    </label>
  )
}
