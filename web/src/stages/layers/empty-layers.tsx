// A project without layers: what it will live in, at scale, and the ways to a first layer.
import type { Project } from '@feuillet/core/project'
import { Board } from '../../drawing/board'
import { MountDrawing, mountBox } from '../../drawing/mount/mount-drawing'
import { useWords } from '../../state/use-words'
import { Button } from '../../ui'
import type { MakerStart } from './makers/maker-menu'
import { makerNames, startRecipe } from './makers/start'

const WAYS = ['lettering', 'rosette', 'mandala'] as const

export function EmptyLayers({
  project,
  onMaker,
  onDrawing,
}: {
  project: Project
  onMaker: (start: MakerStart) => void
  onDrawing: () => void
}) {
  const { unit, size, length } = useWords()
  const { mount } = project
  const room =
    mount.kind === 'frame'
      ? `Through the opening ${size(mount.opening.widthMm, mount.opening.heightMm)} will be seen.`
      : mount.kind === 'card'
        ? `The panel takes ${size(mount.panel.widthMm, mount.panel.heightMm)}.`
        : mount.kind === 'topper'
          ? `The topper will be ${length(mount.widthMm)} wide.`
          : 'Nothing limits its size.'
  return (
    <div className="relative h-full">
      <Board name="layers" box={mountBox(project)} unit={unit} label="What the work will live in">
        {(px) => <MountDrawing project={project} px={px} />}
      </Board>
      <div
        className={`pointer-events-none absolute inset-0 grid justify-items-center pb-2 ${mount.kind === 'topper' ? 'items-end' : 'items-center'}`}
      >
        <div className="pointer-events-auto grid max-w-[400px] gap-2 border border-ink bg-panel p-5 shadow-[0_2px_10px_rgb(0_0_0/0.25)]">
          <h2 className="text-[19px]">The first layer</h2>
          <p className="text-soft">{room}</p>
          <p>
            Drop a layered SVG or DXF here, or a zip of them, or{' '}
            <button type="button" className="text-plum underline underline-offset-2" onClick={onDrawing}>
              choose a drawing
            </button>
            . Named groups become layers; without them, colours do.
          </p>
          <p className="text-soft">Or grow layers from less:</p>
          <div className="flex flex-wrap gap-2">
            {WAYS.map((kind) => (
              <Button
                key={kind}
                small
                onClick={() => {
                  const recipe = startRecipe(kind, project, undefined)
                  if (recipe) onMaker({ recipe, grownId: null })
                }}
              >
                {makerNames[kind].title}
              </Button>
            ))}
          </div>
        </div>
      </div>
    </div>
  )
}
