// The small parts that every screen is made of: what is typed, picked and ticked, and what comes of it.
import { useState, type ReactNode } from 'react'
import { flushSync } from 'react-dom'
import { createRoot, type Root } from 'react-dom/client'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { z } from 'zod'
import type { Unit } from '@feuillet/core/base/units'
import { all, choose, field, fireEvent, press, the, type, user, waitFor } from '../../test/screens'
import {
  AreaField,
  Checkbox,
  Choice,
  ColourInput,
  DataTable,
  Figure,
  Figures,
  FileButton,
  Fold,
  LengthField,
  NumberField,
  SchemaFields,
  Select,
  Switch,
  Tip,
  TipProvider,
  type DataColumn,
} from '.'

let root: Root | null = null
afterEach(() => {
  root?.unmount()
  root = null
})

/** Shows a part, in place of what was shown before. */
function show(part: ReactNode): void {
  root ??= createRoot(document.body.appendChild(document.createElement('div')))
  flushSync(() => root!.render(<TipProvider>{part}</TipProvider>))
}

describe('a length', () => {
  /** A field that keeps what it is told. */
  function Length({ from, unit, tell }: { from: number; unit: Unit; tell: (mm: number) => void }) {
    const [mm, setMm] = useState(from)
    const keep = (next: number) => {
      tell(next)
      setMm(next)
    }
    return <LengthField label="Width" valueMm={mm} unit={unit} min={5} max={400} onChange={keep} />
  }

  it.each([
    ['mm', '8 1/2', 215.9, '215.9'],
    ['mm', '21.6cm', 216, '216'],
    ['mm', '3 in', 76.2, '76.2'],
    ['mm', '12,5', 12.5, '12.5'],
    ['in', '8 1/2', 215.9, '8 1/2 in'],
    ['in', '216mm', 216, '8 1/2 in'],
    ['in', '4', 101.6, '4 in'],
  ] as const)('in %s is typed as %s', async (unit, text, mm, shown) => {
    const tell = vi.fn()
    show(<Length from={100} unit={unit} tell={tell} />)
    await type('Width', text)
    expect(tell).toHaveBeenCalledTimes(1)
    expect(tell.mock.calls[0]![0]).toBeCloseTo(mm, 6)
    expect(field('Width').value).toBe(shown)
    expect(field('Width').getAttribute('aria-invalid')).toBe('false')
  })

  it.each([
    ['wide', 'Type a length such as 8 1/2, 8.5 in, 216 or 21.6cm, or reckon: 5 3/8 / 2, 216 - 2 × 5.'],
    ['', 'Type a length such as 8 1/2, 8.5 in, 216 or 21.6cm, or reckon: 5 3/8 / 2, 216 - 2 × 5.'],
    ['401', 'Between 5 mm and 400 mm.'],
    ['4', 'Between 5 mm and 400 mm.'],
  ])('that cannot be says why, and is told to nobody: “%s”', async (text, why) => {
    const tell = vi.fn()
    show(<Length from={100} unit="mm" tell={tell} />)
    await type('Width', text)
    expect(the('alert').textContent).toContain(why)
    expect(field('Width').getAttribute('aria-invalid')).toBe('true')
    // What was typed stays, to be mended; Escape takes it back.
    expect(field('Width').value).toBe(text)
    await user.keyboard('{Escape}')
    expect(field('Width').value).toBe('100')
    expect(all('alert')).toEqual([])
    expect(tell).not.toHaveBeenCalled()
  })

  it('counts when it is left, and not where nothing was typed', async () => {
    const tell = vi.fn()
    show(
      <>
        <Length from={100} unit="mm" tell={tell} />
        <input aria-label="next" />
      </>,
    )
    await user.click(field('Width'))
    await user.tab()
    expect(tell).not.toHaveBeenCalled()
    await user.click(field('Width'))
    await user.keyboard('120')
    expect(tell).not.toHaveBeenCalled()
    await user.tab()
    expect(tell).toHaveBeenCalledExactlyOnceWith(120)
    // The same once more is no change.
    await type('Width', ' 120 ')
    expect(tell).toHaveBeenCalledTimes(1)
  })

  it('follows what it shows when that changes elsewhere', () => {
    show(<LengthField label="Width" valueMm={50} unit="mm" onChange={() => undefined} />)
    expect(field('Width').value).toBe('50')
    show(<LengthField label="Width" valueMm={62.5} unit="mm" onChange={() => undefined} />)
    expect(field('Width').value).toBe('62.5')
    show(<LengthField label="Width" valueMm={63.5} unit="in" onChange={() => undefined} />)
    expect(field('Width').value).toBe('2 1/2 in')
  })
})

