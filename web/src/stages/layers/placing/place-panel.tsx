// Where the picked parts are, by number, and what can be done with them.
import { useState } from 'react'
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignStartHorizontal,
  AlignStartVertical,
  type LucideIcon,
} from 'lucide-react'
import { polygonBox } from '@feuillet/core/base/geometry'
import {
  alignParts,
  assemble,
  backingRect,
  designBox,
  disassemble,
  findLayer,
  hideAssembly,
  membersOf,
  mirroredCopy,
  nameOfPicked,
  openingRect,
  outermost,
  moveParts,
  repeatAlong,
  repeatRound,
  scaleParts,
  setAssembly,
  spreadParts,
  turnParts,
  unitsOf,
  type Edge,
  type Project,
} from '@feuillet/core/project'
import { doCommand } from '../../../commands/use-command'
import { usePlan } from '../../../plan'
import { change } from '../../../state/edits'
import { selectProject, selectUnit } from '../../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../../state/store'
import { SpoilsNote } from '../../../shell/spoils-note'
import { looked } from '../../../state/view'
import { Button, Fold, Heading, LengthField, NumberField, Switch, Tip } from '../../../ui'
import type { Placing } from './use-placing'

const EDGES: readonly { edge: Edge; words: string; Icon: LucideIcon }[] = [
  { edge: 'left', words: 'Left edges in line', Icon: AlignStartVertical },
  { edge: 'centre', words: 'Middles in line, one below the other', Icon: AlignCenterVertical },
  { edge: 'right', words: 'Right edges in line', Icon: AlignEndVertical },
  { edge: 'top', words: 'Upper edges in line', Icon: AlignStartHorizontal },
  { edge: 'middle', words: 'Middles in line, side by side', Icon: AlignCenterHorizontal },
  { edge: 'bottom', words: 'Lower edges in line', Icon: AlignEndHorizontal },
]

/** The middle of what is seen, or of the design where nothing frames it. */
function frameOf(project: Project) {
  const frame = openingRect(project) ?? backingRect(project)
  return frame ? polygonBox(frame) : designBox(project)
}

export function PlacePanel({ placing }: { placing: Placing }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const {
    ids,
    grips: { box },
  } = placing
  if (ids.length === 0)
    return (
      <Heading title="Place parts">
        <p className="text-soft">
          Press a layer in the drawing, or with Shift several. Then drag it, or use the arrow keys: half a
          millimetre, with Shift five, with Alt a tenth.
        </p>
      </Heading>
    )
  const units = unitsOf(project, ids)
  const middle = { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 }
  const put = (label: string, make: (p: Project) => Project) =>
    dispatch(change(`${label} ${nameOfPicked(project, ids)}`, make))
  const edit = (label: string, make: (p: Project) => Project) => dispatch(change(label, make))
  const width = box.maxX - box.minX
  return (
    <Heading title={nameOfPicked(project, ids)}>
      <div className="grid gap-2">
        <LengthField
          label="Middle, from the left"
          valueMm={middle.x}
          unit={unit}
          min={-5000}
          onChange={(x) => put('move', (p) => moveParts(p, ids, [x - middle.x, 0]))}
        />
        <LengthField
          label="Middle, from the top"
          valueMm={middle.y}
          unit={unit}
          min={-5000}
          onChange={(y) => put('move', (p) => moveParts(p, ids, [0, y - middle.y]))}
        />
        <LengthField
          label="Its width, proportions locked"
          valueMm={width}
          unit={unit}
          min={0.5}
          onChange={(mm) => put('scale', (p) => scaleParts(p, ids, mm / width))}
        />
        <SpoilsNote what="size" of={ids} but="Moving and turning does not." />
        <NumberField
          label="Turn by"
          unitHint="°"
          value={0}
          min={-360}
          max={360}
          onChange={(deg) => put('turn', (p) => turnParts(p, ids, deg))}
        />
        <div className="flex flex-wrap gap-2">
          <Button small title="Left becomes right (M)" onClick={() => doCommand('mirror-part')}>
            Mirror
          </Button>
          <Button small title="Ctrl D" onClick={() => doCommand('copy-part')}>
            Copy
          </Button>
          <Button
            small
            title="A copy with left and right exchanged about the middle of what is seen: the other wing"
            onClick={() => {
              const frame = frameOf(project)
              const copied = mirroredCopy(project, ids, (frame.minX + frame.maxX) / 2)
              edit(`mirrored copy of ${nameOfPicked(project, ids)}`, () => copied.project)
              dispatch(looked({ layerId: copied.layerIds[0] ?? null, alsoIds: copied.layerIds.slice(1) }))
            }}
          >
            Other wing
          </Button>
          <Button
            small
            title="Its middle on the middle of what is seen"
            onClick={() => {
              const frame = frameOf(project)
              put('centre', (p) =>
                moveParts(p, ids, [
                  (frame.minX + frame.maxX) / 2 - middle.x,
                  (frame.minY + frame.maxY) / 2 - middle.y,
                ]),
              )
            }}
          >
            Into the middle
          </Button>
        </div>
        {units.length > 1 && (
          <>
            <div className="flex border border-ink" role="group" aria-label="Line up">
              {EDGES.map(({ edge, words, Icon }) => (
                <Tip key={edge} text={words}>
                  <button
                    type="button"
                    aria-label={words}
                    className="grid flex-1 place-items-center border-l border-ink py-1.5 first:border-l-0 hover:bg-sheet"
                    onClick={() => edit(`line up ${units.length} parts`, (p) => alignParts(p, ids, { edge }))}
                  >
                    <Icon size={16} />
                  </button>
                </Tip>
              ))}
            </div>
            <div className="flex flex-wrap gap-2">
              {(['across', 'down'] as const).map((way) => (
                <Button
                  key={way}
                  small
                  disabled={units.length < 3}
                  title="Even gaps; the outermost stay"
                  onClick={() => edit(`spread ${units.length} parts`, (p) => spreadParts(p, ids, way))}
                >
                  Spread {way}
                </Button>
              ))}
              <Button
                small
                onClick={() =>
                  edit('make one part', (p) =>
                    assemble(p, ids, { id: `part-${crypto.randomUUID().slice(0, 8)}`, name: partName(p) }),
                  )
                }
              >
                Make one part
              </Button>
            </div>
          </>
        )}
        <OwnPart ids={ids} />
        <Repeat ids={ids} />
      </div>
    </Heading>
  )
}

