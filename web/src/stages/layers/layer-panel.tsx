import { toast } from 'sonner'
import {
  bearsNumber,
  builtLayers,
  colourOf,
  folioOf,
  layerBox,
  moveLayer,
  paperOf,
  removeLayer,
  ROLES,
  setLayer,
  type Project,
} from '@feuillet/core/project'
import { formatArea, formatLength, formatShare, formatSize } from '@feuillet/core/base/units'
import { usePlan } from '../../plan'
import { change, changeApart } from '../../state/edits'
import { selectLayer, selectProject, selectUnit } from '../../state/selectors'
import { SpoilsNote } from '../../shell/spoils-note'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { pickedLayer } from '../../state/view'
import { Button, Figure, Figures, FolioTab, Heading, NumberField, Switch, SelectField } from '../../ui'
import { editor } from '../../workers'
import { PrintPanel } from './prints/print-panel'
import { ReshapePanel } from './reshape/reshape-panel'
import { ShapeTools } from './reshape/shape-tools'
import { SoundPanel } from './sound-panel'

/** The picked layer: its name, role, figures, and what can be done to it. */
const SHARING = [
  { value: 'any', label: 'with others' },
  { value: 'one-sheet', label: 'all on one sheet' },
  { value: 'own-sheets', label: 'with no other layer' },
] as const

const LIVES = [
  { value: 'stack', label: 'in the stack' },
  { value: 'behind-pane', label: 'behind the pane' },
  { value: 'on-pane', label: 'on the pane' },
] as const