describe('a number', () => {
  it('areas are typed in square inches where lengths are inches, and kept in square mm', async () => {
    const tell = vi.fn<(mm2: number) => void>()
    show(<AreaField label="Specks" valueMm2={8} unit="in" min={0} max={500} onChange={tell} />)
    expect(field('Specks').value).toBe('0.0124')
    await type('Specks', '0.5')
    expect(tell.mock.lastCall![0]).toBeCloseTo(0.5 * 645.16, 9)
    await type('Specks', '2')
    expect(the('alert').textContent).toContain('Between 0 and 0.775.')
  })

  it.each([
    ['3,5', false, 3.5],
    [' 7 ', false, 7],
    ['1e1', false, 10],
    ['4', true, 4],
  ])('is read: “%s”', async (text, whole, value) => {
    const tell = vi.fn()
    show(<NumberField label="Count" value={1} min={0} max={10} whole={whole} onChange={tell} />)
    await type('Count', text)
    expect(tell).toHaveBeenCalledExactlyOnceWith(value)
  })

  it.each([
    ['some', false, 'Type a number.'],
    ['1/0', false, 'Type a number.'],
    ['Infinity', false, 'Type a number.'],
    ['2.5', true, 'Type a whole number.'],
    ['11', true, 'Between 0 and 10.'],
    ['-1', false, 'Between 0 and 10.'],
  ])('that cannot be says why: “%s”', async (text, whole, why) => {
    const tell = vi.fn()
    show(<NumberField label="Count" value={1} min={0} max={10} whole={whole} unitHint="g" onChange={tell} />)
    await type('Count', text)
    expect(the('alert').textContent).toContain(why)
    // What is wrong is what it is described by.
    expect(document.getElementById(field('Count').getAttribute('aria-describedby')!)).toBe(the('alert'))
    expect(tell).not.toHaveBeenCalled()
  })
})

describe('fields of a schema', () => {
  const schema = z
    .object({
      form: z.enum(['square', 'round']),
      widthMm: z.number().min(1).max(300),
      heightMm: z.number().min(1).max(300),
      count: z.number().int(),
      isOpen: z.boolean(),
    })
    .refine(({ widthMm, heightMm }) => heightMm <= 2 * widthMm, {
      path: ['heightMm'],
      message: 'At most twice as high as wide.',
    })
  type Thing = z.infer<typeof schema>
  const fields = [
    {
      key: 'form',
      kind: 'choice',
      label: 'Form',
      options: [
        { value: 'square', label: 'square' },
        { value: 'round', label: 'round' },
      ],
    },
    { key: 'widthMm', kind: 'length', label: 'Width' },
    { key: 'heightMm', kind: 'length', label: 'Height', when: ({ form }: Thing) => form === 'square' },
    { key: 'count', kind: 'whole', label: 'How many', min: 1, max: 9 },
    { key: 'isOpen', kind: 'switch', label: 'open at the side' },
  ] as const

  function Thingy({ tell }: { tell: (thing: Thing) => void }) {
    const [thing, setThing] = useState<Thing>({
      form: 'square',
      widthMm: 40,
      heightMm: 60,
      count: 2,
      isOpen: false,
    })
    const keep = (next: Thing) => {
      tell(next)
      setThing(next)
    }
    return <SchemaFields value={thing} unit="mm" schema={schema} fields={fields} onChange={keep} />
  }

  it('hand on what the schema allows, whole', async () => {
    const tell = vi.fn()
    show(<Thingy tell={tell} />)
    await type('Width', '50')
    await waitFor(() =>
      expect(tell).toHaveBeenLastCalledWith(expect.objectContaining({ widthMm: 50, heightMm: 60 })),
    )
    await press('open at the side', 'switch')
    await waitFor(() =>
      expect(tell).toHaveBeenLastCalledWith(expect.objectContaining({ isOpen: true, widthMm: 50 })),
    )
    await type('How many', '7')
    await waitFor(() => expect(tell).toHaveBeenLastCalledWith(expect.objectContaining({ count: 7 })))
  })

  it('say what the schema does not allow beside the field that it is about', async () => {
    const tell = vi.fn()
    show(<Thingy tell={tell} />)
    await type('Height', '90')
    await waitFor(() => expect(the('alert').textContent).toContain('At most twice as high as wide.'))
    expect(the('alert').parentElement!.contains(field('Height'))).toBe(true)
    expect(tell).not.toHaveBeenCalled()
    await type('Height', '70')
    await waitFor(() => expect(tell).toHaveBeenLastCalledWith(expect.objectContaining({ heightMm: 70 })))
    await waitFor(() => expect(all('alert')).toEqual([]))
  })

  it('are there only where they mean something', async () => {
    show(<Thingy tell={() => undefined} />)
    await press('round', 'radio')
    await waitFor(() => expect(all('field', 'Height')).toEqual([]))
    await press('square', 'radio')
    await waitFor(() => expect(field('Height').value).toBe('60'))
  })
})

