// The stack in space: card, pads, sticks of light behind it, and the frame round it.
import { useEffect, useMemo } from 'react'
import { useThree } from '@react-three/fiber'
import { BoxGeometry, SRGBColorSpace, TextureLoader, type Material, type Texture } from 'three'
import {
  builtLayers,
  isOnPane,
  openingRect,
  pictureOf,
  type Layer,
  type Project,
} from '@feuillet/core/project'
import { padChords, type Space, type SpacePad } from '@feuillet/core/stages/depth'
import { polygonBox } from '@feuillet/core/base/geometry'
import { pictureUrl } from '../../../drawing/picture-url'
import { grainTexture, paperMaterials } from './materials'
import { printOnto, solidOf } from './shapes'

export interface Looking {
  /** The lamp behind the work; null where there is none. */
  lamp: 'warm' | 'cool' | null
  /** How far layers are drawn apart, mm from one to the next. */
  apartMm: number
  /** So many layers are there, from the back. */
  upTo: number
  /** Whether the pane is in. */
  pane: boolean
}

const LAMPS = { warm: '#ffb765', cool: '#dfe9ff' } as const
const LAMP_POWER = 9

/** All of it, in mm: the middle of the work at 0, the board at z 0. */
export function StackModel({
  project,
  space,
  looking,
}: {
  project: Project
  space: Space
  looking: Looking
}) {
  const layers = builtLayers(project)
  const grain = useMemo(() => grainTexture(), [])
  useEffect(() => () => grain.dispose(), [grain])
  const shown = layers.slice(0, looking.upTo)
  return (
    <>
      {shown.map((layer, k) => (
        <LayerModel
          key={layer.id}
          project={project}
          layer={layer}
          space={space}
          grain={grain}
          lit={looking.lamp !== null}
          order={k}
          liftMm={isOnPane(layer) ? looking.apartMm * (layers.length + 1) : looking.apartMm * k}
        />
      ))}
      {looking.lamp && <Lamp project={project} colour={LAMPS[looking.lamp]} />}
      {/* Drawn apart the layers are looked at, not the frame. */}
      {looking.apartMm === 0 && (
        <FrameModel project={project} isLit={looking.lamp !== null} hasPane={looking.pane} />
      )}
    </>
  )
}

interface LayerProps {
  project: Project
  layer: Layer
  space: Space
  grain: Texture
  lit: boolean
  /** From the back, from 0. */
  order: number
  liftMm: number
}

function LayerModel({ project, layer, space, grain, lit, order, liftMm }: LayerProps) {
  const { invalidate } = useThree()
  const picture = pictureOf(project, layer)
  const image = useMemo(() => {
    if (!picture) return null
    // A picture comes a moment later: then all is drawn once more.
    const texture = new TextureLoader().load(pictureUrl(picture), () => invalidate())
    texture.colorSpace = SRGBColorSpace
    texture.anisotropy = 4
    return texture
  }, [picture, invalidate])
  useEffect(() => () => image?.dispose(), [image])
  const materials = useMemo(
    () => paperMaterials(project, layer, { lit, picture: image, grain }),
    [project, layer, lit, image, grain],
  )
  useEffect(() => () => materials.forEach((material: Material) => material.dispose()), [materials])
  const parts = useMemo(
    () =>
      space.pieces
        .filter(({ layerId }) => layerId === layer.id)
        .flatMap((piece) =>
          piece.parts.map((part) => {
            const solid = solidOf(part)
            if (picture && layer.print)
              printOnto(solid, layer.print.map, { wide: picture.pixelsWide, high: picture.pixelsHigh })
            return { solid, bottomMm: part.bottomMm }
          }),
        ),
    [space, layer, picture],
  )
  useEffect(() => () => parts.forEach(({ solid }) => solid.dispose()), [parts])
  const pads = useMemo(() => space.pads.filter(({ layerId }) => layerId === layer.id), [space, layer.id])
  return (
    <group position={[0, 0, liftMm]}>
      {parts.map(({ solid, bottomMm }, k) => (
        <mesh
          key={k}
          geometry={solid}
          material={materials}
          position={[0, 0, bottomMm]}
          renderOrder={order + 1}
          castShadow
          receiveShadow
        />
      ))}
      {pads.flatMap((pad, k) =>
        // A bent strip stands as the chords of its arc.
        padChords(pad).map((chord, i) => <PadModel key={`${k} ${i}`} pad={{ ...pad, ...chord }} />),
      )}
    </group>
  )
}

function PadModel({ pad }: { pad: SpacePad }) {
  const solid = useMemo(
    () => new BoxGeometry(pad.widthMm, pad.heightMm, pad.thicknessMm),
    [pad.widthMm, pad.heightMm, pad.thicknessMm],
  )
  useEffect(() => () => solid.dispose(), [solid])
  return (
    <mesh
      geometry={solid}
      position={[pad.x, -pad.y, pad.bottomMm + pad.thicknessMm / 2]}
      rotation={[0, 0, (-pad.rotation * Math.PI) / 180]}
      castShadow
      receiveShadow
    >
      <meshStandardMaterial
        color={pad.isClear ? '#e8f0f0' : '#f6f6f2'}
        roughness={1}
        transparent={pad.isClear}
        opacity={pad.isClear ? 0.35 : 1}
      />
    </mesh>
  )
}

