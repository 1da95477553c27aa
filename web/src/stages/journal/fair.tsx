// For a fair: which of the projects on the shelf to make, and how many, from what is at hand.
import { useState } from 'react'
import { kindOf, thingUnit } from '@feuillet/core/project'
import { countWords, type AtHand, type FairGoal, type FairPlan } from '@feuillet/core/stages/journal'
import { formatMinutes } from '@feuillet/core/base/units'
import { selectProject, selectUnit } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { Button, Checkbox, Choice, NumberField } from '../../ui'
import { editor } from '../../workers'
import { useShelfCounts } from './use-shelf'

/** What is wanted of a project for the fair. */
interface Wish {
  isChosen: boolean
  least: number
  most: number
}

const NO_WISH: Wish = { isChosen: true, least: 0, most: 20 }

export function Fair() {
  const { drawer } = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const { stock, supplies } = useAppSelector((state) => state.document)
  const { counted, doing } = useShelfCounts()
  const [wishes, setWishes] = useState<ReadonlyMap<string, Wish>>(new Map())
  const rows = counted.map((one) => ({ ...one, ...(wishes.get(one.id) ?? NO_WISH) }))
  const [evenings, setEvenings] = useState(6)
  const [hours, setHours] = useState(2.5)
  const [goal, setGoal] = useState<FairGoal>('profit')
  const [plan, setPlan] = useState<FairPlan | string | null>(null)
  const { currency } = drawer
  const chosen = rows.filter(({ isChosen }) => isChosen)
  const papers = new Map([...drawer.papers, ...stock].map((paper) => [paper.id, paper]))
  const foams = new Map(supplies.foams.map((foam) => [foam.id, foam]))
  const things = new Map(supplies.things.map((thing) => [thing.id, thing]))
  const set = (id: string, patch: Partial<Wish>) => {
    setWishes(new Map(wishes).set(id, { ...(wishes.get(id) ?? NO_WISH), ...patch }))
    setPlan(null)
  }
  const compute = async () => {
    const atHand: AtHand = {
      sheets: Object.fromEntries([...papers].map(([id, { count }]) => [id, count])),
      pads: Object.fromEntries([...foams].map(([id, { count }]) => [id, count])),
      things: Object.fromEntries([...things].map(([id, { count }]) => [id, count ?? 0])),
      minutes: evenings * hours * 60,
    }
    try {
      setPlan(await editor.ask((api) => api.fair(chosen, atHand, goal)))
    } catch (error) {
      setPlan(error instanceof Error ? error.message : String(error))
    }
  }
  const nameOf = (limit: string) => {
    if (limit === 'minutes') return 'the evenings'
    const [kind = '', id = ''] = limit.split(/ (.*)/)
    const drawers: Record<string, ReadonlyMap<string, { name: string }>> = {
      sheet: papers,
      pad: foams,
      thing: things,
    }
    return drawers[kind]?.get(id)?.name || id
  }
  const counts =
    plan && typeof plan !== 'string' ? new Map(plan.counts.map(({ id, count }) => [id, count])) : null
  return (
    <>
      <p className="mb-3 text-soft">
        Which to make, and how many, from the sheets, the foam and what else is counted in the drawer, and the
        evenings you have. Price and hands of each are as its own journal says; sheets by what is not kept of
        them.
      </p>
      <div className="mb-3 grid max-w-xl gap-2">
        <NumberField
          label="Evenings until then"
          value={evenings}
          min={0}
          max={400}
          whole
          onChange={(n) => (setEvenings(n), setPlan(null))}
        />
        <NumberField
          label="Hours an evening"
          unitHint="h"
          value={hours}
          min={0}
          max={16}
          onChange={(n) => (setHours(n), setPlan(null))}
        />
        <Choice
          label="What counts"
          captioned
          value={goal}
          options={[
            {
              value: 'profit',
              label: 'what it brings',
              title: 'What is left of the prices when all but the hands is paid',
            },
            {
              value: 'left-overs',
              label: 'fewest left-overs',
              title: 'As many of the sheets at hand as can be',
            },
          ]}
          onChange={(next) => (setGoal(next), setPlan(null))}
        />
      </div>
      <table className="w-full bg-panel text-left" aria-label="Projects for the fair">
        <thead className="text-[13px] text-soft">
          <tr className="border-b border-line">
            <th className="px-2 py-1 font-normal">make it</th>
            <th className="px-2 font-normal">project</th>
            <th className="px-2 text-right font-normal">brings {currency}</th>
            <th className="px-2 text-right font-normal">hands</th>
            <th className="px-2 text-right font-normal">at least</th>
            <th className="px-2 text-right font-normal">at most</th>
            <th className="px-2 text-right font-normal">make</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.id} className="border-b border-line" data-candidate={row.name}>
              <td className="px-2 py-1">
                <Checkbox
                  label={`Make ${row.name}`}
                  checked={row.isChosen}
                  onChange={(isChosen) => set(row.id, { isChosen })}
                />
              </td>
              <td className="px-2 font-semibold">{row.name}</td>
              <td className="measure px-2 text-right">{row.bringsEach.toFixed(2)}</td>
              <td className="measure px-2 text-right">{formatMinutes(row.minutesEach)}</td>
              {(['least', 'most'] as const).map((key) => (
                <td key={key} className="px-2 text-right">
                  <input
                    type="number"
                    min={0}
                    max={200}
                    aria-label={`${key === 'least' ? 'At least' : 'At most'} of ${row.name}`}
                    className="measure w-14 border border-line bg-sheet px-1 text-right"
                    value={row[key]}
                    onChange={(event) => {
                      const n = Math.round(Number(event.target.value))
                      if (n >= 0 && n <= 200) set(row.id, { [key]: n })
                    }}
                  />
                </td>
              ))}
              <td className="measure px-2 text-right text-[17px] font-bold" data-testid={`make-${row.name}`}>
                {counts ? (counts.get(row.id) ?? 0) : '–'}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {doing && (
        <p className="mt-2 text-soft" aria-live="polite">
          Counting {doing}…
        </p>
      )}
      <div className="mt-3">
        <Button look="main" disabled={chosen.length === 0} onClick={() => void compute()}>
          Choose the best
        </Button>
      </div>
      {typeof plan === 'string' && (
        <p role="alert" className="mt-3 border-l-4 border-crimson bg-crimson-pale px-3 py-1.5">
          ■ No choice: {plan}.
        </p>
      )}
      {plan && typeof plan !== 'string' && (
        <section className="mt-4" aria-label="The best choice">
          <p className="text-[16px]">
            Together they bring <strong className="measure">{`${plan.brings.toFixed(2)} ${currency}`}</strong>{' '}
            before the hands, in <strong className="measure">{formatMinutes(plan.minutes)}</strong> of{' '}
            {formatMinutes(evenings * hours * 60)}.
          </p>
          <p className="mt-1 text-soft">
            {plan.limits.length > 0
              ? `One more of something would want more of: ${plan.limits.map(nameOf).join(', ')}.`
              : 'Nothing runs out: the most that you want of each is made.'}
          </p>
          <ul className="mt-2 grid grid-cols-2 gap-x-6 text-[13.5px]">
            {used(plan.sheets, papers).map(({ id, n, name, count }) => (
              <Used key={id} name={name} amount={`${n.toFixed(2)} of ${count} sheets`} />
            ))}
            {used(plan.pads, foams).map(({ id, n, name, count }) => (
              <Used key={id} name={name} amount={`${Math.ceil(n)} of ${count} pads`} />
            ))}
            {used(plan.things, things).map(({ id, n, name, count }) => {
              const by = thingUnit(kindOf(things.get(id)!))
              const amount = `${countWords(n, by, unit)} of ${countWords(count, by, unit)}`
              return <Used key={id} name={name} amount={amount} />
            })}
          </ul>
        </section>
      )}
    </>
  )
}

/** What is used at all of a part of the drawer, with what is at hand of it. */
const used = (
  amounts: Readonly<Record<string, number>>,
  drawer: ReadonlyMap<string, { name: string; count: number | null }>,
) =>
  Object.entries(amounts).flatMap(([id, n]) => {
    const one = drawer.get(id)
    return n > 0 && one ? { id, n, name: one.name, count: one.count ?? 0 } : []
  })

function Used({ name, amount }: { name: string; amount: string }) {
  return (
    <li className="flex justify-between border-b border-line">
      <span>{name}</span>
      <span className="measure">{amount}</span>
    </li>
  )
}
