import type { Unseen } from '@feuillet/core/io/read'
import { Progress } from 'radix-ui'
import { toast } from 'sonner'
import { useWords } from '../../../state/use-words'
import { ACCEPTS, Button, Choice, FileInput, LengthField, SelectField, Switch } from '../../../ui'
import { unitChoices, unitNamed, type Untold } from './file-units'
import { PickDrawings } from './pick-drawings'
import type { useIntake } from './use-intake'

/** What came in, what was left out, and how the lines of the drawing are to be read. */
export function IntakeNotes({ intake }: { intake: ReturnType<typeof useIntake> }) {
  const { unit, words } = useWords()
  const { share, notes, options, linesOnly, unseen, leftMarks, untold, packed, canReadAgain } = intake
  if (share !== null)
    return (
      <div className="mb-3 flex items-center gap-3">
        <Progress.Root
          value={Math.round(share * 100)}
          aria-label="Reading the drawing"
          className="h-2.5 flex-1 border border-ink bg-sheet"
        >
          <Progress.Indicator className="h-full bg-plum" style={{ width: `${share * 100}%` }} />
        </Progress.Root>
        <Button small onClick={intake.stop}>
          Stop
        </Button>
      </div>
    )
  if (notes.length === 0 && packed.length === 0) return null
  return (
    <div className="mb-3">
      {notes.map((note, i) => (
        <div
          key={i}
          role={note.bad ? 'alert' : 'status'}
          className={`mb-1 border-l-4 px-3 py-2 text-[13.5px] ${note.bad ? 'border-crimson bg-crimson-pale' : 'border-ink bg-sheet'}`}
        >
          {note.bad && <span aria-hidden>■ </span>}
          {words(note.text)}
        </div>
      ))}
      {packed.length > 0 && <PickDrawings drawings={packed} onPick={(files) => void intake.pick(files)} />}
      {canReadAgain && packed.length === 0 && !notes.every((note) => note.bad) && (
        <div className="mt-2 grid gap-2">
          {untold.map((page) => (
            <UnitChoice
              key={page.kind}
              page={page}
              onChange={(mm) => intake.again({ unitMm: { ...options.unitMm, [page.kind]: mm } })}
            />
          ))}
          {!linesOnly && (
            <LengthField
              label="Lines are card from"
              valueMm={options.hairlineMm}
              unit={unit}
              min={0.01}
              max={20}
              onChange={(hairlineMm) => intake.again({ hairlineMm })}
            />
          )}
          {leftMarks.some((mark) => mark.what === 'text') && (
            <label className="cursor-pointer text-plum underline underline-offset-2">
              Outline the text with a font of yours
              <FileInput
                label="Font for the text"
                accept={ACCEPTS.font}
                className="sr-only"
                onFiles={([file]) => {
                  if (file) void intake.outlineText(file).then((why) => why && toast.error(words(why)))
                }}
              />
            </label>
          )}
          {unseen.map((what) => (
            <Switch
              key={what}
              label={WITH[what]}
              checked={options.unseen.includes(what)}
              onChange={(on) =>
                intake.again({
                  unseen: unseen.filter((one) => (one === what ? on : options.unseen.includes(one))),
                })
              }
            />
          ))}
          {linesOnly && (
            <Choice
              label="What the hairlines are"
              value={options.outlines}
              options={[
                { value: 'pieces', label: 'outlines of pieces' },
                { value: 'lines', label: 'thin lines' },
              ]}
              onChange={(outlines) => intake.again({ outlines })}
            />
          )}
        </div>
      )}
    </div>
  )
}

const WITH: Record<Unseen, string> = {
  hidden: 'With what is hidden in the drawing',
  outside: 'With what lies outside the page',
}

/** What one unit of a drawing is that does not say how large it is, by the size that it makes of it. */
function UnitChoice({ page, onChange }: { page: Untold; onChange: (mm: number) => void }) {
  const { unit } = useWords()
  const choices = unitChoices(page, unit)
  return (
    <SelectField
      label={`One unit of the ${page.kind.toUpperCase()} is`}
      value={choices.find(({ label }) => label === unitNamed(page.unitMm))?.value ?? ''}
      options={choices}
      onChange={(name) => onChange(choices.find(({ value }) => value === name)!.mm)}
      className="w-28"
    />
  )
}