/** "Part 1", "Part 2" … */
const partName = ({ assemblies }: Project): string => {
  let n = assemblies.length + 1
  while (assemblies.some((part) => part.name === `Part ${n}`)) n++
  return `Part ${n}`
}

/** The part that is picked: its name, how it is built, taking it apart. */
function OwnPart({ ids }: { ids: readonly string[] }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const built = usePlan('apart')
  const layer = findLayer(project, ids[0] ?? null)
  const part = layer ? outermost(project, layer) : null
  if (!part || unitsOf(project, ids).length > 1) return null
  const members = membersOf(project, part.id)
  return (
    <div className="grid gap-1.5 border-t border-line pt-2">
      <label className="flex items-center justify-between gap-3">
        <span className="text-soft">Name of the part</span>
        <input
          key={part.name}
          className="w-36"
          defaultValue={part.name}
          onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
          onBlur={(event) => {
            const name = event.target.value.trim()
            if (name && name !== part.name)
              dispatch(change('name a part', (p) => setAssembly(p, part.id, { name })))
          }}
        />
      </label>
      <Switch
        label="Built on the bench"
        checked={part.apart}
        onChange={(apart) =>
          dispatch(change('how a part is built', (p) => setAssembly(p, part.id, { apart })))
        }
      />
      {part.apart && built && !built.includes(part.id) && (
        <p className="text-soft">
          Not as it is: its layers do not all hold each other, or something must come between them. It is
          built layer by layer in its place.
        </p>
      )}
      <Switch
        label="Hidden in drawings"
        checked={members.every((member) => member.hidden)}
        onChange={(hidden) => dispatch(change('hide a part', (p) => hideAssembly(p, part.id, hidden)))}
      />
      <Button
        small
        className="justify-self-start"
        onClick={() => dispatch(change(`take ${part.name} apart`, (p) => disassemble(p, part.id)))}
      >
        Take it apart
      </Button>
    </div>
  )
}

/** Several of it, round a centre or along a line. */
function Repeat({ ids }: { ids: readonly string[] }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const [count, setCount] = useState(6)
  const [step, setStep] = useState({ dx: 20, dy: 0 })
  const name = nameOfPicked(project, ids)
  return (
    <Fold title="Several of it">
      <div className="grid gap-1.5 pt-1.5">
        <NumberField label="How many in all" value={count} min={2} max={60} whole onChange={setCount} />
        <Button
          small
          title="Evenly round the middle of what is seen"
          onClick={() => {
            const frame = frameOf(project)
            const centre = { x: (frame.minX + frame.maxX) / 2, y: (frame.minY + frame.maxY) / 2 }
            dispatch(change(`${count} × ${name}`, (p) => repeatRound(p, ids, { count, centre })))
          }}
        >
          Round the middle
        </Button>
        <LengthField
          label="Each to the right by"
          valueMm={step.dx}
          unit={unit}
          min={-2000}
          onChange={(dx) => setStep({ ...step, dx })}
        />
        <LengthField
          label="Each down by"
          valueMm={step.dy}
          unit={unit}
          min={-2000}
          onChange={(dy) => setStep({ ...step, dy })}
        />
        <Button
          small
          onClick={() =>
            dispatch(change(`${count} × ${name}`, (p) => repeatAlong(p, ids, { count, ...step })))
          }
        >
          Along a line
        </Button>
      </div>
    </Fold>
  )
}
