import { useState } from 'react'
import { growBox } from '@feuillet/core/base/geometry'
import { builtLayers, viewBox, type Project } from '@feuillet/core/project'
import { selectUnit } from '../../../state/selectors'
import { useAppSelector } from '../../../state/store'
import { Board } from '../../../drawing/board'
import { StackDrawing } from '../../../drawing/stack'
import LightBox, { drawsInSpace } from './light-box'

/** The light box; where the browser cannot draw in space, the layers drawn apart in its place. */
export default function InSpace({ project }: { project: Project }) {
  const unit = useAppSelector(selectUnit)
  const [able] = useState(drawsInSpace)
  if (able) return <LightBox />
  const layers = builtLayers(project)
  const box = viewBox(project)
  const step = Math.max(2, (box.maxX - box.minX) / Math.max(8, layers.length * 2.2))
  const spread = step * Math.max(0, layers.length - 1)
  return (
    <>
      <p role="status" className="px-6 pt-2 text-[13.5px] text-soft">
        This browser does not draw in space (WebGL is off or missing): the layers are drawn apart in its
        place.
      </p>
      <div className="min-h-0 flex-1 p-4 pb-1">
        <Board
          name="apart"
          box={growBox({ ...box, minY: box.minY - spread, maxX: box.maxX + spread }, 4)}
          unit={unit}
          label="The layers drawn apart"
        >
          {(px) => <StackDrawing project={project} layers={layers} px={px} apart={step} />}
        </Board>
      </div>
    </>
  )
}
