import { lazy, Suspense, useRef, useState } from 'react'
import { growBox } from '@feuillet/core/geometry'
import { takeIn } from '@feuillet/core/layers'
import { builtLayers, viewBox, type Project } from '@feuillet/core/project'
import { change } from '../../app/edits'
import { selectDerived, selectProject, selectStageSnags, selectUnit, selectView } from '../../app/selectors'
import { StageFrame } from '../../app/stage-frame'
import { useAppDispatch, useAppSelector } from '../../app/store'
import { looked, pickedLayer } from '../../app/view'
import { Board } from '../../drawing/board'
import { Pointer, StackDrawing } from '../../drawing/stack'
import { Button, Switch } from '../../ui'
import { compute } from '../../workers/compute'
import { SoundMarks } from './sound-marks'
import { LayerPanel } from './layer-panel'
import { FewerSheets } from './reshape-panel'
import { ShowsView } from './shows-view'
import { MakerMenu, type MakerStart } from './makers/maker-menu'

const MakerScreen = lazy(() => import('./makers/maker-screen'))

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
  const sound = useAppSelector(selectDerived)?.sound.find((s) => s.id === view.layerId)
  const shown = shownLayers(project, view.only ? view.layerId : null)
  const box = viewBox(project)
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
      snags={{ list: snags, none: project.layers.length ? 'No specks, nothing hidden.' : 'Nothing to check yet.' }}
      panel={
        <>
          {intake.note && (
            <div
              role={intake.bad ? 'alert' : 'status'}
              className={`mb-3 border-l-4 px-3 py-2 text-[13.5px] ${intake.bad ? 'border-crimson bg-crimson-pale' : 'border-ink bg-sheet'}`}
            >
              {intake.bad && <span aria-hidden>■ </span>}
              {intake.note}
            </div>
          )}
          <LayerPanel />
          <FewerSheets />
        </>
      }
      actions={
        <>
          <Button look="main" disabled={intake.busy} onClick={() => picker.current?.click()}>
            {intake.busy ? 'Reading the drawing…' : 'Bring in an SVG'}
          </Button>
          <MakerMenu onStart={setMaker} />
          <input
            ref={picker}
            type="file"
            accept=".svg,image/svg+xml"
            className="hidden"
            aria-label="SVG file"
            onChange={(event) => {
              const file = event.target.files?.[0]
              event.target.value = ''
              if (file) void intake.take(file)
            }}
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
            const file = event.dataTransfer.files[0]
            if (file) void intake.take(file)
          }}
        >
          {project.layers.length > 0 ? (
            <Board
              box={{ ...room, minY: room.minY - spread, maxX: room.maxX + spread }}
              unit={unit}
              label="The layers from the front"
              onPointerDown={() => dispatch(looked({ at: null }))}
            >
              {(px) => (
                <>
                  <StackDrawing project={project} layers={shown} px={px} picked={view.layerId} apart={apart} onPick={(id) => dispatch(pickedLayer(id))} />
                  {sound && !apart && <SoundMarks sound={sound} px={px} />}
                  {view.at && !apart && <Pointer at={view.at} px={px} />}
                </>
              )}
            </Board>
          ) : (
            <div className="grid h-full place-content-center gap-2 border-2 border-dashed border-line text-center">
              <p className="font-head text-[20px]">Drop a layered SVG here</p>
              <p className="text-soft">Named groups become layers; without them, colours do.</p>
              <p className="text-soft">Or grow layers from less: words, a photo, a petal, a pattern.</p>
            </div>
          )}
          {intake.over && (
            <div className="pointer-events-none absolute inset-3 grid place-content-center border-2 border-plum bg-panel/70 text-[18px] font-semibold text-plum">
              Let go to bring it in
            </div>
          )}
        </div>
      )}
      {project.layers.length > 0 && (
        <div className="flex gap-6 px-6 pb-3 text-[13px]">
          <Switch label="Only the picked layer (X)" checked={view.only} onChange={(only) => dispatch(looked({ only }))} />
          <Switch label="What shows" checked={showing} onChange={setShowing} />
          <Switch label="Drawn apart (E)" checked={view.apart} onChange={(apart) => dispatch(looked({ apart }))} />
        </div>
      )}
    </StageFrame>
  )
}

/** Layers to draw: built and not hidden; only one where the maker asks for it. */
const shownLayers = (project: Project, onlyId: string | null) => builtLayers(project).filter((layer) => (onlyId ? layer.id === onlyId : !layer.hidden))

/** Reads files in the worker and puts their layers into the project. */
function useIntake() {
  const dispatch = useAppDispatch()
  const [busy, setBusy] = useState(false)
  const [over, setOver] = useState(false)
  const [note, setNote] = useState<string | null>(null)
  const [bad, setBad] = useState(false)
  const take = async (file: File) => {
    setBusy(true)
    setNote(null)
    const result = await compute.importSvg(new Uint8Array(await file.arrayBuffer()))
    setBusy(false)
    setBad(!result.ok)
    if (!result.ok) {
      setNote(`${file.name}: ${result.sentence}. Nothing was changed.`)
      return
    }
    const { layers, leftOut } = result.intake
    dispatch(change(`bring in ${file.name}`, (p) => takeIn(p, result.intake)))
    const left = leftOut.length > 0 ? ` Left out: ${leftOut.map((l) => `${l.count} × ${l.what}`).join(', ')}.` : ' Nothing was left out.'
    setNote(`${file.name}: ${layers.length} ${layers.length === 1 ? 'layer' : 'layers'}.${left}`)
  }
  return { busy, over, setOver, note, bad, take }
}
