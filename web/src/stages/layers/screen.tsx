import { lazy, Suspense, useMemo, useRef, useState } from 'react'
import { growBox } from '@feuillet/core/base/geometry'
import { builtLayers, folioOf, viewBox, type Project } from '@feuillet/core/project'
import { selectProject, selectStageSnags, selectUnit, selectView } from '../../state/selectors'
import { useCommand } from '../../commands/use-command'
import { usePlan } from '../../plan'
import { StageFrame } from '../../shell/stage-frame'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { looked, pickedLayer } from '../../state/view'
import { Board } from '../../drawing/board'
import { Pointer, StackDrawing } from '../../drawing/stack'
import { ACCEPTS, Button, FileInput, Switch } from '../../ui'
import { BitsMarks } from './bits/bits-marks'
import { BitsPanel } from './bits/bits-panel'
import { useBits } from './bits/use-bits'
import { LeftMarks } from './intake/left-marks'
import { SoundMarks } from './sound-marks'
import { EmptyLayers } from './empty-layers'
import { IntakeNotes } from './intake/intake-notes'
import { LayerPanel } from './layer-panel'
import { useIntake } from './intake/use-intake'
import { FewerSheets } from './fewer-sheets'
import { VariantsPanel } from './variants-panel'
import { ShowsView } from './shows-view'
import { PlacePanel } from './placing/place-panel'
import { GripMarks } from '../../drawing/grips/grip-marks'
import { PrintSurface } from './prints/print-surface'
import { usePrintPlace } from './prints/use-print-place'
import { usePlacing } from './placing/use-placing'
import { MakerMenu, type MakerStart } from './makers/maker-menu'

const MakerScreen = lazy(() => import('./makers/maker-screen'))

/** A picked layer and the two that it touches; nothing where none is picked. */
function neighbourhood(project: Project, layerId: string | null): ReadonlySet<string> | undefined {
  const layers = builtLayers(project)
  const at = layers.findIndex((layer) => layer.id === layerId)
  return at < 0 ? undefined : new Set(layers.slice(Math.max(0, at - 1), at + 2).map(({ id }) => id))
}

