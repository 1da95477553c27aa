// What it costs, line by line, and what to ask for one of it.
import { lazy, Suspense } from 'react'
import { Trash2 } from 'lucide-react'
import { toast } from 'sonner'
import { PRICE_WAYS, priceThing, setPlan, type Part, type Pricing } from '@feuillet/core/project'
import { amountIn, isOurs, partsOf, sumOf, type Cost, type CostLine } from '@feuillet/core/stages/journal'
import { change, changeSupplies } from '../../state/edits'
import { usePlan } from '../../plan'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { useWords } from '../../state/use-words'
import { saveFile } from '../../session/save-file'
import { Button, Choice, DataTable, Figure, Figures, Heading, NumberField, type DataColumn } from '../../ui'

const CostChart = lazy(() => import('./cost-chart'))
const PartsChart = lazy(() => import('./cost-chart').then((charts) => ({ default: charts.PartsChart })))

type Row = CostLine & { key: string }

/** Figures of a line: so many digits that something is seen of small amounts. */
const amountWords = ({ amount, unit }: Pick<CostLine, 'amount' | 'unit'>): string =>
  `${Number.isInteger(amount) ? amount : amount.toFixed(amount < 10 ? 2 : 1)}${unit ? ` ${amount === 1 ? unit.replace(/s$/, '') : unit}` : ''}`

