// The work in space under a light: turned, drawn apart, built up layer by layer, lit from aside or from behind; a still for the shop.
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react'
import { Canvas, useThree } from '@react-three/fiber'
import { ACESFilmicToneMapping, PCFShadowMap, type DirectionalLight } from 'three'
import { toast } from 'sonner'
import { builtLayers, slug, viewBox, type Project } from '@feuillet/core/project'
import { saveFile } from '../../../session/save-file'
import { usePlan } from '../../../plan'
import { selectProject } from '../../../state/selectors'
import { useAppSelector } from '../../../state/store'
import { useWords } from '../../../state/use-words'
import { Button, Choice, Switch } from '../../../ui'
import { EyeControl, EYES, Pace, type Eye, type EyeHandle } from './eye'
import { StackModel, type Looking } from './stack-model'

/** Whether the browser draws in three dimensions at all. */
export function drawsInSpace(): boolean {
  try {
    const canvas = document.createElement('canvas')
    const context = canvas.getContext('webgl2')
    context?.getExtension('WEBGL_lose_context')?.loseContext()
    return context !== null
  } catch {
    return false
  }
}

/** The light's way: turned clockwise from above the picture, and how high over it, degrees. */
interface Rake {
  turnDeg: number
  highDeg: number
}

const SHADOWS = { fine: 2048, plain: 1024 } as const

export default function LightBox() {
  const project = useAppSelector(selectProject)
  const space = usePlan('space')
  const { length } = useWords()
  const layers = builtLayers(project)
  const [eye, setEye] = useState<{ name: Eye; at: number }>({ name: 'left', at: 0 })
  const [moved, setMoved] = useState(false)
  const [rake, setRake] = useState<Rake>({ turnDeg: 315, highDeg: 52 })
  const [lamp, setLamp] = useState<'none' | 'warm' | 'cool'>(project.plan.litFromBehind ? 'warm' : 'none')
  const [apartMm, setApartMm] = useState(0)
  const [upTo, setUpTo] = useState<number | null>(null)
  const [hasPane, setHasPane] = useState(true)
  const [quality, setQuality] = useState<'fine' | 'plain'>('fine')
  const [drawn, setDrawn] = useState(false)
  const handle = useRef<EyeHandle | null>(null)
  const canvas = useRef<HTMLCanvasElement | null>(null)
  const middle = useMemo(() => middleOf(project), [project])
  const eyeAt = useMemo(
    (): [number, number, number] => [
      middle.at[0],
      middle.at[1],
      middle.at[2] + (apartMm * layers.length) / 2,
    ],
    [middle, apartMm, layers.length],
  )
  if (!space) return <p className="p-6 text-soft">Computing…</p>
  const looking: Looking = {
    lamp: lamp === 'none' ? null : lamp,
    apartMm,
    upTo: upTo ?? layers.length,
    pane: hasPane,
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const ways: Record<string, () => void> = {
      ArrowLeft: () => (event.shiftKey ? turnLight(-15) : handle.current?.turn(-1, 0)),
      ArrowRight: () => (event.shiftKey ? turnLight(15) : handle.current?.turn(1, 0)),
      ArrowUp: () => (event.shiftKey ? raiseLight(6) : handle.current?.turn(0, -1)),
      ArrowDown: () => (event.shiftKey ? raiseLight(-6) : handle.current?.turn(0, 1)),
      '+': () => handle.current?.closer(1),
      '-': () => handle.current?.closer(-1),
      '0': () => setEye({ name: 'front', at: eye.at + 1 }),
    }
    const way = ways[event.key]
    if (!way) return
    event.preventDefault()
    way()
  }
  const turnLight = (deg: number) => setRake((r) => ({ ...r, turnDeg: (r.turnDeg + deg + 360) % 360 }))
  const raiseLight = (deg: number) =>
    setRake((r) => ({ ...r, highDeg: Math.max(8, Math.min(82, r.highDeg + deg)) }))
  const still = () =>
    canvas.current?.toBlob((blob) => {
      if (!blob) {
        toast.error('The picture could not be taken.')
        return
      }
      void blob
        .arrayBuffer()
        .then((bytes) => saveFile(`${slug(project.name)}-still.png`, new Uint8Array(bytes), 'image/png'))
    }, 'image/png')
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div
        className="min-h-0 flex-1 outline-offset-[-2px]"
        role="group"
        tabIndex={0}
        aria-label="The work in space. Arrows turn it, with Shift the light, plus and minus come closer, 0 looks from the front."
        onKeyDown={onKeyDown}
        data-light-box={drawn ? 'drawn' : 'drawing'}
      >
        <Canvas
          key={quality}
          shadows={{ type: PCFShadowMap }}
          frameloop="demand"
          dpr={quality === 'fine' ? Math.min(2, window.devicePixelRatio) : 1}
          gl={{
            preserveDrawingBuffer: true,
            antialias: quality === 'fine',
            toneMapping: ACESFilmicToneMapping,
          }}
          onCreated={({ gl }) => {
            canvas.current = gl.domElement
          }}
        >
          <color attach="background" args={[lamp === 'none' ? '#d9d8d3' : '#191b1f']} />
          <Lights
            rake={rake}
            middle={middle.at}
            sizeMm={middle.sizeMm}
            dim={lamp !== 'none'}
            map={SHADOWS[quality]}
          />
          <StackModel project={project} space={space} looking={looking} />
          <EyeControl
            eye={eye}
            middle={eyeAt}
            sizeMm={middle.sizeMm + apartMm * layers.length * 0.6}
            handleRef={handle}
            onMoved={() => setMoved(true)}
          />
          <Pace onFirst={() => setDrawn(true)} onSlow={() => setQuality('plain')} />
        </Canvas>
      </div>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1.5 px-6 py-2 text-[13px]">
        <div className="flex flex-wrap gap-1.5" role="group" aria-label="Look">
          {(Object.keys(EYES) as Eye[]).map((name) => (
            <Button
              key={name}
              small
              aria-pressed={eye.name === name && !moved}
              onClick={() => {
                setEye({ name, at: eye.at + 1 })
                setTimeout(() => setMoved(false))
              }}
            >
              {EYES[name].label}
            </Button>
          ))}
        </div>
        <div className="w-64">
          <Choice
            label="Lamp behind"
            value={lamp}
            options={[
              { value: 'none', label: 'no lamp' },
              { value: 'warm', label: 'warm behind' },
              { value: 'cool', label: 'cool behind' },
            ]}
            onChange={setLamp}
          />
        </div>
        <Slider
          label="Light from"
          value={rake.turnDeg}
          min={0}
          max={359}
          shown={`${Math.round(rake.turnDeg)}°`}
          onChange={(turnDeg) => setRake({ ...rake, turnDeg })}
        />
        <Slider
          label="Light high"
          value={rake.highDeg}
          min={8}
          max={82}
          shown={`${Math.round(rake.highDeg)}°`}
          onChange={(highDeg) => setRake({ ...rake, highDeg })}
        />
        <Slider
          label="Apart"
          value={apartMm}
          min={0}
          max={30}
          shown={length(apartMm)}
          onChange={setApartMm}
        />
        <Slider
          label="Built up to layer"
          value={looking.upTo}
          min={0}
          max={layers.length}
          shown={`${looking.upTo} of ${layers.length}`}
          onChange={(n) => setUpTo(n === layers.length ? null : n)}
        />
        {project.mount.kind === 'frame' && project.mount.pane.kind !== 'none' && apartMm === 0 && (
          <Switch label="Pane in" checked={hasPane} onChange={setHasPane} />
        )}
        <Button small onClick={still} title={`As it is seen now, as PNG`}>
          Take a still
        </Button>
        {quality === 'plain' && <span className="text-soft">Plainer shadows: pictures were slow.</span>}
      </div>
    </div>
  )
}

