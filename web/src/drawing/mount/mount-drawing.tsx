// What the work will live in, to scale, with the work in it: a frame and its lip, a card's panel, a topper over its cake.
import { boxWidth, growBox, type Box } from '@feuillet/core/base/geometry'
import { designBox, viewBox, type Project } from '@feuillet/core/project'
import { FrameDrawing } from './frame-drawing'
import type { StickPlace } from '@feuillet/core/stages/depth'
import { usePlan } from '../../plan'
import { TopperDrawing } from './topper-drawing'
import { topperScene } from './topper-scene'

const sceneOf = (project: Project, known?: readonly StickPlace[]) => {
  const design = designBox(project)
  return project.mount.kind === 'topper'
    ? topperScene(project.mount, Number.isFinite(design.minX) ? design : null, known)
    : null
}

/** What a board must show of it, mm, with air for the widths that are written round it. */
export function mountBox(project: Project): Box {
  const shown = sceneOf(project)?.box ?? viewBox(project)
  return growBox(shown, Math.max(boxWidth(shown), 60) * 0.07)
}

export function MountDrawing({ project, px }: { project: Project; px: number }) {
  const held = usePlan('hold')
  const scene = sceneOf(project, held?.sticks)
  return (
    <>
      {scene && <TopperDrawing scene={scene} empty={project.layers.length === 0} px={px} />}
      <FrameDrawing project={project} px={px} />
    </>
  )
}