/** The lines of the planned cost; what is no paper, foam or glue can be set. */
export function Costs({ spent }: { spent: Cost }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { unit, words } = useWords()
  const cost = usePlan('cost')
  // Paper and things are known long before the pads are planned.
  const first = usePlan('sheetCost')
  const tooLarge = usePlan('nested')?.reduce((sum, run) => sum + run.tooLarge, 0) ?? 0
  const { currency } = project.drawer
  const parts = new Map(partsOf(project).map((part) => [part.id, part]))
  const setPart = (label: string, part: Part) =>
    dispatch(
      change(label, (p) => setPlan(p, { parts: [...p.plan.parts.filter(({ id }) => id !== part.id), part] })),
    )
  // What every work of the kind takes costs the same in the next one; what was added is this one's.
  const setPrice = (label: string, part: Part) => {
    if (!isOurs(project, part.id)) return setPart(label, part)
    const fresh = crypto.randomUUID()
    dispatch(
      changeSupplies(label, (held) => ({
        project: setPlan(held.project, {
          parts: held.project.plan.parts.map((own) => (own.id === part.id ? part : own)),
        }),
        supplies: priceThing(held, { ...part, id: fresh }),
      })),
    )
  }
  const columns: DataColumn<Row>[] = [
    { id: 'kind', title: 'goes to', value: ({ kind }) => kind, cell: ({ kind }) => kind },
    {
      id: 'what',
      title: 'what',
      always: true,
      value: ({ what }) => what,
      cell: ({ what, partId }) => {
        const part = partId === null ? undefined : parts.get(partId)
        return part ? (
          <input
            aria-label={`Name of ${what}`}
            className="w-full bg-transparent"
            defaultValue={what}
            key={what}
            onBlur={(event) => {
              const name = event.target.value.trim()
              if (name && name !== what) setPart(`call it ${name}`, { ...part, what: name })
            }}
          />
        ) : (
          what
        )
      },
    },
    {
      id: 'amount',
      title: 'takes',
      numeric: true,
      value: ({ amount }) => amount,
      cell: (line) => {
        const part = line.partId === null ? undefined : parts.get(line.partId)
        const taken = amountIn(line, unit)
        if (!part) return <span className="measure whitespace-nowrap">{amountWords(taken)}</span>
        // Told of all copies; kept is what one of them takes.
        const one = amountIn({ amount: project.plan.batch, unit: line.unit }, unit).amount
        return (
          <span className="measure whitespace-nowrap">
            <PartFigure
              label={`Amount of ${line.what}`}
              value={taken.amount}
              onChange={(amount) => setPart(`amount of ${line.what}`, { ...part, amount: amount / one })}
            />{' '}
            {taken.unit}
          </span>
        )
      },
    },
    {
      id: 'cost',
      title: 'costs',
      unit: currency,
      numeric: true,
      value: ({ cost: own }) => own,
      cell: (line) => <span className="measure">{line.cost.toFixed(2)}</span>,
    },
    {
      id: 'basis',
      title: 'rests on',
      value: ({ basis }) => words(basis),
      cell: ({ basis, partId, what }) => (
        <span className="flex items-center gap-2 text-[13px] text-soft">
          {partId !== null && parts.has(partId) ? (
            <PartPrice part={parts.get(partId)!} onChange={(part) => setPrice(`price of ${what}`, part)} />
          ) : (
            <span className="flex-1">{words(basis)}</span>
          )}
          {partId !== null && project.plan.parts.some(({ id }) => id === partId) && (
            <button
              type="button"
              aria-label={`Take back ${what}`}
              className="p-1"
              onClick={() =>
                dispatch(
                  change(`take back ${what}`, (p) =>
                    setPlan(p, { parts: p.plan.parts.filter(({ id }) => id !== partId) }),
                  ),
                )
              }
            >
              <Trash2 size={14} aria-hidden />
            </button>
          )}
        </span>
      ),
    },
  ]
  const lines = cost?.lines ?? first
  if (!lines) return <p className="text-soft">Computing…</p>
  const rows = lines.map((line, i): Row => ({
    ...line,
    key: line.partId ?? `${line.kind} ${line.what} ${i}`,
  }))
  const saveCsv = async () => {
    const { writeCsv } = await import('@feuillet/core/io/write')
    saveFile(
      'cost.csv',
      writeCsv(
        lines.map((line) => {
          const taken = amountIn(line, unit)
          return {
            'goes to': line.kind,
            what: line.what,
            amount: taken.amount.toFixed(4),
            unit: taken.unit,
            [`cost ${currency}`]: line.cost.toFixed(2),
            'rests on': words(line.basis),
          }
        }),
      ),
      'text/csv',
    )
  }
  return (
    <>
      {/* The charts below scroll; the lines keep their room. */}
      <div className="flex min-h-96 shrink-0 flex-col">
        <DataTable
          label="What it costs"
          rows={rows}
          columns={columns}
          rowId={({ key }) => key}
          rowProps={({ kind }) => ({ 'data-cost': kind })}
          sortedBy="kind"
          small
          toolbar={() => (
            <>
              <span className="flex-1 text-[13px] text-soft">
                For {project.plan.batch === 1 ? 'one' : `all ${project.plan.batch}`}, as planned.{' '}
                {cost
                  ? 'Prices of paper, foam, glue, blade, mats and things are the drawer’s.'
                  : 'Foam, glue and hands are still being planned.'}
                {tooLarge > 0 && (
                  <span className="ml-1 text-crimson">
                    ■ {tooLarge === 1 ? 'One piece is' : `${tooLarge} pieces are`} larger than a sheet: card
                    for {tooLarge === 1 ? 'it' : 'them'} is not counted.
                  </span>
                )}
              </span>
              <Button
                small
                onClick={() =>
                  setPart('another thing', {
                    id: crypto.randomUUID(),
                    what: 'another thing',
                    amount: 1,
                    unit: '',
                    price: 1,
                  })
                }
              >
                Add a thing
              </Button>
              <Button small disabled={!cost} onClick={() => void saveCsv()}>
                Save as CSV
              </Button>
            </>
          )}
        />
      </div>
      {cost && (
        <>
          <section className="mt-4 shrink-0">
            <h2 className="mb-2 text-[17px]">Planned and so far</h2>
            <Suspense fallback={<p className="text-soft">Drawing…</p>}>
              <CostChart planned={sumOf(cost.lines)} spent={spent} currency={currency} />
            </Suspense>
          </section>
          <section className="mt-4 shrink-0">
            <h2 className="mb-2 text-[17px]">What it goes to</h2>
            <Suspense fallback={<p className="text-soft">Drawing…</p>}>
              <PartsChart lines={cost.lines} currency={currency} />
            </Suspense>
          </section>
        </>
      )}
    </>
  )
}

