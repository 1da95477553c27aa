// The stack from the side, true to scale, and the list of layers.
import { Tip } from '../../ui'
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { builtLayers, isOnPane, isStandOff, type Project } from '@feuillet/core/project'
import { usePlan } from '../../plan'
import { selectMeasures, selectProject, selectSettled } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { useWords } from '../../state/use-words'
import { useSize } from '../use-size'
import { Board, LayerBar, Limit } from './bars'
import { LayerRow } from './layer-row'
import { levelsOf, sideBySide, spread, type LayerLevel } from './levels'
import { Rule } from './rule'
import { FOOT, HEAD, ROW } from './sizes'

export function SectionPanel() {
  const project = useAppSelector(selectProject)
  const { unit } = useWords()
  const known = usePlan('levels') ?? NO_LEVELS
  const { roomMm, depthMm } = useAppSelector(selectMeasures)
  const [ref, { height: place }] = useSize()
  const layers = builtLayers(project).toReversed()
  const out = project.layers.filter((layer) => layer.leftOut)
  const heights = levelsOf(project, known)
  // What is on the pane, or stands the work off it, is no part of the stack's height.
  const stackMm = Math.max(
    0,
    ...layers
      .filter((layer) => !isOnPane(layer) && !isStandOff(layer))
      .map((layer) => heights.get(layer.id)!.topMm),
  )
  const matMm = project.mount.kind === 'frame' ? (project.mount.mat?.thicknessMm ?? 0) : 0
  const paneMm =
    project.mount.kind === 'frame' && project.mount.pane.kind !== 'none' ? project.mount.pane.thicknessMm : 0
  const topMm = Math.max(stackMm, (depthMm ?? 0) + matMm + paneMm, 1) * 1.03
  const height = Math.max(place - out.length * 30, layers.length * ROW + HEAD + FOOT)
  const scale = (height - HEAD - FOOT) / topMm
  const y = (mm: number) => height - FOOT - mm * scale
  const rows = spread(
    layers.map((layer) => y((heights.get(layer.id)!.bottomMm + heights.get(layer.id)!.topMm) / 2) - ROW / 2),
    HEAD,
    height - ROW,
  )
  const lanes = sideBySide(layers.toReversed().map((layer) => ({ id: layer.id, ...heights.get(layer.id)! })))
  return (
    <aside className="flex min-h-0 flex-col border-r border-line bg-panel" aria-label="Section">
      <header className="flex items-baseline justify-between px-3.5 pt-3 pb-1">
        <h2 className="text-[15px]">Section</h2>
        <StackHeight stackMm={stackMm} roomMm={roomMm} />
      </header>
      <div ref={ref} className="relative min-h-0 flex-1 overflow-x-hidden overflow-y-auto">
        {place > 0 && (
          <div className="relative" style={{ height }}>
            <svg className="absolute inset-0 h-full w-full" aria-hidden>
              <Rule topMm={topMm} y={y} unit={unit} scale={scale} />
              <Board y={y(0)} hasBoard={project.mount.kind === 'frame' || project.mount.kind === 'panel'} />
              {layers.map((layer, i) => (
                <LayerBar
                  key={layer.id}
                  project={project}
                  layer={layer}
                  level={heights.get(layer.id)!}
                  lane={lanes.get(layer.id)!}
                  y={y}
                  rowY={rows[i]! + ROW / 2}
                />
              ))}
              {depthMm !== null && (
                <Limit
                  y={y}
                  depthMm={depthMm}
                  roomMm={roomMm ?? depthMm}
                  stackMm={stackMm}
                  glass={project.mount.kind === 'frame' && project.mount.pane.kind !== 'none'}
                  matMm={matMm}
                  paneMm={paneMm}
                  ringMm={ringHeight(project)}
                  unit={unit}
                />
              )}
            </svg>
            <SortableContext items={layers.map((layer) => layer.id)} strategy={verticalListSortingStrategy}>
              <ol aria-label="Layers, front to back">
                {layers.map((layer, i) => (
                  <LayerRow
                    key={layer.id}
                    layer={layer}
                    top={rows[i]!}
                    atBack={heights.get(layer.id)!.bottomMm === 0}
                  />
                ))}
              </ol>
            </SortableContext>
            {layers.length === 0 && (
              <p className="absolute right-3 bottom-12 left-[130px] text-[13px] text-soft">
                No layers yet. Bring in a drawing on the Layers stage.
              </p>
            )}
          </div>
        )}
        {out.map((layer) => (
          <LayerRow key={layer.id} layer={layer} top={null} atBack={false} />
        ))}
      </div>
    </aside>
  )
}

/** How high the stack is of how much there is; paler while it is being worked out. */
function StackHeight({ stackMm, roomMm }: { stackMm: number; roomMm: number | null }) {
  const { length } = useWords()
  const busy = !useAppSelector(selectSettled)
  const over = roomMm !== null && stackMm > roomMm + 1e-6
  return (
    <Tip text={'Card and foam against the depth at hand less clearance; foam not pressed'}>
      <span
        className={`measure text-[12px] ${over ? 'text-crimson' : 'text-soft'} ${busy ? 'opacity-50' : ''}`}
        data-testid="stack-height"
        tabIndex={0}
      >
        {over && '■ '}
        {roomMm === null
          ? length(stackMm)
          : `${length(stackMm).replace(/ (mm|in)$/, '')} of ${length(roomMm)}`}
      </span>
    </Tip>
  )
}

/** How high the kept ring of a frame stands, mm; 0 where there is none or its wall was not measured. */
function ringHeight({ mount }: Project): number {
  if (mount.kind !== 'frame' || !mount.ring.kept || mount.ring.wallMm === 0) return 0
  return mount.ring.heightMm || mount.depthMm
}

const NO_LEVELS: LayerLevel[] = []
