// What was measured once need not be measured again: frames and their kin under names, for all projects.
import { useState } from 'react'
import { keepMeasured, measuredAs, MOST, type Measured, type Mount } from '@feuillet/core/project'
import { change, changeSupplies } from '../../state/edits'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, SelectField } from '../../ui'

const NONE = 'none'

/** Takes the measures of one that was measured before, and keeps those of this one. */
export function MeasuredBefore({ mount }: { mount: Mount }) {
  const dispatch = useAppDispatch()
  const supplies = useAppSelector((state) => state.document.supplies)
  const [name, setName] = useState('')
  if (mount.kind === 'free') return null
  const { alike, same: taken } = measuredAs(supplies, mount)
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
    <div className="mt-3 grid gap-2">
      {alike.length > 0 && (
        <SelectField
          label="Measured before"
          className="w-36"
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
      )}
      {taken ? (
        <div>
          <Button small onClick={() => forget(taken)}>
            Forget “{taken.name}”
          </Button>
        </div>
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
