// Several designs side by side in one drawing: parted into projects that are cut from the same sheets.
import { useMemo, useState } from 'react'
import { toast } from 'sonner'
import { MOST, partVariants, variantsOf } from '@feuillet/core/project'
import { formatSize } from '@feuillet/core/base/units'
import { keepProject } from '../../session'
import { change } from '../../state/edits'
import { selectProject, selectUnit } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, Heading } from '../../ui'

export function VariantsPanel() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const [busy, setBusy] = useState(false)
  const { layers, mount, cut, cutElsewhere, plan } = project
  const variants = useMemo(
    () => variantsOf(project),
    // What else a project says does not move its pieces.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [layers, mount.kind, cut, cutElsewhere, plan.guests, plan.cutWith],
  )
  if (variants.length < 2 || plan.guests.length + variants.length - 1 > MOST.guests) return null
  const part = async () => {
    setBusy(true)
    const ids = variants.slice(1).map(() => crypto.randomUUID())
    const { others } = partVariants(project, variants, ids)
    try {
      for (const other of others) await keepProject(other, `parted from ${project.name}`)
      dispatch(
        change('part the designs', (p) => {
          const now = variantsOf(p)
          return now.length === variants.length ? partVariants(p, now, ids).host : p
        }),
      )
      toast(
        `${others.length === 1 ? `“${others[0]!.name}” stands` : `${others.length} projects stand`} on the shelf, and ${others.length === 1 ? 'is' : 'are'} cut along with this one.`,
      )
    } catch {
      toast.error(
        'The other designs could not be kept: the storage of the browser refuses. Nothing is changed.',
      )
    }
    setBusy(false)
  }
  return (
    <Heading title={`${variants.length} designs side by side`}>
      <ul className="mb-2 text-[13.5px]">
        {variants.map(({ box, pieces }, k) => (
          <li key={k} className="flex justify-between gap-3">
            <span>Design {k + 1}</span>
            <span className="measure">
              {pieces.size} layers · {formatSize(box.maxX - box.minX, box.maxY - box.minY, unit)}
            </span>
          </li>
        ))}
      </ul>
      <p className="mb-2 text-[13px] text-soft">
        Parted, each is a project of its own with its own depth and steps, and all are cut from the same
        sheets.
      </p>
      <Button small disabled={busy} onClick={() => void part()}>
        Part them
      </Button>
    </Heading>
  )
}
