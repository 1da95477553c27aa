// The measures that cost the most where they are wrong, typed once more without a look at the first time.
import { useState } from 'react'
import { LIMITS, type Mount } from '@feuillet/core/project'
import { change } from '../../state/edits'
import { selectUnit } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { useWords } from '../../state/use-words'
import { Button, LengthField, SheetDialog } from '../../ui'

/** A measure that is worth a second look: how it is read and written. */
interface Twice {
  label: string
  of: (mount: Mount) => number
  with: (mount: Mount, mm: number) => Mount
}

type Frame = Extract<Mount, { kind: 'frame' }>
type Flat = Extract<Mount, { kind: 'card' | 'panel' }>

const FRAME: readonly Twice[] = [
  ...(['spacer', 'opening'] as const).flatMap((part) =>
    (['widthMm', 'heightMm'] as const).map((side): Twice => ({
      label: `${part === 'spacer' ? 'Spacer' : 'Opening'}, ${side === 'widthMm' ? 'width' : 'height'}`,
      of: (mount) => (mount as Frame)[part][side],
      with: (mount, mm) => ({ ...(mount as Frame), [part]: { ...(mount as Frame)[part], [side]: mm } }),
    })),
  ),
  {
    label: 'Depth to the pane',
    of: (mount) => (mount as Frame).depthMm,
    with: (mount, depthMm) => ({ ...(mount as Frame), depthMm }),
  },
]
const PANEL: readonly Twice[] = (['widthMm', 'heightMm'] as const).map((side) => ({
  label: `Panel, ${side === 'widthMm' ? 'width' : 'height'}`,
  of: (mount) => (mount as Flat).panel[side],
  with: (mount, mm) => ({ ...(mount as Flat), panel: { ...(mount as Flat).panel, [side]: mm } }),
}))

const measuresOf = ({ kind }: Mount): readonly Twice[] =>
  kind === 'frame' ? FRAME : kind === 'card' || kind === 'panel' ? PANEL : []

/** Two readings of a ruler that differ by no more are one, mm. */
const SAME_MM = 0.6

/** Asks for the measures again and says which differ. */
export function SecondLook({ mount }: { mount: Mount }) {
  const dispatch = useAppDispatch()
  const unit = useAppSelector(selectUnit)
  const { length } = useWords()
  const [open, setOpen] = useState(false)
  const [typed, setTyped] = useState<Record<string, number>>({})
  const list = measuresOf(mount)
  if (list.length === 0) return null
  const differs = list.filter(
    ({ label, of }) => typed[label] !== undefined && Math.abs(typed[label] - of(mount)) > SAME_MM,
  )
  const done = list.every(({ label }) => typed[label] !== undefined)
  return (
    <>
      <Button
        small
        onClick={() => {
          setTyped({})
          setOpen(true)
        }}
      >
        Measure again
      </Button>
      <SheetDialog open={open} onOpenChange={setOpen} title="Measure again" className="top-24 w-[420px] p-5">
        <p className="mb-3 text-soft">
          Take the ruler once more and type what it says now. What was typed the first time is not shown here.
        </p>
        <div className="grid gap-1.5">
          {list.map(({ label, of }) => (
            <div key={label}>
              <LengthField
                label={label}
                valueMm={typed[label] ?? 0}
                unit={unit}
                min={0}
                max={LIMITS.sizeMm[1]}
                onChange={(mm) => setTyped((known) => ({ ...known, [label]: mm }))}
              />
              {typed[label] !== undefined &&
                (Math.abs(typed[label] - of(mount)) > SAME_MM ? (
                  <p role="alert" className="text-right text-[13px] text-crimson">
                    ▲ {length(of(mount))} the first time: {length(Math.abs(typed[label] - of(mount)))} apart
                  </p>
                ) : (
                  <p className="text-right text-[13px] text-soft">✓ the same</p>
                ))}
            </div>
          ))}
        </div>
        <div className="mt-4 flex gap-2">
          {differs.length > 0 && (
            <Button
              look="main"
              onClick={() => {
                dispatch(
                  change('measured again', (p) => ({
                    ...p,
                    mount: differs.reduce((m, one) => one.with(m, typed[one.label]!), p.mount),
                  })),
                )
                setOpen(false)
              }}
            >
              Take what was typed now
            </Button>
          )}
          <Button onClick={() => setOpen(false)}>
            {done && differs.length === 0 ? 'Both agree' : 'Keep the first'}
          </Button>
        </div>
      </SheetDialog>
    </>
  )
}
