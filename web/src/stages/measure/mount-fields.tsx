// What was measured of what the work will live in: a table of fields for each kind, checked by the mount's schema.
import {
  CAKES,
  changeKind,
  LIMITS,
  mountSchema,
  STICKS_MM,
  type Mount,
  type MountKind,
} from '@feuillet/core/project'
import { change } from '../../state/edits'
import { selectProject, selectUnit } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, Fold, SchemaFields, SelectField, type SchemaField } from '../../ui'
import { FromTheDrawer, MeasuredBefore } from './measured-before'
import { kindNames } from './kinds'

type Field = SchemaField<Mount>
type Of<K extends MountKind> = Extract<Mount, { kind: K }>

const SIDE = { min: 1, max: 2000 } as const
const length = (key: string, label: string, range: { min?: number; max?: number } = {}): Field => ({
  kind: 'length',
  key,
  label,
  min: 0,
  max: 2000,
  ...range,
})

/** What every maker measures, and what is measured where it matters, under a name of its own. */
interface Sections {
  first: readonly Field[]
  more: readonly { title: string; fields: readonly Field[] }[]
}

const AIR = length('airMm', 'Air round the design')
const HEIGHT = length('depthMm', 'Height it may have', SIDE)
const hasMat = (mount: Mount) => (mount as Of<'frame'>).mat !== null
const hasPane = (mount: Mount) => (mount as Of<'frame'>).pane.kind !== 'none'

const SECTIONS: Record<MountKind, Sections> = {
  frame: {
    first: [
      length('spacer.widthMm', 'Spacer width', SIDE),
      length('spacer.heightMm', 'Spacer height', SIDE),
      length('opening.widthMm', 'Opening width', SIDE),
      length('opening.heightMm', 'Opening height', SIDE),
      length('depthMm', 'Depth', SIDE),
      length('clearanceMm', 'Clearance to glazing'),
      AIR,
    ],
    more: [
      {
        title: 'Spacer ring',
        fields: [
          { kind: 'switch', key: 'ring.kept', label: 'Kept in the frame' },
          length('ring.wallMm', 'Its wall, 0 if not measured', { max: 200 }),
          length('ring.heightMm', 'Its height, 0 for the depth', { max: 500 }),
        ],
      },
      {
        title: 'Where the opening sits',
        fields: [
          length('openingShift.xMm', 'To the right of the middle', { min: -500, max: 500 }),
          length('openingShift.yMm', 'Below the middle', { min: -500, max: 500 }),
        ],
      },
      {
        title: 'Mat, pane, back',
        fields: [
          { ...length('mat.opening.widthMm', 'Mat’s opening, width', SIDE), when: hasMat },
          { ...length('mat.opening.heightMm', 'Mat’s opening, height', SIDE), when: hasMat },
          { ...length('mat.thicknessMm', 'Mat’s thickness', { min: 0.1, max: 20 }), when: hasMat },
          {
            kind: 'select',
            key: 'pane.kind',
            label: 'Pane',
            options: [
              { value: 'glass', label: 'glass' },
              { value: 'plastic', label: 'plastic' },
              { value: 'none', label: 'none' },
            ],
          },
          { ...length('pane.thicknessMm', 'Pane’s thickness', { min: 0.1, max: 20 }), when: hasPane },
          {
            kind: 'select',
            key: 'back',
            label: 'Back',
            options: [
              { value: 'board', label: 'board' },
              { value: 'fabric', label: 'fabric on board' },
            ],
          },
          {
            kind: 'select',
            key: 'hanger',
            label: 'Hanger',
            options: [
              { value: 'none', label: 'none' },
              { value: 'ring', label: 'ring' },
              { value: 'wire', label: 'wire' },
              { value: 'stand', label: 'stand' },
            ],
          },
        ],
      },
    ],
  },
  card: {
    first: [
      length('panel.widthMm', 'Panel width', SIDE),
      length('panel.heightMm', 'Panel height', SIDE),
      HEIGHT,
      AIR,
    ],
    more: [],
  },
  panel: {
    first: [
      length('panel.widthMm', 'Panel width', SIDE),
      length('panel.heightMm', 'Panel height', SIDE),
      {
        kind: 'select',
        key: 'surface',
        label: 'Made of',
        options: [
          { value: 'canvas', label: 'canvas on a frame' },
          { value: 'wood', label: 'wood' },
        ],
      },
      length('edgeMm', 'Edge, from the wall', { max: 200 }),
      HEIGHT,
      AIR,
    ],
    more: [],
  },
  topper: {
    first: [
      length('widthMm', 'Topper width', SIDE),
      HEIGHT,
      { kind: 'whole', key: 'sticks', label: 'Sticks', min: LIMITS.sticks[0], max: LIMITS.sticks[1] },
      {
        kind: 'select',
        key: 'stick.kind',
        label: 'Kind of stick',
        options: [
          { value: 'toothpick', label: 'toothpick' },
          { value: 'skewer', label: 'skewer' },
          { value: 'dowel', label: 'dowel' },
          { value: 'flat', label: 'flat stick' },
          { value: 'own', label: 'another' },
        ],
      },
      length('stick.widthMm', 'Its width', { min: 0.5, max: 40 }),
      length('stick.aboveMm', 'Seen above the cake', { max: 500 }),
      length('stick.inMm', 'In the cake', { max: 500 }),
    ],
    more: [
      {
        title: 'What it stands in',
        fields: [
          {
            kind: 'select',
            key: 'cake.kind',
            label: 'Kind',
            options: [
              { value: 'cake', label: 'cake' },
              { value: 'cupcake', label: 'cupcake' },
            ],
          },
          length('cake.diameterMm', 'Across', { min: 10, max: 1000 }),
          length('cake.heightMm', 'High', { min: 5, max: 1000 }),
        ],
      },
    ],
  },
  garland: {
    first: [
      { kind: 'whole', key: 'flags', label: 'Flags', min: LIMITS.flags[0], max: LIMITS.flags[1] },
      length('gapMm', 'Between flags'),
      length('endsMm', 'Free at each end'),
    ],
    more: [],
  },
  free: { first: [], more: [] },
}