/** What one unit of a thing costs, typed. */
function PartPrice({ part, onChange }: { part: Part; onChange: (part: Part) => void }) {
  const project = useAppSelector(selectProject)
  const one = amountIn({ amount: 1, unit: part.unit }, project.unit)
  return (
    <>
      <PartFigure
        label={`Price of ${part.what}`}
        value={part.price / one.amount}
        onChange={(price) => onChange({ ...part, price: price * one.amount })}
      />
      <span className="flex-1">
        {project.drawer.currency} {one.unit ? `a ${one.unit}` : 'each'}, yours to set{' '}
        {isOurs(project, part.id) && 'for all works'}
      </span>
    </>
  )
}

/** So much that a document holds it by the metre too, where it is typed by the foot. */
const MOST_TYPED = 100_000

/** A figure of a thing of the maker's, with two places, kept as it is typed. */
function PartFigure({
  label,
  value,
  onChange,
}: {
  label: string
  value: number
  onChange: (value: number) => void
}) {
  const shown = value.toFixed(2)
  return (
    <input
      aria-label={label}
      className="measure w-16 border border-line bg-sheet px-1 text-right"
      key={shown}
      defaultValue={shown}
      onBlur={(event) => {
        const typed = event.target.value.trim()
        if (typed === shown) return
        const given = Number(typed.replace(',', '.'))
        if (typed !== '' && given >= 0 && given <= MOST_TYPED) {
          if (given !== Number(shown)) onChange(given)
          return
        }
        toast.error(`${label}: a number from 0 to ${MOST_TYPED}.`)
        event.target.value = shown
      }}
    />
  )
}

const WAYS: Record<(typeof PRICE_WAYS)[number], { label: string; title: string }> = {
  'mark-up': { label: 'by mark-up', title: 'What it costs, hands included, and so much more' },
  wage: { label: 'by the hour', title: 'Material, and what an hour is to bring' },
  price: { label: 'a price', title: 'What you would ask: what wage is left of it' },
}