export function LayerPanel() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const layer = useAppSelector(selectLayer)
  const built = layer && !layer.leftOut ? layer.id : null
  const figures = usePlan('figures', layer?.id ?? null)
  const seen = usePlan('visible', built)
  const sound = usePlan('sound', built)
  if (!layer) return null
  const layers = builtLayers(project)
  const below = layers[layers.indexOf(layer) - 1]
  const set = (label: string, patch: Partial<typeof layer>) =>
    dispatch(change(label, (p) => setLayer(p, layer.id, patch)))
  const mergeDown = () => {
    if (!below) return
    const ids = [below.id, layer.id]
    const merge = (p: Project) => editor.ask((api) => api.merge(p, ids))
    void dispatch(changeApart(`merge ${layer.name} into ${below.name}`, merge))
  }
  const tie = () => {
    if (!sound) return
    const action = { kind: 'bridge-layer' as const, layerId: layer.id, safeMm: sound.safeMm }
    const mend = (p: Project) => editor.ask((api) => api.mend(p, [action], []))
    void dispatch(changeApart(`tie the loose bits of ${layer.name}`, mend))
  }
  const index = project.layers.indexOf(layer)
  return (
    <>
      <div className="mb-3 flex items-center gap-3">
        <FolioTab folio={folioOf(project, layer.id)} colour={colourOf(project, layer)} size={42} />
        <div className="min-w-0 flex-1">
          <input
            key={`${layer.id} ${layer.name}`}
            aria-label="Name"
            className="w-full text-[15px] font-semibold"
            defaultValue={layer.name}
            onBlur={(event) =>
              event.target.value.trim() &&
              event.target.value !== layer.name &&
              set(`rename ${layer.name}`, { name: event.target.value.trim() })
            }
            onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
          />
          <p className="text-[13px] text-soft">{paperOf(project, layer)?.name ?? 'no paper yet'}</p>
        </div>
      </div>
      <Heading title="Shape">
        {figures ? (
          <Figures>
            <Figure name="Pieces" value={figures.pieces} />
            <Figure
              name="Loose bits to keep"
              value={figures.looseBits.length}
              basis="Pieces that come free of the sheet: all but one that is more than half of the layer"
            />
            <Figure name="Openings" value={figures.openings} />
            {figures.pieces > 0 && (
              <Figure
                name="Size"
                value={formatSize(
                  figures.box.maxX - figures.box.minX,
                  figures.box.maxY - figures.box.minY,
                  unit,
                )}
              />
            )}
            {layer.blanks.map((blank, i) => {
              const b = layerBox({ pieces: [blank] })
              return (
                <Figure
                  key={blank.id}
                  name={layer.blanks.length > 1 ? `Cut flat, part ${i + 1}` : 'Cut flat'}
                  value={formatSize(b.maxX - b.minX, b.maxY - b.minY, unit)}
                  basis="What the sheets hold; the drawing shows what it becomes"
                />
              )
            })}
            <Figure
              name="Card"
              value={formatArea(figures.areaMm2, unit)}
              basis="Area of all pieces, openings taken away"
            />
            <Figure name="Outline to cut" value={formatLength(figures.outlineMm, unit)} />
            {seen && (
              <Figure
                name="Shows from the front"
                value={`${formatArea(seen.visibleMm2, unit)} · ${formatShare(seen.areaMm2 ? seen.visibleMm2 / seen.areaMm2 : 0)}`}
                basis="The layer less all above it, inside the opening"
              />
            )}
          </Figures>
        ) : (
          <p className="text-soft">Computing…</p>
        )}
      </Heading>
      {sound && <SoundPanel sound={sound} numbered={bearsNumber(layer)} />}
      <Heading title="Part it plays">
        <div className="grid gap-1.5">
          <SelectField
            label="Role"
            className="w-36"
            value={layer.role}
            options={ROLES.map((role) => ({ value: role, label: role }))}
            onChange={(role) => set(`role of ${layer.name}`, { role })}
          />
          <NumberField
            label="Copies to cut"
            value={layer.copies}
            min={1}
            max={200}
            whole
            onChange={(copies) => set(`copies of ${layer.name}`, { copies })}
          />
          <NumberField
            label="Spares of small bits"
            value={layer.spares}
            min={0}
            max={50}
            whole
            onChange={(spares) => set(`spares of ${layer.name}`, { spares })}
          />
          <SpoilsNote
            what="shape, size or paper"
            of={[layer.id]}
            but="Moving and turning does not, nor what is done to other pieces."
          />
          <SelectField
            label="On the sheets"
            className="w-36"
            value={layer.sharing}
            options={SHARING}
            onChange={(sharing) => set(`sheets of ${layer.name}`, { sharing })}
          />
          {project.mount.kind === 'frame' && (
            <SelectField
              label="Where it is"
              className="w-36"
              value={layer.lives}
              options={LIVES}
              onChange={(lives) =>
                set(`place of ${layer.name}`, { lives, cutMirrored: lives === 'behind-pane' })
              }
            />
          )}
          <Switch
            label="Cut in the mirror"
            title="Drawn as it is seen; for film behind glass, or pressed on by heat"
            checked={layer.cutMirrored}
            onChange={(cutMirrored) => set(`mirror ${layer.name} on the sheet`, { cutMirrored })}
          />
          <Switch
            label="Bears its number"
            checked={bearsNumber(layer)}
            onChange={(numbered) => set(`number of ${layer.name}`, { numbered })}
          />
          <Switch
            label="Optional: reads without it too"
            checked={layer.optional}
            onChange={(optional) =>
              set(`optional ${layer.name}`, { optional, leftOut: optional && layer.leftOut })
            }
          />
          {layer.optional && (
            <Switch
              label="Leave it out this time"
              checked={layer.leftOut}
              onChange={(leftOut) => set(`${leftOut ? 'leave out' : 'take in'} ${layer.name}`, { leftOut })}
            />
          )}
        </div>
      </Heading>
      <div className="flex flex-wrap gap-2 pb-3">
        <Button
          small
          disabled={index >= project.layers.length - 1}
          onClick={() => dispatch(change('move a layer', (p) => moveLayer(p, layer.id, index + 1)))}
          title="Key ]"
        >
          Forward
        </Button>
        <Button
          small
          disabled={index <= 0}
          onClick={() => dispatch(change('move a layer', (p) => moveLayer(p, layer.id, index - 1)))}
          title="Key ["
        >
          Back
        </Button>
        <Button
          small
          disabled={!below || below.blanks.length + layer.blanks.length > 0}
          onClick={mergeDown}
          title={below ? `Makes one layer of this and “${below.name}”` : 'Nothing is beneath'}
        >
          Merge with below
        </Button>
        {figures && figures.looseBits.length > 0 && sound && layer.blanks.length === 0 && (
          <Button
            small
            onClick={tie}
            title={`Strips ${formatLength(sound.safeMm, unit)} wide by the shortest way, where layers above hide them if that can be`}
          >
            Tie loose bits
          </Button>
        )}
        <Button
          small
          onClick={() => {
            dispatch(change(`remove ${layer.name}`, (p) => removeLayer(p, layer.id)))
            dispatch(pickedLayer(null))
            toast(`“${layer.name}” is gone. Ctrl+Z brings it back.`)
          }}
        >
          Remove
        </Button>
      </div>
      {layer.blanks.length === 0 && <PrintPanel layer={layer} />}
      <ReshapePanel layer={layer} />
      <ShapeTools layer={layer} />
    </>
  )
}