/** A lamp behind the work: a plate that glows. */
function Lamp({ project, colour }: { project: Project; colour: string }) {
  const { minX, minY, maxX, maxY } = polygonBox(openingRect(project) ?? FALLBACK)
  return (
    <mesh position={[(minX + maxX) / 2, -(minY + maxY) / 2, -2]}>
      <planeGeometry args={[(maxX - minX) * 1.06, (maxY - minY) * 1.06]} />
      <meshStandardMaterial color="#000000" emissive={colour} emissiveIntensity={LAMP_POWER} />
    </mesh>
  )
}

const FALLBACK = { outer: Float64Array.of(-100, -100, 100, -100, 100, 100, -100, 100), holes: [] }
const LIP_MM = 3
/** What is seen through it is drawn before the pane. */
const PANE_LAST = 10_000
const WALL_MM = 8

/** What a pane adds to the light that comes through it. */
const PANES = {
  glass: { color: '#cfe6e2', roughness: 0.03, opacity: 0.1 },
  plastic: { color: '#e6ebee', roughness: 0.16, opacity: 0.08 },
} as const

/** Board, walls, lip, mat and pane of a frame; the panel of a card; nothing for what stands free. */
function FrameModel({ project, isLit, hasPane }: { project: Project; isLit: boolean; hasPane: boolean }) {
  const { mount } = project
  if (mount.kind === 'card' || mount.kind === 'panel') {
    const { widthMm, heightMm } = mount.panel
    return <Plate at={[widthMm / 2, -heightMm / 2, -1]} size={[widthMm, heightMm, 2]} colour="#efece4" />
  }
  if (mount.kind !== 'frame') return null
  const { widthMm: w, heightMm: h } = mount.spacer
  const front = mount.depthMm
  const opening = polygonBox(openingRect({ ...project, mount: { ...mount, mat: null } })!)
  const { kind: pane } = mount.pane
  const paneMm = pane === 'none' ? 0 : mount.pane.thicknessMm
  const seen = mount.mat ? polygonBox(openingRect(project)!) : null
  return (
    <>
      {!isLit && <Plate at={[w / 2, -h / 2, -1.5]} size={[w, h, 3]} colour="#cbb994" />}
      <Border
        inner={{ minX: 0, minY: 0, maxX: w, maxY: h }}
        outerMm={WALL_MM}
        z={front / 2}
        depth={front}
        colour="#4a3b30"
      />
      <Border
        inner={opening}
        to={{ minX: -WALL_MM, minY: -WALL_MM, maxX: w + WALL_MM, maxY: h + WALL_MM }}
        z={front + paneMm + LIP_MM / 2}
        depth={LIP_MM}
        colour="#5a493b"
      />
      {pane !== 'none' && hasPane && (
        <mesh position={[w / 2, -h / 2, front + paneMm / 2]} renderOrder={PANE_LAST}>
          <boxGeometry args={[w, h, Math.max(paneMm, 0.1)]} />
          <meshPhysicalMaterial {...PANES[pane]} transparent depthWrite={false} />
        </mesh>
      )}
      {seen && (
        <Border
          inner={seen}
          to={opening}
          z={front - mount.mat!.thicknessMm / 2}
          depth={mount.mat!.thicknessMm}
          colour="#f1eee6"
        />
      )}
    </>
  )
}

type Rect = { minX: number; minY: number; maxX: number; maxY: number }

/** Four bars round an opening. */
function Border({
  inner,
  to,
  outerMm = 0,
  z,
  depth,
  colour,
}: {
  inner: Rect
  to?: Rect
  outerMm?: number
  z: number
  depth: number
  colour: string
}) {
  const outer = to ?? {
    minX: inner.minX - outerMm,
    minY: inner.minY - outerMm,
    maxX: inner.maxX + outerMm,
    maxY: inner.maxY + outerMm,
  }
  const bars: [number, number, number, number][] = [
    [outer.minX, outer.minY, outer.maxX, inner.minY],
    [outer.minX, inner.maxY, outer.maxX, outer.maxY],
    [outer.minX, inner.minY, inner.minX, inner.maxY],
    [inner.maxX, inner.minY, outer.maxX, inner.maxY],
  ]
  return (
    <>
      {bars
        .filter(([x0, y0, x1, y1]) => x1 - x0 > 0.01 && y1 - y0 > 0.01)
        .map(([x0, y0, x1, y1], k) => (
          <Plate
            key={k}
            at={[(x0 + x1) / 2, -(y0 + y1) / 2, z]}
            size={[x1 - x0, y1 - y0, depth]}
            colour={colour}
          />
        ))}
    </>
  )
}

function Plate({
  at,
  size,
  colour,
}: {
  at: [number, number, number]
  size: [number, number, number]
  colour: string
}) {
  return (
    <mesh position={at} castShadow receiveShadow>
      <boxGeometry args={size} />
      <meshStandardMaterial color={colour} roughness={0.85} />
    </mesh>
  )
}