export default function LayersScreen() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const view = useAppSelector(selectView)
  const snags = useAppSelector((state) => selectStageSnags(state, 'layers'))
  const picker = useRef<HTMLInputElement>(null)
  const intake = useIntake()
  const [maker, setMaker] = useState<MakerStart | null>(null)
  const [showing, setShowing] = useState(false)
  const chosen = project.layers.find((layer) => layer.id === view.layerId)
  const built = chosen && !chosen.leftOut ? chosen.id : null
  const sound = usePlan('sound', built)
  const weakPaths = usePlan('weakPaths', built)
  const looseBits = usePlan('figures', chosen?.id ?? null)?.looseBits ?? []
  const shown = shownLayers(project, view.only ? view.layerId : null)
  const strong = useMemo(
    () => (view.apart ? undefined : neighbourhood(project, view.layerId)),
    [view.apart, project, view.layerId],
  )
  const box = viewBox(project)
  const placing = usePlacing(view.placing && !view.apart && project.layers.length > 0)
  const isWhole = chosen?.blanks.length === 0
  const bits = useBits(view.bits && !view.placing && !view.apart && isWhole, {
    layer: chosen,
    sound,
    weakPaths,
  })
  const printing = usePrintPlace(view.printing && !view.placing && !view.bits && !view.apart, chosen)
  const grips = placing.on ? placing.grips : (printing?.grips ?? null)
  useCommand('place-parts', () => dispatch(looked({ placing: !view.placing, bits: false, apart: false })), {
    enabled: project.layers.length > 0,
  })
  useCommand('single-pieces', () => dispatch(looked({ bits: !view.bits, placing: false, apart: false })), {
    enabled: project.layers.length > 0,
  })
  const apart = view.apart ? Math.max(2, (box.maxX - box.minX) / Math.max(8, shown.length * 2.2)) : 0
  const room = growBox(box, (box.maxX - box.minX) * 0.02)
  const spread = apart * Math.max(0, shown.length - 1)
  if (maker)
    return (
      <Suspense fallback={<p className="p-6 text-soft">Opening…</p>}>
        <MakerScreen start={maker.recipe} grownId={maker.grownId} onClose={() => setMaker(null)} />
      </Suspense>
    )
  return (
    <StageFrame
      title="Layers"
      lead={
        project.layers.length
          ? `${builtLayers(project).length} layers, back to front; the first is at the back.`
          : 'Bring in a drawing: its groups or colours become layers.'
      }
      snags={{
        list: snags,
        none: project.layers.length ? 'Nothing too weak, too small or hidden.' : 'Nothing to check yet.',
      }}
      news={<IntakeNotes intake={intake} />}
      panel={
        <>
          {placing.on && <PlacePanel placing={placing} />}
          {bits && <BitsPanel bits={bits} safeMm={sound?.safeMm ?? 0} />}
          {view.bits && !view.apart && !bits && (
            <p className="mb-3 text-soft">
              {chosen
                ? 'It is cut flat and then rolled or folded: its pieces are not worked on one by one.'
                : 'Pick a layer: its pieces and openings can then be picked.'}
            </p>
          )}
          <LayerPanel />
          <VariantsPanel />
          <FewerSheets />
        </>
      }
      actions={
        <>
          <Button look="main" disabled={intake.share !== null} onClick={() => picker.current?.click()}>
            {intake.share !== null ? 'Reading…' : 'Bring in a drawing'}
          </Button>
          <MakerMenu onStart={setMaker} />
          <FileInput
            ref={picker}
            label="Drawing files"
            accept={ACCEPTS.drawing}
            multiple
            onFiles={(files) => void intake.take(files)}
          />
        </>
      }
    >
      {showing && project.layers.length > 0 ? (
        <ShowsView />
      ) : (
        <div
          className="relative min-h-0 flex-1 p-4"
          onDragOver={(event) => {
            event.preventDefault()
            intake.setOver(true)
          }}
          onDragLeave={() => intake.setOver(false)}
          onDrop={(event) => {
            event.preventDefault()
            intake.setOver(false)
            void intake.take([...event.dataTransfer.files])
          }}
        >
          {project.layers.length > 0 ? (
            <Board
              name="layers"
              box={{ ...room, minY: room.minY - spread, maxX: room.maxX + spread }}
              unit={unit}
              label="The layers from the front"
              interactive
              at={apart ? null : view.at}
              onPointerDown={() => dispatch(looked({ at: null }))}
            >
              {(px) => (
                <g
                  data-placing
                  onPointerMove={grips?.drag ? (event) => grips.onMove(event, px) : undefined}
                  onPointerUp={grips?.drag ? grips.onUp : undefined}
                >
                  <StackDrawing
                    project={project}
                    layers={shown}
                    px={px}
                    picked={view.layerId}
                    strong={
                      placing.on
                        ? undefined
                        : bits || printing
                          ? new Set([(bits ?? printing)!.layer.id])
                          : strong
                    }
                    apart={apart}
                    onPick={placing.on || bits || printing ? undefined : (id) => dispatch(pickedLayer(id))}
                    {...(placing.on && {
                      onLayerDown: placing.onLayerDown,
                      held: {
                        ids: placing.ids,
                        transform: placing.grips.drag
                          ? `matrix(${placing.grips.drag.map.join(' ')})`
                          : undefined,
                      },
                    })}
                    {...(printing && { printHeld: { layerId: printing.layer.id, map: printing.map } })}
                  />
                  {sound && chosen && !apart && !placing.on && !bits && !printing && (
                    <SoundMarks
                      sound={sound}
                      weakPaths={weakPaths ?? []}
                      layer={chosen}
                      folio={folioOf(project, chosen.id) ?? 0}
                      looseBits={looseBits}
                      px={px}
                    />
                  )}
                  {!apart && <LeftMarks marks={intake.marksInPlace} px={px} />}
                  {view.at && !apart && <Pointer at={view.at} px={px} />}
                  {printing && <PrintSurface printing={printing} />}
                  {grips && <GripMarks grips={grips} room={room} px={px} />}
                  {bits && <BitsMarks bits={bits} room={room} px={px} />}
                </g>
              )}
            </Board>
          ) : (
            <EmptyLayers project={project} onMaker={setMaker} onDrawing={() => picker.current?.click()} />
          )}
          {intake.over && (
            <div className="pointer-events-none absolute inset-3 grid place-content-center border-2 border-plum bg-panel/70 text-[18px] font-semibold text-plum">
              Let go to bring it in
            </div>
          )}
        </div>
      )}
      {project.layers.length > 0 && (
        <div className="flex flex-wrap gap-x-5 gap-y-1 px-6 pb-3 text-[13px] whitespace-nowrap">
          <Switch
            label="Place parts (P)"
            checked={view.placing}
            onChange={(on) => dispatch(looked({ placing: on, bits: false, apart: false }))}
          />
          <Switch
            label="Single pieces (I)"
            checked={view.bits}
            onChange={(on) => dispatch(looked({ bits: on, placing: false, apart: false }))}
          />
          <Switch
            label="Only the picked (X)"
            checked={view.only}
            onChange={(only) => dispatch(looked({ only }))}
          />
          <Switch label="What shows" checked={showing} onChange={setShowing} />
          <Switch
            label="Drawn apart (E)"
            checked={view.apart}
            onChange={(apart) => dispatch(looked({ apart }))}
          />
        </div>
      )}
    </StageFrame>
  )
}

/** Layers to draw: built and not hidden; only one where the maker asks for it. */
const shownLayers = (project: Project, onlyId: string | null) =>
  builtLayers(project).filter((layer) => (onlyId ? layer.id === onlyId : !layer.hidden))