describe('one of some', () => {
  const papers = [
    { value: 'chalk', label: 'Chalk', group: 'white' },
    { value: 'shell', label: 'Shell', group: 'white' },
    { value: 'slate', label: 'Slate', group: 'dark' },
  ] as const

  it('is picked from a list, by mouse and by letters', async () => {
    const tell = vi.fn()
    show(<Select label="Paper" value="chalk" options={papers} onChange={tell} />)
    expect(the('combobox', 'Paper').textContent).toBe('Chalk')
    await choose('Paper', 'Slate')
    expect(tell).toHaveBeenLastCalledWith('slate')
    the('combobox', 'Paper').focus()
    await user.keyboard('sh')
    await waitFor(() => expect(tell).toHaveBeenLastCalledWith('shell'))
  })

  it('draws its list only when somebody comes near, under the names of its groups', async () => {
    show(<Select label="Paper" value="" hint="choose one" options={papers} onChange={() => undefined} />)
    expect(document.body.textContent).toContain('choose one')
    expect(all('option')).toEqual([])
    the('combobox', 'Paper').focus()
    await user.keyboard('{Enter}')
    await waitFor(() =>
      expect(all('option').map((one) => one.textContent)).toEqual(['Chalk', 'Shell', 'Slate']),
    )
    expect(document.querySelector('[role=listbox]')!.textContent).toMatch(/white.*dark/)
    await user.keyboard('{Escape}')
    await waitFor(() => expect(document.querySelector('[role=listbox]')).toBeNull())
  })

  it('of a few in sight is never none', async () => {
    const tell = vi.fn()
    const options = [
      { value: 'a', label: 'thin' },
      { value: 'b', label: 'thick', title: 'two sheets' },
    ]
    show(<Choice label="Card" captioned hint="of the back" value="a" options={options} onChange={tell} />)
    expect(document.body.textContent).toContain('Card (of the back)')
    await press('thin', 'radio')
    expect(tell).not.toHaveBeenCalled()
    await press('thick', 'radio')
    expect(tell).toHaveBeenCalledExactlyOnceWith('b')
    expect(the('radio', 'thin').getAttribute('aria-checked')).toBe('true')
  })
})

describe('yes and no', () => {
  it.each([
    ['switch', 'coloured'],
    ['checkbox', 'coloured'],
  ] as const)('by a %s, with mouse and keys', async (kind, label) => {
    const tell = vi.fn()
    const Part = kind === 'switch' ? Switch : Checkbox
    show(<Part label={label} checked={false} onChange={tell} />)
    await press(label, kind)
    expect(tell).toHaveBeenLastCalledWith(true)
    show(<Part label={label} checked onChange={tell} />)
    the(kind, label).focus()
    await user.keyboard(' ')
    expect(tell).toHaveBeenLastCalledWith(false)
  })

  it('by the words beside a switch', async () => {
    const tell = vi.fn()
    show(<Switch label="pressed on" checked={false} onChange={tell} />)
    await user.click(document.querySelector('label')!)
    expect(tell).toHaveBeenCalledExactlyOnceWith(true)
  })
})

