import { toast } from 'sonner'
import {
  coverWithPrint,
  LIMITS,
  mapOfPrint,
  pictureOf,
  placeOfPrint,
  printDpi,
  printOn,
  setLayer,
  takeOffPrint,
  type Layer,
  type PrintPlace,
} from '@feuillet/core/project'
import { FINE_DPI } from '@feuillet/core/stages/layers'
import { formatSize } from '@feuillet/core/base/units'
import { change } from '../../../state/edits'
import { selectProject, selectUnit, selectView } from '../../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../../state/store'
import { looked } from '../../../state/view'
import {
  ACCEPTS,
  Button,
  Figure,
  Figures,
  FileButton,
  Heading,
  LengthField,
  NumberField,
  Switch,
} from '../../../ui'
import { readPicture } from './read-picture'

/** What the picked layer is printed with, and where the picture lies on it. */
export function PrintPanel({ layer }: { layer: Layer }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const { printing } = useAppSelector(selectView)
  const { print } = layer
  const picture = pictureOf(project, layer)
  const take = async (file: File) => {
    const read = await readPicture(file)
    if (typeof read === 'string') toast.error(`${file.name}: ${read}.`)
    else dispatch(change(`print a picture on ${layer.name}`, (p) => printOn(p, layer.id, read)))
  }
  const chooser = (
    <FileButton
      small
      label="Picture to print"
      accept={ACCEPTS.picture}
      onFiles={([file]) => file && void take(file)}
    >
      {print ? 'Another picture' : 'Print a picture on it'}
    </FileButton>
  )
  if (!print || !picture) return <Heading title="Print">{chooser}</Heading>
  const place = placeOfPrint(print.map, picture)
  const put = (label: string, patch: Partial<PrintPlace>) =>
    dispatch(
      change(`${label} the picture on ${layer.name}`, (p) =>
        setLayer(p, layer.id, { print: { ...print, map: mapOfPrint({ ...place, ...patch }, picture) } }),
      ),
    )
  const dpi = printDpi(print.map)
  return (
    <Heading title="Print">
      <div className="grid gap-2">
        <Switch
          label="Move the picture, not the card"
          title="Drag it on the board, or use arrows, R and M"
          checked={printing}
          onChange={(on) => dispatch(looked({ printing: on, placing: false, bits: false, apart: false }))}
        />
        <LengthField
          label="Its middle, from the left"
          valueMm={place.middle.x}
          unit={unit}
          min={-5000}
          onChange={(x) => put('move', { middle: { ...place.middle, x } })}
        />
        <LengthField
          label="Its middle, from the top"
          valueMm={place.middle.y}
          unit={unit}
          min={-5000}
          onChange={(y) => put('move', { middle: { ...place.middle, y } })}
        />
        <LengthField
          label="Width of the picture"
          valueMm={place.widthMm}
          unit={unit}
          min={1}
          onChange={(widthMm) => put('scale', { widthMm })}
        />
        <NumberField
          label="Turned by"
          unitHint="°"
          value={Math.round(place.turnDeg * 10) / 10}
          min={-360}
          max={360}
          onChange={(turnDeg) => put('turn', { turnDeg })}
        />
        <LengthField
          label="Bleed, 0 for a white edge"
          valueMm={print.bleedMm}
          unit={unit}
          max={LIMITS.bleedMm[1]}
          onChange={(bleedMm) =>
            dispatch(
              change(`bleed of ${layer.name}`, (p) =>
                setLayer(p, layer.id, { print: { ...print, bleedMm } }),
              ),
            )
          }
        />
        <Figures>
          <Figure
            name="Fineness"
            value={`${Math.round(dpi)} dpi`}
            basis={`${picture.pixelsWide} × ${picture.pixelsHigh} pixels over ${formatSize(place.widthMm, place.heightMm, unit)}; under ${FINE_DPI} grain shows`}
          />
        </Figures>
        <div className="flex flex-wrap gap-2">
          <Button
            small
            onClick={() => dispatch(change(`cover ${layer.name}`, (p) => coverWithPrint(p, layer.id)))}
            title="As small as covers the card and its bleed"
          >
            Cover the card
          </Button>
          {chooser}
          <Button
            small
            onClick={() => dispatch(change(`plain ${layer.name}`, (p) => takeOffPrint(p, layer.id)))}
          >
            No picture
          </Button>
        </div>
      </div>
    </Heading>
  )
}
