// What waits for what, from left to right: each step where its longest wait lets it begin; what may not be late is drawn strong.
import { useMemo } from 'react'
import dagre from '@dagrejs/dagre'
import type { Leeway, Step } from '@feuillet/core/stages/assembly'
import { formatMinutes } from '@feuillet/core/base/units'

const WIDE = 168
const HIGH = 46

interface Props {
  steps: readonly Step[]
  leeway: ReadonlyMap<string, Leeway>
  done: readonly string[]
  picked: string | undefined
  onPick: (stepId: string) => void
}

interface Drawn {
  nodes: { step: Step; x: number; y: number }[]
  edges: { from: string; to: string; path: string }[]
  width: number
  height: number
}

/** Layers of the graph by its longest ways (dagre). */
function drawn(steps: readonly Step[]): Drawn {
  const graph = new dagre.graphlib.Graph()
  graph.setGraph({ rankdir: 'LR', nodesep: 12, ranksep: 36, marginx: 10, marginy: 10 })
  graph.setDefaultEdgeLabel(() => ({}))
  const ids = new Set(steps.map(({ id }) => id))
  for (const { id } of steps) graph.setNode(id, { width: WIDE, height: HIGH })
  // What follows from others anyway is left out: a waits for b, b for c, so that a waits for c needs no line.
  const before = new Map<string, Set<string>>()
  for (const { id, after } of steps) {
    const all = new Set<string>()
    for (const one of after) for (const far of before.get(one) ?? []) all.add(far)
    before.set(id, new Set([...after, ...all]))
    for (const one of after) if (ids.has(one) && !all.has(one)) graph.setEdge(one, id)
  }
  dagre.layout(graph)
  const size = graph.graph()
  return {
    nodes: steps.map((step) => {
      const { x, y } = graph.node(step.id)
      return { step, x: x - WIDE / 2, y: y - HIGH / 2 }
    }),
    edges: graph.edges().map(({ v, w }) => {
      const points = (graph.edge({ v, w }).points ?? []) as { x: number; y: number }[]
      return { from: v, to: w, path: points.map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${x} ${y}`).join('') }
    }),
    width: size.width ?? 0,
    height: size.height ?? 0,
  }
}

export default function StepGraph({ steps, leeway, done, picked, onPick }: Props) {
  const { nodes, edges, width, height } = useMemo(() => drawn(steps), [steps])
  const isCritical = (id: string) => (leeway.get(id)?.slackMin ?? 1) < 1e-6
  return (
    <div className="min-h-0 flex-1 overflow-auto bg-ground" tabIndex={0} aria-label="What waits for what">
      <svg width={width} height={height} role="group" aria-label="Steps and what they wait for">
        {edges.map(({ from, to, path }) => (
          <path
            key={`${from} ${to}`}
            d={path}
            fill="none"
            stroke={isCritical(from) && isCritical(to) ? '#1e2126' : '#8f928d'}
            strokeWidth={isCritical(from) && isCritical(to) ? 2.4 : 1}
          />
        ))}
        {nodes.map(({ step, x, y }) => {
          const slack = leeway.get(step.id)?.slackMin ?? 0
          const critical = isCritical(step.id)
          return (
            <g
              key={step.id}
              transform={`translate(${x} ${y})`}
              role="button"
              tabIndex={0}
              aria-pressed={step.id === picked}
              aria-label={`${step.title}, ${formatMinutes(step.minutes)}, ${critical ? 'may not be late' : `${formatMinutes(slack)} of leeway`}`}
              className="cursor-pointer outline-none focus-visible:[&>rect]:stroke-plum"
              data-critical={critical || undefined}
              onClick={() => onPick(step.id)}
              onKeyDown={(event) => {
                if (event.key !== 'Enter' && event.key !== ' ') return
                event.preventDefault()
                onPick(step.id)
              }}
            >
              <rect
                width={WIDE}
                height={HIGH}
                fill={done.includes(step.id) ? '#dcddd8' : '#fbfbf8'}
                stroke={step.id === picked ? 'var(--color-plum)' : critical ? '#1e2126' : '#8f928d'}
                strokeWidth={step.id === picked ? 3 : critical ? 2.2 : 1}
                strokeDasharray={step.needs.length === 0 ? '4 3' : undefined}
              />
              <foreignObject width={WIDE} height={HIGH}>
                <p className="line-clamp-2 px-2 pt-1 text-[11.5px] leading-[1.15]">{step.title}</p>
              </foreignObject>
              <text
                x={WIDE - 6}
                y={HIGH - 5}
                textAnchor="end"
                className="measure"
                fontSize={10.5}
                fill="#50544f"
              >
                {formatMinutes(step.minutes)}
                {critical ? '' : ` · ${formatMinutes(slack)} free`}
              </text>
            </g>
          )
        })}
      </svg>
    </div>
  )
}