describe('what folds', () => {
  it('is not there until it is opened, and what stands beside the title folds nothing', async () => {
    const beside = vi.fn()
    show(
      <Fold title="Mat and pane" beside={<button onClick={beside}>next</button>}>
        <p>inside</p>
      </Fold>,
    )
    const button = the('button', 'Mat and pane')
    expect(document.body.textContent).not.toContain('inside')
    await press('next')
    expect(beside).toHaveBeenCalledOnce()
    expect(button.getAttribute('aria-expanded')).toBe('false')
    await user.click(button)
    expect(button.getAttribute('aria-expanded')).toBe('true')
    expect(document.getElementById(button.getAttribute('aria-controls')!)!.textContent).toBe('inside')
    await user.click(button)
    expect(document.body.textContent).not.toContain('inside')
  })

  it('is opened and closed by whoever holds it', async () => {
    const tell = vi.fn()
    show(
      <Fold title="Held" open={false} onOpenChange={tell}>
        inside
      </Fold>,
    )
    await press('Held')
    expect(tell).toHaveBeenLastCalledWith(true)
    expect(document.body.textContent).not.toContain('inside')
    show(
      <Fold title="Held" open onOpenChange={tell}>
        inside
      </Fold>,
    )
    expect(document.body.textContent).toContain('inside')
  })

  it('of a figure is what it rests on', async () => {
    show(
      <Figures>
        <Figure name="Weight" value="12.5 g" basis="area times the weight of its paper" alarm />
        <Figure name="Pieces" value="3" />
      </Figures>,
    )
    expect(all('button')).toHaveLength(1)
    await press('Weight')
    expect(document.body.textContent).toContain('area times the weight of its paper.')
    expect(the('button', 'Weight').closest('div')!.querySelector('dd')!.textContent).toContain('12.5 g')
    await press('Weight')
    expect(document.body.textContent).not.toContain('area times')
  })
})

describe('a tip', () => {
  it('describes what has one, and leaves alone what has none', async () => {
    show(
      <>
        <Tip text="more of it">
          <button>with</button>
        </Tip>
        <Tip text={undefined}>
          <button>without</button>
        </Tip>
      </>,
    )
    the('button', 'with').focus()
    await waitFor(() => expect(document.querySelector('[role=tooltip]')?.textContent).toBe('more of it'))
    the('button', 'without').focus()
    await waitFor(() => expect(document.querySelector('[role=tooltip]')).toBeNull())
  })
})

describe('a colour', () => {
  it('is told at every shade, or once when it is left', () => {
    const tell = vi.fn()
    show(<ColourInput label="Colour" value="#aa0000" onChange={tell} />)
    const input = () => document.querySelector<HTMLInputElement>('input[type=color]')!
    fireEvent.change(input(), { target: { value: '#00aa00' } })
    expect(tell).toHaveBeenLastCalledWith('#00aa00')
    tell.mockClear()
    show(<ColourInput label="Colour" value="#aa0000" onChange={tell} whenLeft />)
    fireEvent.input(input(), { target: { value: '#0000aa' } })
    fireEvent.input(input(), { target: { value: '#0000bb' } })
    expect(tell).not.toHaveBeenCalled()
    fireEvent.focusOut(input())
    expect(tell).toHaveBeenCalledExactlyOnceWith('#0000bb')
    fireEvent.input(input(), { target: { value: '#aa0000' } })
    fireEvent.focusOut(input())
    expect(tell).toHaveBeenCalledTimes(1)
  })
})

