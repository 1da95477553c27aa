// What was made: when, for whom, given or sold at what price; whether it may be sold; its card.
import { useMemo, useState } from 'react'
import { Trash2 } from 'lucide-react'
import { toast } from 'sonner'
import { FATES, slug, type Fate, type Make, type Project, type Rights } from '@feuillet/core/project'
import { selling, versionOf, versionsMade } from '@feuillet/core/stages/journal'
import { change } from '../../state/edits'
import { saveFile } from '../../session/save-file'
import { usePlan } from '../../plan'
import { planner } from '../../plan'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import {
  ACCEPTS,
  Button,
  Choice,
  type DataColumn,
  DataTable,
  dayOf,
  Figure,
  Figures,
  FileButton,
  Heading,
  NumberField,
  Select,
} from '../../ui'
import { scaledPhoto } from './photo'

const setMakes = (p: Project, makes: Make[]): Project => ({ ...p, journal: { ...p.journal, makes } })

export function Makes() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { makes } = project.journal
  const priced = usePlan('cost')?.priced
  const { currency } = project.drawer
  const may = selling(project)
  const versions = useMemo(() => versionsMade(project), [project])
  const set = (label: string, id: string, patch: Partial<Make>) =>
    dispatch(
      change(label, (p) =>
        setMakes(
          p,
          p.journal.makes.map((one) => (one.id === id ? { ...one, ...patch } : one)),
        ),
      ),
    )
  const add = (fate: Fate) =>
    dispatch(
      change(`one ${fate}`, (p) =>
        setMakes(p, [
          ...p.journal.makes,
          {
            id: crypto.randomUUID(),
            at: Date.now(),
            count: 1,
            fate,
            whom: '',
            price: fate === 'sold' ? (priced?.price ?? 0) : 0,
            note: '',
            version: versionOf(p),
          },
        ]),
      ),
    )
  const columns: DataColumn<Make>[] = [
    {
      id: 'at',
      title: 'when',
      always: true,
      value: ({ at }) => at,
      cell: ({ at }) => <span className="measure">{dayOf(at)}</span>,
    },
    {
      id: 'count',
      title: 'how many',
      numeric: true,
      value: ({ count }) => count,
      cell: (one) => (
        <input
          type="number"
          min={1}
          max={200}
          aria-label="How many"
          className="measure w-14 border border-line bg-sheet px-1 text-right"
          value={one.count}
          onChange={(event) => {
            const count = Math.round(Number(event.target.value))
            if (count >= 1 && count <= 200) set('how many', one.id, { count })
          }}
        />
      ),
    },
    {
      id: 'fate',
      title: 'was',
      value: ({ fate }) => fate,
      cell: (one) => (
        <Select
          label="What became of it"
          className="w-24"
          quiet
          value={one.fate}
          options={FATES.map((value) => ({ value, label: value }))}
          onChange={(fate) => set(`it was ${fate}`, one.id, { fate: fate as Fate })}
        />
      ),
    },
    {
      id: 'version',
      title: 'version',
      value: ({ id }) => versions.get(id)?.version ?? 0,
      cell: ({ id }) => {
        const from = versions.get(id)
        if (!from) return <span className="text-soft">–</span>
        return (
          <span
            className="measure"
            title={
              from.isNow
                ? 'Outlines, papers and joints are as they are now'
                : 'The work was changed since: other outlines, papers or joints'
            }
          >
            {from.version}
            {from.isNow ? ', as now' : ''}
          </span>
        )
      },
    },
    {
      id: 'whom',
      title: 'for whom',
      value: ({ whom }) => whom,
      cell: (one) => (
        <input
          aria-label="For whom"
          className="w-full min-w-28 border border-line bg-sheet px-1"
          key={one.whom}
          defaultValue={one.whom}
          maxLength={100}
          onBlur={(event) =>
            event.target.value !== one.whom && set('for whom', one.id, { whom: event.target.value })
          }
        />
      ),
    },
    {
      id: 'price',
      title: 'each',
      unit: currency,
      numeric: true,
      value: ({ price }) => price,
      cell: (one) =>
        one.fate === 'sold' ? (
          <input
            aria-label="Price each"
            className="measure w-18 border border-line bg-sheet px-1 text-right"
            key={one.price}
            defaultValue={one.price.toFixed(2)}
            onBlur={(event) => {
              const price = Number(event.target.value.replace(',', '.'))
              if (Number.isFinite(price) && price >= 0 && price !== one.price) set('price', one.id, { price })
              else event.target.value = one.price.toFixed(2)
            }}
          />
        ) : (
          '–'
        ),
    },
    {
      id: 'bin',
      title: 'bin',
      always: true,
      cell: (one) => (
        <button
          type="button"
          aria-label="Bin this entry"
          className="p-1"
          onClick={() =>
            dispatch(
              change('bin an entry', (p) =>
                setMakes(
                  p,
                  p.journal.makes.filter(({ id }) => id !== one.id),
                ),
              ),
            )
          }
        >
          <Trash2 size={15} aria-hidden />
        </button>
      ),
    },
  ]
  return (
    <>
      <DataTable
        label="What was made"
        rows={makes}
        columns={columns}
        rowId={({ id }) => id}
        rowProps={({ fate }) => ({ 'data-make': fate })}
        sortedBy="at"
        small
        toolbar={() => (
          <>
            <span className="flex-1 text-[13px] text-soft">
              {makes.length === 0
                ? 'Nothing yet.'
                : `${makes.reduce((sum, { count }) => sum + count, 0)} made.`}
              {may.why && <span className="text-ochre"> ▲ {may.why}.</span>}
            </span>
            {FATES.map((fate) => (
              <Button key={fate} small onClick={() => add(fate)} disabled={fate === 'sold' && may.left === 0}>
                One {fate}
              </Button>
            ))}
          </>
        )}
      />
      <Photos />
    </>
  )
}

