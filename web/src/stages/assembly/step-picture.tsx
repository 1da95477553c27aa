import { memo } from 'react'
import {
  layerBox,
  colourOf,
  findLayer,
  pictureOf,
  viewBox,
  type Layer,
  type Project,
} from '@feuillet/core/project'
import { growBox, joinBoxes } from '@feuillet/core/base/geometry'
import { selectProject } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { Printed } from '../../drawing/printed'
import { layerPath } from '../../drawing/stack'
import { SheetDrawing } from '../../drawing/sheet'
import type { StepGroup } from './step-groups'
import { useSketch, useStepSheet } from './use-step-sheet'

const SIZE_PX = 84

/** What a group of steps touches: its sheet, or its layer on the one below; nothing for what is about all. */
export const StepPicture = memo(function StepPicture({ group }: { group: StepGroup }) {
  if (group.loadId) return <LoadPicture loadId={group.loadId} />
  return group.layerId ? <LayerPicture group={group} /> : <span />
})

function LoadPicture({ loadId }: { loadId: string }) {
  const { drawer } = useAppSelector(selectProject)
  const sheet = useStepSheet(loadId)
  const drawn = useSketch(sheet)
  const { load } = sheet
  if (!load) return <span />
  const scale = SIZE_PX / Math.max(load.widthMm, load.heightMm)
  return (
    <svg
      aria-hidden
      width={load.widthMm * scale}
      height={load.heightMm * scale}
      viewBox={`0 0 ${load.widthMm} ${load.heightMm}`}
      overflow="visible"
    >
      <SheetDrawing load={load} drawn={drawn} rimMm={drawer.cutter.rimMm} px={1 / scale} />
    </svg>
  )
}

function LayerPicture({ group: { layerIds, onto } }: { group: StepGroup }) {
  const project = useAppSelector(selectProject)
  const layers = layerIds.flatMap((id) => findLayer(project, id) ?? [])
  const [layer] = layers
  if (!layer) return <span />
  const below = onto.flatMap((id) => findLayer(project, id) ?? [])
  const box = growBox(joinBoxes([viewBox(project), ...layers.map(layerBox)]), 2)
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY]
  const scale = SIZE_PX / Math.max(w, h)
  return (
    <svg
      aria-hidden
      width={w * scale}
      height={h * scale}
      viewBox={`${box.minX} ${box.minY} ${w} ${h}`}
      overflow="visible"
    >
      {below.map((one) => (
        <path
          key={one.id}
          d={layerPath(one)}
          fillRule="evenodd"
          fill={colourOf(project, one)}
          opacity={0.28}
        />
      ))}
      {layers.map((one) => (
        <Card key={one.id} project={project} layer={one} scale={scale} />
      ))}
    </svg>
  )
}

function Card({ project, layer, scale }: { project: Project; layer: Layer; scale: number }) {
  const picture = pictureOf(project, layer)
  return (
    <>
      <path
        d={layerPath(layer)}
        fillRule="evenodd"
        fill={colourOf(project, layer)}
        stroke="rgb(0 0 0 / 0.5)"
        strokeWidth={0.8 / scale}
        style={{ filter: `drop-shadow(0 ${1 / scale}px ${1.2 / scale}px rgb(0 0 0 / 0.35))` }}
      />
      {layer.print && picture && (
        <Printed picture={picture} map={layer.print.map} within={layerPath(layer)} />
      )}
    </>
  )
}