function Slider({
  label,
  value,
  min,
  max,
  shown,
  onChange,
}: {
  label: string
  value: number
  min: number
  max: number
  shown: string
  onChange: (value: number) => void
}) {
  return (
    <label className="flex items-center gap-2">
      <span className="text-soft">{label}</span>
      <input
        type="range"
        className="w-20 accent-plum"
        aria-label={label}
        aria-valuetext={shown}
        min={min}
        max={max}
        step={1}
        value={value}
        onChange={(event) => onChange(Number(event.target.value))}
      />
      <span className="measure min-w-13 whitespace-nowrap">{shown}</span>
    </label>
  )
}

/** The middle of the work in space and how large it is, mm. */
function middleOf(project: Project): { at: [number, number, number]; sizeMm: number } {
  const { minX, minY, maxX, maxY } = viewBox(project)
  const frame = project.mount.kind === 'frame' ? 22 : 6
  return {
    at: [
      (minX + maxX) / 2,
      -(minY + maxY) / 2,
      project.mount.kind === 'frame' ? project.mount.depthMm / 2 : 0,
    ],
    sizeMm: Math.max(maxX - minX, (maxY - minY) * 1.1) + frame,
  }
}

/** Raking light with soft shadows, and a little light from everywhere. */
function Lights({
  rake,
  middle: [x, y, z],
  sizeMm,
  dim,
  map,
}: {
  rake: Rake
  middle: readonly [number, number, number]
  sizeMm: number
  dim: boolean
  map: number
}) {
  const [turn, high] = [(rake.turnDeg * Math.PI) / 180, (rake.highDeg * Math.PI) / 180]
  const far = sizeMm * 1.6
  const at: [number, number, number] = [
    x + Math.sin(turn) * Math.cos(high) * far,
    y + Math.cos(turn) * Math.cos(high) * far,
    z + Math.sin(high) * far,
  ]
  const reach = sizeMm * 0.75
  const light = useRef<DirectionalLight>(null)
  const { invalidate } = useThree()
  useEffect(() => {
    // It looks at the middle of the work; what it looks at is no part of the scene.
    light.current?.target.position.set(x, y, z)
    light.current?.target.updateMatrixWorld()
    invalidate()
  }, [x, y, z, map, invalidate])
  return (
    <>
      <hemisphereLight args={['#ffffff', '#b9b3a8', dim ? 0.1 : 1.1]} />
      <directionalLight
        ref={light}
        key={map}
        position={at}
        intensity={dim ? 0.12 : 2.4}
        castShadow
        shadow-mapSize={[map, map]}
        shadow-radius={3}
        shadow-bias={-0.0004}
        shadow-normalBias={0.05}
        shadow-camera-left={-reach}
        shadow-camera-right={reach}
        shadow-camera-top={reach}
        shadow-camera-bottom={-reach}
        shadow-camera-near={far * 0.2}
        shadow-camera-far={far * 2.4}
      />
    </>
  )
}
