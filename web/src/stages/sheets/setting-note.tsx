import { useState } from 'react'
import { formatLength, formatKept, shownAs } from '@feuillet/core/base/units'
import { OUTCOMES, type Setting } from '@feuillet/core/project'
import { entriesFor, type LoadView } from '@feuillet/core/stages/sheets'
import { changeSupplies } from '../../state/edits'
import { selectProject, selectUnit } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, dayOf, Heading, LengthField, NumberField, Select } from '../../ui'

const TACKS = ['low', 'medium', 'high'] as const

/** How a load came out, into the settings book: by one press as it was proposed, or with what was set otherwise. */
export function SettingNote({ load }: { load: LoadView }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const { paper, setting } = load
  const { cutter } = project.drawer
  const pace = shownAs('mm/s', unit)
  const [own, setOwn] = useState<Partial<Setting>>({})
  const [isOpen, setOpen] = useState(false)
  const { depthMm, forceG, speedMmPerS, passes, tack } = { ...setting, ...own }
  const known = entriesFor(project.drawer.settings, paper, {
    cutter: cutter.name,
    intricacy: setting.intricacy,
  })
  const note = (outcome: Setting['outcome']) => {
    const values = { depthMm, forceG, speedMmPerS, passes, tack, note: own.note ?? '' }
    const entry = entryOf(load, cutter.name, { ...values, outcome })
    dispatch(
      changeSupplies(`${paper.name}: ${outcome}`, ({ project: p, supplies }) => ({
        project: p,
        supplies: { ...supplies, settings: [...supplies.settings, entry] },
      })),
    )
    setOwn({})
    setOpen(false)
  }
  return (
    <Heading title="How did it come out?">
      <div className="flex flex-wrap gap-2">
        {OUTCOMES.map((outcome) => (
          <Button key={outcome} small onClick={() => note(outcome)}>
            {outcome}
          </Button>
        ))}
      </div>
      <button
        type="button"
        aria-expanded={isOpen}
        className="mt-2 text-[13px] text-plum underline"
        onClick={() => setOpen(!isOpen)}
      >
        It was set otherwise
      </button>
      {isOpen && (
        <div className="mt-2 grid gap-2">
          <LengthField
            label="Blade out"
            unit={unit}
            valueMm={depthMm}
            min={0.01}
            max={10}
            onChange={(mm) => setOwn({ ...own, depthMm: mm })}
          />
          <NumberField
            label="Force"
            unitHint="g"
            value={forceG}
            min={1}
            max={10_000}
            onChange={(g) => setOwn({ ...own, forceG: g })}
          />
          <NumberField
            label="Speed"
            unitHint={pace.unit}
            value={Number((speedMmPerS * pace.one).toFixed(2))}
            min={0.1}
            max={Math.round(5000 * pace.one)}
            onChange={(shown) => setOwn({ ...own, speedMmPerS: shown / pace.one })}
          />
          <NumberField
            label="Passes"
            value={passes}
            min={1}
            max={20}
            whole
            onChange={(n) => setOwn({ ...own, passes: n })}
          />
          <Select
            label="Tack of the mat"
            className="w-full"
            value={tack}
            options={TACKS.map((value) => ({ value, label: `${value} tack` }))}
            onChange={(value) => setOwn({ ...own, tack: value })}
          />
          <input
            aria-label="Note on the setting"
            placeholder="note"
            className="border border-line bg-sheet px-2 py-1"
            value={own.note ?? ''}
            onChange={(event) => setOwn({ ...own, note: event.target.value })}
          />
        </div>
      )}
      {known.length > 0 && (
        <ul aria-label="In the settings book" className="mt-2 text-[13px] text-soft">
          {known
            .toReversed()
            .slice(0, 4)
            .map((entry) => (
              <li key={entry.id}>
                {dayOf(entry.at)}: {entry.outcome}, {formatLength(entry.depthMm, unit)}, {entry.forceG} g,{' '}
                {formatKept(entry.speedMmPerS, 'mm/s', unit)}, {entry.passes} ×
                {entry.note && ` · ${entry.note}`}
              </li>
            ))}
        </ul>
      )}
    </Heading>
  )
}

/** An entry of the book, as of now. */
const entryOf = (
  { paper: { name, finish, gsm }, setting: { intricacy } }: LoadView,
  cutter: string,
  values: Pick<Setting, 'depthMm' | 'forceG' | 'speedMmPerS' | 'passes' | 'tack' | 'outcome' | 'note'>,
): Setting => ({
  id: crypto.randomUUID(),
  paper: name,
  finish,
  gsm,
  cutter,
  intricacy,
  ...values,
  at: Date.now(),
})