describe('files', () => {
  it('are handed over as they were chosen, the same one twice too, and none where nothing was', async () => {
    const tell = vi.fn()
    show(
      <FileButton label="Drawings" accept=".svg" multiple onFiles={tell}>
        Bring in
      </FileButton>,
    )
    const input = the('file', 'Drawings') as HTMLInputElement
    const chooser = vi.spyOn(input, 'click')
    await press('Bring in')
    expect(chooser).toHaveBeenCalledOnce()
    const drawing = new File(['<svg/>'], 'a.svg')
    await user.upload(input, [drawing, new File(['<svg/>'], 'b.svg')])
    expect(tell.mock.calls[0]![0].map(({ name }: File) => name)).toEqual(['a.svg', 'b.svg'])
    await user.upload(input, drawing)
    expect(tell).toHaveBeenCalledTimes(2)
    fireEvent.change(input, { target: { files: [] } })
    expect(tell).toHaveBeenCalledTimes(2)
  })
})

describe('a table', () => {
  interface Paper {
    name: string
    gsm: number
  }
  const papers: Paper[] = [
    { name: 'Shell', gsm: 216 },
    { name: 'Chalk', gsm: 90 },
    { name: 'Slate 10', gsm: 300 },
    { name: 'Slate 9', gsm: 300 },
  ]
  const columns: DataColumn<Paper>[] = [
    { id: 'name', title: 'paper', value: ({ name }) => name, cell: ({ name }) => name, always: true },
    {
      id: 'gsm',
      title: 'weight',
      unit: 'gsm',
      value: ({ gsm }) => gsm,
      cell: ({ gsm }) => gsm,
      numeric: true,
    },
    { id: 'act', title: 'to do', cell: ({ name }) => <button>bin {name}</button> },
  ]
  const Papers = ({ rows = papers, filter = '' }: { rows?: Paper[]; filter?: string }) => (
    <DataTable
      label="Papers"
      rows={rows}
      columns={columns}
      rowId={({ name }) => name}
      rowProps={({ name }) => ({ 'data-paper': name })}
      sortedBy="name"
      filter={filter}
      toolbar={(shown) => <span data-testid="count">{shown} of them</span>}
    />
  )
  const names = () =>
    [...document.querySelectorAll('[data-paper]')].map((row) => row.getAttribute('data-paper'))

  it('is sorted by a press on a column, numbers as numbers, and the other way at the next', async () => {
    show(<Papers />)
    expect(names()).toEqual(['Chalk', 'Shell', 'Slate 9', 'Slate 10'])
    await press('weightgsm')
    expect(names()[0]).toBe('Chalk')
    await press(/^weightgsm/)
    expect(names().at(-1)).toBe('Chalk')
    const heads = [...document.querySelectorAll('th')].map((head) => head.getAttribute('aria-sort'))
    expect(heads).toEqual(['none', 'descending', 'none'])
    // What has no value is not sorted by.
    expect(all('button', 'to do')).toEqual([])
  })

  it('shows what a text is in, and how many', () => {
    show(<Papers filter="sla" />)
    expect(names()).toEqual(['Slate 9', 'Slate 10'])
    expect(document.querySelector('[data-testid=count]')!.textContent).toBe('2 of them')
    show(<Papers filter="216" />)
    expect(names()).toEqual(['Shell'])
    // What only a button says is not searched.
    show(<Papers filter="bin" />)
    expect(names()).toEqual([])
  })

  it('hides columns, but not those that must stay', async () => {
    show(<Papers />)
    await press('Columns of Papers')
    const items = await waitFor(() => {
      const found = all('menuitem')
      expect(found).toHaveLength(2)
      return found
    })
    await user.click(items[0]!)
    expect([...document.querySelectorAll('th')].map((head) => head.textContent)).toEqual(['paper ▴', 'to do'])
    expect(document.querySelector('[data-paper=Shell]')!.textContent).toBe('Shellbin Shell')
  })

  it('of many rows draws those in sight, and says how many there are', () => {
    const rows = Array.from({ length: 4000 }, (_, i) => ({ name: `Paper ${i}`, gsm: 100 + i }))
    show(<Papers rows={rows} />)
    expect(names().length).toBeLessThan(150)
    expect(document.querySelector('table')!.getAttribute('aria-rowcount')).toBe('4001')
  })
})
