import { useState } from 'react'
import { Button, Checkbox } from '../../../ui'
import type { PackedFile } from '@feuillet/core/io/read'

/** What a zip holds: which of its drawings come in. */
export function PickDrawings({
  drawings,
  onPick,
}: {
  drawings: readonly PackedFile[]
  /** Nothing where none is to come in. */
  onPick: (picked: readonly PackedFile[]) => void
}) {
  const [left, setLeft] = useState<ReadonlySet<PackedFile>>(new Set())
  const picked = drawings.filter((one) => !left.has(one))
  const n = picked.length
  const setAll = (on: boolean) => setLeft(new Set(on ? [] : drawings))
  const set = (one: PackedFile, on: boolean) =>
    setLeft(new Set(drawings.filter((d) => (d === one ? !on : left.has(d)))))
  return (
    <section aria-label="Drawings of the zip" className="border border-ink bg-sheet px-3 py-2">
      <p className="mb-1">
        {drawings.length} drawings are packed together. Layers of one work come in together; of several works
        take one.
      </p>
      <ul className="max-h-[190px] overflow-y-auto border-y border-line py-1">
        {drawings.map((one, i) => (
          <li key={i}>
            <label className="flex cursor-pointer items-center gap-2 py-0.5">
              <Checkbox label={one.path} checked={!left.has(one)} onChange={(on) => set(one, on)} />
              <span className="min-w-0 truncate" title={one.path}>
                {one.name}
              </span>
            </label>
          </li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button look="main" small disabled={n === 0} onClick={() => onPick(picked)}>
          {n === 1 ? 'Bring in 1 drawing' : `Bring in ${n} drawings`}
        </Button>
        <Button small onClick={() => setAll(n === 0)}>
          {n === 0 ? 'Tick all' : 'Tick none'}
        </Button>
        <Button small onClick={() => onPick([])}>
          Leave them
        </Button>
      </div>
    </section>
  )
}
