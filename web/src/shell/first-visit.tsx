// What a new maker sees first: one finished piece from the front and from the side, with how to read the section.
import { useEffect, useState } from 'react'
import { builtLayers, folioOf, viewBox, type Project } from '@feuillet/core/project'
import { measure } from '@feuillet/core/stages/measure'
import { Board, LayerBar, Limit } from '../drawing/section/bars'
import { levelsOf } from '../drawing/section/levels'
import { Rule } from '../drawing/section/rule'
import { BAR_W, BAR_X, FOOT, HEAD, LABEL_X } from '../drawing/section/sizes'
import { StackDrawing } from '../drawing/stack'
import { smallThings } from '../session/small-things'
import { Button } from '../ui'
import { editor } from '../workers'

const PUT_AWAY = 'first piece put away'
const HEIGHT = 270

/** Shown on an empty shelf until it is put away for good. */
export function FirstVisit({ onOpen }: { onOpen: () => void }) {
  const [piece, setPiece] = useState<Project | 'away' | null>(null)
  useEffect(() => {
    let gone = false
    const find = async (): Promise<Project | 'away'> =>
      (await smallThings.getItem(PUT_AWAY).catch(() => false))
        ? 'away'
        : editor.ask((api) => api.demo('harbour'))
    void find().then(
      (found) => !gone && setPiece(found),
      () => !gone && setPiece('away'),
    )
    return () => {
      gone = true
    }
  }, [])
  if (piece === 'away') return null
  const putAway = () => {
    setPiece('away')
    // Where the store refuses it is shown once more next time.
    void smallThings.setItem(PUT_AWAY, true).catch(() => undefined)
  }
  return (
    <section
      aria-labelledby="first-piece"
      className="grid min-h-[330px] shrink-0 grid-cols-[auto_auto_minmax(0,1fr)] items-center gap-8 border border-line bg-panel p-5"
    >
      {piece && (
        <>
          <Front project={piece} />
          <Side project={piece} />
          <div className="max-w-[46ch]">
            <h2 id="first-piece" className="text-[20px]">
              {piece.name}, finished
            </h2>
            <p className="mb-3 text-soft">
              At its left is the section: the same piece from the side, to scale. It stands beside all that
              you plan.
            </p>
            <ol className="grid gap-2 text-[14px]">
              {LINES.map(([what, words], i) => (
                <li key={what} className="grid grid-cols-[24px_1fr] gap-2">
                  <span
                    aria-hidden
                    className="grid h-6 w-6 place-items-center bg-ink font-semibold text-white"
                  >
                    {'abc'[i]}
                  </span>
                  <span>
                    <b>{what}</b> {words}
                  </span>
                </li>
              ))}
            </ol>
            <div className="mt-4 flex gap-2">
              <Button look="main" onClick={onOpen}>
                Open this piece
              </Button>
              <Button look="quiet" onClick={putAway}>
                Put it away
              </Button>
            </div>
          </div>
        </>
      )}
    </section>
  )
}

const LINES: [string, string][] = [
  ['A bar is a layer,', 'as thick as its card and in its colour; the number counts from the back.'],
  ['Between bars is air,', 'held open by the foam drawn in it; bars that touch are glued.'],
  ['At the top is the pane:', 'what is left below it is the room that you still have.'],
]

/** The piece from the front. */
function Front({ project }: { project: Project }) {
  const { minX, minY, maxX, maxY } = viewBox(project)
  const w = maxX - minX
  return (
    <svg
      viewBox={`${minX} ${minY} ${w} ${maxY - minY}`}
      width={HEIGHT}
      height={HEIGHT}
      role="img"
      aria-label={`${project.name} from the front`}
    >
      <StackDrawing project={project} layers={builtLayers(project)} px={w / HEIGHT} />
    </svg>
  )
}

/** The piece from the side. Its layers are full sheets: each stands on the one below, so that no planner is needed. */
function Side({ project }: { project: Project }) {
  const layers = builtLayers(project)
  const levels = levelsOf(project, [])
  const { depthMm, roomMm } = measure(project)
  const stackMm = levels.get(layers.at(-1)!.id)!.topMm
  const topMm = Math.max(stackMm, depthMm ?? 0) * 1.03
  const y = (mm: number) => HEIGHT - FOOT - (mm * (HEIGHT - FOOT - HEAD)) / topMm
  const middle = (id: string) => y((levels.get(id)!.bottomMm + levels.get(id)!.topMm) / 2)
  const mark = (letter: string, at: number) => (
    <g>
      <path d={`M${BAR_X + BAR_W + 4} ${at}H${LABEL_X + 26}`} stroke="var(--color-ink)" />
      <rect x={LABEL_X + 26} y={at - 9} width={18} height={18} fill="var(--color-ink)" />
      <text
        x={LABEL_X + 35}
        y={at + 4.5}
        textAnchor="middle"
        fontSize={13}
        fill="#fff"
        className="font-semibold"
      >
        {letter}
      </text>
    </g>
  )
  const [first, , third] = layers
  return (
    <svg width={LABEL_X + 50} height={HEIGHT} role="img" aria-label={`${project.name} from the side`}>
      <Rule topMm={topMm} y={y} unit={project.unit} scale={(HEIGHT - FOOT - HEAD) / topMm} />
      <Board y={y(0)} hasBoard />
      {layers.map((layer) => (
        <g key={layer.id}>
          <LayerBar
            project={project}
            layer={layer}
            level={levels.get(layer.id)!}
            lane={{ at: 0, of: 1 }}
            y={y}
            rowY={middle(layer.id)}
          />
          <text
            x={LABEL_X}
            y={middle(layer.id) + 4}
            fontSize={11}
            className="measure"
            fill="var(--color-soft)"
          >
            {folioOf(project, layer.id)}
          </text>
        </g>
      ))}
      {depthMm !== null && (
        <Limit
          y={y}
          depthMm={depthMm}
          roomMm={roomMm ?? depthMm}
          stackMm={stackMm}
          glass
          unit={project.unit}
        />
      )}
      {depthMm !== null && mark('c', y(depthMm) + 1)}
      {third && mark('b', (y(levels.get(third.id)!.bottomMm) + middle(layers[1]!.id)) / 2)}
      {first && mark('a', middle(first.id))}
    </svg>
  )
}
