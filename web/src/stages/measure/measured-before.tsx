// What was measured once need not be measured again: frames and their kin under names, for all projects, and those that the drawer holds.
import { useState } from 'react'
import { toast } from 'sonner'
import { formatLength, formatSize, type Unit } from '@feuillet/core/base/units'
import {
  keepMeasured,
  measuredAs,
  MOST,
  mountWith,
  sizedThings,
  thingFor,
  type Measured,
  type Mount,
  type Thing,
} from '@feuillet/core/project'
import { change, changeSupplies } from '../../state/edits'
import { selectProject, selectUnit } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, SelectField } from '../../ui'

const NONE = 'none'

/** Takes the size of a frame, a board, a card or a stick that is in the drawer. */
export function FromTheDrawer({ mount }: { mount: Mount }) {
  const dispatch = useAppDispatch()
  const { things, measured } = useAppSelector((state) => state.document.supplies)
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const sized = sizedThings(things, mount)
  if (sized.length === 0) return null
  const taken = thingFor(sized, project)
  const take = (thing: Thing) => {
    const next = mountWith(thing, { mount, measured })
    dispatch(change(`size of ${thing.name}`, (p) => ({ ...p, mount: next.mount })))
    if (mount.kind === 'frame' && !next.isMeasured)
      toast(`The size of “${thing.name}” is taken; what its lip hides, and its depth, are still to be measured.`) // prettier-ignore
  }
  return (
    <SelectField
      label="At hand"
      value={taken?.id ?? NONE}
      options={[
        ...sized.map((one) => ({
          value: one.id,
          label: one.name || (one.kind ?? one.id),
          detail: detailOf(one, unit),
        })),
        ...(taken ? [] : [{ value: NONE, label: 'none of them' }]),
      ]}
      onChange={(id) => {
        const found = sized.find((one) => one.id === id)
        if (found) take(found)
      }}
    />
  )
}

/** Such as: 200 × 200 mm, none left. */
function detailOf({ widthMm, heightMm, count }: Thing, unit: Unit): string {
  const size =
    widthMm !== null && heightMm !== null
      ? formatSize(widthMm, heightMm, unit)
      : formatLength((widthMm ?? heightMm)!, unit)
  return `${size}${count === null ? '' : `, ${count === 0 ? 'none' : count} left`}`
}

/** Takes the measures of one that was measured before. */
export function MeasuredBefore({ mount }: { mount: Mount }) {
  const dispatch = useAppDispatch()
  const supplies = useAppSelector((state) => state.document.supplies)
  const { alike, same: taken } = measuredAs(supplies, mount)
  if (alike.length === 0) return null
  return (
    <SelectField
      label="Measured before"
      value={taken?.id ?? NONE}
      options={[
        ...alike.map((one) => ({ value: one.id, label: one.name })),
        ...(taken ? [] : [{ value: NONE, label: 'none of them' }]),
      ]}
      onChange={(id) => {
        const found = alike.find((one) => one.id === id)
        if (found) dispatch(change(`measures of ${found.name}`, (p) => ({ ...p, mount: found.mount })))
      }}
    />
  )
}

/** Keeps the measures of this one under a name, or forgets them. */
export function KeepMeasures({ mount }: { mount: Mount }) {
  const dispatch = useAppDispatch()
  const supplies = useAppSelector((state) => state.document.supplies)
  const [name, setName] = useState('')
  if (mount.kind === 'free') return null
  const { same: taken } = measuredAs(supplies, mount)
  const keep = () => {
    const kept: Measured = { id: crypto.randomUUID(), name: name.trim(), mount }
    dispatch(
      changeSupplies(`keep ${kept.name}`, (held) => ({
        ...held,
        supplies: keepMeasured(held.supplies, kept),
      })),
    )
    setName('')
  }
  const forget = ({ id, name: gone }: Measured) =>
    dispatch(
      changeSupplies(`forget ${gone}`, (held) => ({
        ...held,
        supplies: { ...held.supplies, measured: held.supplies.measured.filter((one) => one.id !== id) },
      })),
    )
  return (
    <div className="mt-3">
      {taken ? (
        <Button small onClick={() => forget(taken)}>
          Forget “{taken.name}”
        </Button>
      ) : (
        <form
          className="flex gap-2"
          onSubmit={(event) => {
            event.preventDefault()
            if (name.trim()) keep()
          }}
        >
          <input
            aria-label={`Name of this ${mount.kind}`}
            placeholder="name"
            className="min-w-0 flex-1 border border-line bg-sheet px-2 py-1"
            maxLength={MOST.name}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <Button small disabled={!name.trim()} onClick={keep}>
            Keep its measures
          </Button>
        </form>
      )}
    </div>
  )
}