/** What to ask for one. */
export function PricePanel() {
  const dispatch = useAppDispatch()
  const { plan, drawer } = useAppSelector(selectProject)
  const priced = usePlan('cost')?.priced
  const { pricing } = plan
  const { currency } = drawer
  const money = (value: number | null) => (value === null ? 'none' : `${value.toFixed(2)} ${currency}`)
  const set = (label: string, patch: Partial<Pricing>) =>
    dispatch(change(label, (p) => setPlan(p, { pricing: { ...p.plan.pricing, ...patch } })))
  const share = (label: string, key: 'markUp' | 'feeShare' | 'taxRate', most: number) => (
    <NumberField
      label={label}
      unitHint="%"
      value={Math.round(pricing[key] * 10_000) / 100}
      min={0}
      max={most}
      onChange={(value) => set(label, { [key]: value / 100 })}
    />
  )
  const amount = (
    label: string,
    key: 'wage' | 'wished' | 'feeFixed' | 'packing' | 'postage' | 'roundTo' | 'stall',
  ) => (
    <NumberField
      label={label}
      unitHint={currency}
      value={pricing[key]}
      min={0}
      max={10_000}
      onChange={(value) => set(label, { [key]: value })}
    />
  )
  return (
    <>
      <Heading title="What to ask for one">
        <Choice
          label="Way to the price"
          value={pricing.way}
          options={PRICE_WAYS.map((value) => ({ value, ...WAYS[value] }))}
          onChange={(way) => set('way to the price', { way })}
        />
        <div className="mt-2 grid gap-2">
          {pricing.way === 'mark-up' && share('On top of what it costs', 'markUp', 10_000)}
          {pricing.way === 'wage' && amount('An hour is to bring', 'wage')}
          {pricing.way === 'price' && amount('Price you would ask', 'wished')}
          <NumberField
            label="An hour of hands costs"
            unitHint={currency}
            value={plan.hourlyRate}
            min={0}
            max={500}
            onChange={(hourlyRate) => dispatch(change('hourly rate', (p) => setPlan(p, { hourlyRate })))}
          />
          <NumberField
            label="A printed page costs"
            unitHint={currency}
            value={plan.printPrice}
            min={0}
            max={100}
            onChange={(printPrice) => dispatch(change('price of a print', (p) => setPlan(p, { printPrice })))}
          />
          <NumberField
            label="Glue taken, times what is laid"
            unitHint="×"
            value={plan.glueLost}
            min={1}
            max={20}
            onChange={(glueLost) => dispatch(change('glue used up', (p) => setPlan(p, { glueLost })))}
          />
          {pricing.way !== 'price' && amount('Rounded up to', 'roundTo')}
        </div>
        {priced && (
          <div className="mt-3">
            {priced.price === null ? (
              <p role="alert" className="text-crimson">
                ■ Fees and tax take all of any price: nothing is left.
              </p>
            ) : (
              <Figures>
                <Figure name="Price of one" value={money(priced.price)} />
                <Figure
                  name="Material"
                  value={money(priced.material)}
                  basis="All that one costs but the hands"
                />
                <Figure
                  name="Hands"
                  value={`${priced.hours.toFixed(2)} h`}
                  basis={`Planned; ${money(priced.hours * plan.hourlyRate)} at what an hour costs`}
                />
                {priced.tax > 0 && <Figure name="Tax in it" value={money(priced.tax)} />}
                {priced.fees > 0 && <Figure name="Fees of fair or shop" value={money(priced.fees)} />}
                {priced.sending > 0 && <Figure name="Packing and postage" value={money(priced.sending)} />}
                <Figure
                  name="Left for the hands"
                  value={money(priced.left)}
                  alarm={priced.left < 0}
                  basis="Price less tax, fees, sending and material"
                />
                <Figure
                  name="An hour brings"
                  value={priced.wage === null ? '–' : money(priced.wage)}
                  alarm={priced.wage !== null && priced.wage < 0}
                />
                <Figure
                  name="Profit"
                  value={money(priced.profit)}
                  basis="What is left beyond the hands at what an hour costs"
                />
              </Figures>
            )}
          </div>
        )}
      </Heading>
      <Heading title="Whoever sells it">
        <div className="grid gap-2">
          {share('Fair or shop takes', 'feeShare', 95)}
          {amount('And of each piece', 'feeFixed')}
          {amount('Packing', 'packing')}
          {amount('Postage you pay', 'postage')}
          {share('Tax in the price', 'taxRate', 100)}
          {amount('A stall costs', 'stall')}
        </div>
        {priced && pricing.stall > 0 && (
          <div className="mt-2">
            <Figures>
              <Figure
                name="Pays the stall"
                value={priced.breakEven === null ? 'never' : `${priced.breakEven} sold`}
                basis="The hands for nothing"
              />
              <Figure
                name="And the hands"
                value={priced.breakEvenPaid === null ? 'never' : `${priced.breakEvenPaid} sold`}
              />
            </Figures>
          </div>
        )}
        <Choice
          label="Paper is paid"
          captioned
          value={pricing.paperBy}
          options={[
            { value: 'sheets', label: 'whole sheets' },
            { value: 'share', label: 'by share', title: 'Less what is kept of sheets as clean off-cuts' },
          ]}
          onChange={(paperBy) => set('how paper is paid', { paperBy })}
        />
        <p className="mt-2 text-[13px] text-soft">
          Tax, fees and what a small maker must register are local: check the rules where you live.
        </p>
      </Heading>
    </>
  )
}