/** Pictures of the work with captions, scaled down; they are kept with the project. */
function Photos() {
  const dispatch = useAppDispatch()
  const { photos } = useAppSelector(selectProject).journal
  const bring = async (chosen: File | undefined) => {
    if (!chosen) return
    const data = await scaledPhoto(chosen)
    if (data === null) return void toast.error(`${chosen.name}: this is not a picture that can be read.`)
    dispatch(
      change('a photo', (p) => ({
        ...p,
        journal: {
          ...p.journal,
          photos: [...p.journal.photos, { id: crypto.randomUUID(), caption: '', at: Date.now(), data }],
        },
      })),
    )
  }
  return (
    <section className="mt-4" aria-label="Photos">
      <div className="mb-2 flex items-center gap-3">
        <h2 className="flex-1 text-[17px]">Photos</h2>
        <FileButton
          small
          label="Photo of the work"
          accept={ACCEPTS.picture}
          onFiles={([photo]) => void bring(photo)}
        >
          Add a photo
        </FileButton>
      </div>
      <ul className="grid grid-cols-3 gap-3">
        {photos.map(({ id, caption, data }) => (
          <li key={id} className="border border-line bg-panel p-2">
            <img
              src={`data:image/jpeg;base64,${data}`}
              alt={caption || 'Photo of the work'}
              className="h-36 w-full object-contain"
            />
            <div className="mt-1 flex items-center gap-1">
              <input
                aria-label="Caption"
                placeholder="caption"
                className="min-w-0 flex-1 border border-line bg-sheet px-1"
                key={caption}
                defaultValue={caption}
                onBlur={(event) =>
                  event.target.value !== caption &&
                  dispatch(
                    change('caption', (p) => ({
                      ...p,
                      journal: {
                        ...p.journal,
                        photos: p.journal.photos.map((one) =>
                          one.id === id ? { ...one, caption: event.target.value } : one,
                        ),
                      },
                    })),
                  )
                }
              />
              <button
                type="button"
                aria-label="Bin this photo"
                className="p-1"
                onClick={() =>
                  dispatch(
                    change('bin a photo', (p) => ({
                      ...p,
                      journal: { ...p.journal, photos: p.journal.photos.filter((one) => one.id !== id) },
                    })),
                  )
                }
              >
                <Trash2 size={15} aria-hidden />
              </button>
            </div>
          </li>
        ))}
      </ul>
    </section>
  )
}

/** Where the design comes from and what may be done with it; the card that goes with a piece. */
export function RightsPanel() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { rights } = project
  const may = selling(project)
  const [busy, setBusy] = useState(false)
  const set = (label: string, patch: Partial<Rights>) =>
    dispatch(change(label, (p) => ({ ...p, rights: { ...p.rights, ...patch } })))
  const card = async () => {
    setBusy(true)
    try {
      const bytes = await planner.host.ask((api) => api.card())
      saveFile(`${slug(project.name)}-card.pdf`, bytes, 'application/pdf')
    } finally {
      setBusy(false)
    }
  }
  return (
    <>
      <Heading title="The right to sell">
        <Choice
          label="What may be done with the design"
          value={rights.use}
          options={[
            { value: 'own design', label: 'my own' },
            { value: 'own use only', label: 'own use only' },
            { value: 'may be sold', label: 'may be sold' },
          ]}
          onChange={(use) => set('what may be done with it', { use })}
        />
        {rights.use !== 'own design' && (
          <div className="mt-2 grid gap-2">
            <Text
              label="Design of"
              value={rights.source}
              onChange={(source) => set('design of', { source })}
            />
            {rights.use === 'may be sold' && (
              <>
                <NumberField
                  label="At most, 0 for any number"
                  value={rights.most ?? 0}
                  min={0}
                  max={100_000}
                  whole
                  onChange={(most) => set('how many may be sold', { most: most === 0 ? null : most })}
                />
                <Text
                  label="Credit that must stand with it"
                  value={rights.credit}
                  onChange={(credit) => set('credit', { credit })}
                />
              </>
            )}
          </div>
        )}
        <div className="mt-2">
          <Figures>
            <Figure name="Sold so far" value={may.sold} />
            {rights.use === 'may be sold' && (
              <Figure name="May still be sold" value={may.left ?? 'any number'} alarm={may.left === 0} />
            )}
          </Figures>
        </div>
        <p className="mt-2 text-[13px] text-soft">
          What a licence allows is in its words: read them. Local rules on selling go before all of this.
        </p>
      </Heading>
      <Heading title="A card to go with it">
        <p className="mb-2 text-[13px] text-soft">
          A page with its picture, size, price, care, caution and credit, to lay beside it at a fair.
        </p>
        <Button small disabled={busy} onClick={() => void card()}>
          {busy ? 'Making it…' : 'Save the card (PDF)'}
        </Button>
      </Heading>
    </>
  )
}

function Text({
  label,
  value,
  onChange,
}: {
  label: string
  value: string
  onChange: (text: string) => void
}) {
  return (
    <label className="grid gap-1">
      <span>{label}</span>
      <input
        className="border border-line bg-sheet px-2 py-1"
        key={value}
        defaultValue={value}
        maxLength={100}
        onBlur={(event) => event.target.value !== value && onChange(event.target.value)}
      />
    </label>
  )
}