/** What changes with something else: a kind of stick has its width, a cake its size. */
function settled(before: Mount, after: Mount): Mount {
  if (before.kind !== 'topper' || after.kind !== 'topper') return after
  const { stick, cake } = after
  if (stick.kind !== before.stick.kind && stick.kind !== 'own')
    return { ...after, stick: { ...stick, widthMm: STICKS_MM[stick.kind] } }
  if (stick.widthMm !== before.stick.widthMm && stick.kind !== 'own')
    return { ...after, stick: { ...stick, kind: 'own' } }
  if (cake.kind !== before.cake.kind)
    return { ...after, cake: { ...(cake.kind === 'cupcake' ? CAKES.cupcake : CAKES.middle) } }
  return after
}

export function MountFields({ mount }: { mount: Mount }) {
  const dispatch = useAppDispatch()
  const unit = useAppSelector(selectUnit)
  const project = useAppSelector(selectProject)
  const set = (label: string, next: Mount) => dispatch(change(label, (p) => ({ ...p, mount: next })))
  const draw = (fields: readonly Field[]) => (
    <div className="grid gap-1.5">
      <SchemaFields
        key={mount.kind}
        value={mount}
        unit={unit}
        schema={mountSchema}
        fields={fields}
        onChange={(next) => set('a measure', settled(mount, next))}
      />
    </div>
  )
  const { first, more } = SECTIONS[mount.kind]
  return (
    <div className="grid gap-2.5">
      <SelectField
        label="It will live in"
        value={mount.kind}
        options={kindNames.map(({ kind, title }) => ({ value: kind, label: title.toLowerCase() }))}
        onChange={(kind) => dispatch(change(`make it ${kindWord(kind)}`, (p) => changeKind(p, kind)))}
      />
      <FromTheDrawer mount={mount} />
      <MeasuredBefore mount={mount} />
      {first.length > 0 ? draw(first) : <p className="text-soft">Nothing limits this work.</p>}
      {mount.kind === 'topper' && (
        <div className="flex flex-wrap gap-2">
          {Object.entries(CAKES).map(([name, cake]) => (
            <Button key={name} small onClick={() => set('the cake', { ...mount, cake: { ...cake } })}>
              {name === 'cupcake' ? 'cupcake' : `${name} cake`}
            </Button>
          ))}
        </div>
      )}
      {more.map(({ title, fields }) => (
        <Fold key={title} title={title}>
          <div className="grid gap-2 pt-1.5">
            {draw(fields)}
            {title === 'Mat, pane, back' && mount.kind === 'frame' && (
              <Button
                small
                onClick={() =>
                  set(mount.mat ? 'no mat' : 'a mat', {
                    ...mount,
                    mat: mount.mat
                      ? null
                      : {
                          opening: {
                            widthMm: Math.max(1, mount.opening.widthMm - 30),
                            heightMm: Math.max(1, mount.opening.heightMm - 30),
                          },
                          thicknessMm: 1.4,
                        },
                  })
                }
              >
                {mount.mat ? 'Take the mat out' : 'Put a mat in'}
              </Button>
            )}
          </div>
        </Fold>
      ))}
      {mount.kind === 'garland' && (
        <p className="text-[13px] text-soft">
          {project.grown.some(({ recipe }) => recipe.kind === 'garland')
            ? 'The layers show all of its flags; “Grow layers” adjusts them.'
            : `${project.layers.length} ${project.layers.length === 1 ? 'layer makes' : 'layers make'} up a flag.`}
        </p>
      )}
    </div>
  )
}

const kindWord = (kind: MountKind): string => (kind === 'free' ? 'free work' : `a ${kind}`)
