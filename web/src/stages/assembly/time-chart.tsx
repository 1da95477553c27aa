// Cutter, hands and waiting side by side along the time of the build.
import { CustomChart } from 'echarts/charts'
import { GridComponent, TooltipComponent } from 'echarts/components'
import { graphic, use as register, type EChartsType } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import type { CustomSeriesRenderItem, EChartsOption } from 'echarts'
import { useCallback, useEffect, useMemo, useRef } from 'react'
import { handsMinutesOf, type Step } from '@feuillet/core/stages/assembly'
import { formatMinutes } from '@feuillet/core/base/units'
import { useChart } from '../../ui/use-chart'

register([CustomChart, GridComponent, TooltipComponent, SVGRenderer])

const LANES = ['waiting', 'hands', 'cutter'] as const
const [WAITING, HANDS, CUTTER] = [0, 1, 2]
const laneOf = ({ needs }: Step): number =>
  needs.includes('cutter') ? CUTTER : needs.includes('hands') ? HANDS : WAITING

/** A step in its lane, and a sheet that is put in by hand in that of the hands as well. */
interface Bar {
  step: Step
  lane: number
  endMin: number
}

const barsOf = (step: Step): Bar[] => [
  { step, lane: laneOf(step), endMin: step.endMin },
  ...(step.handsMin === undefined
    ? []
    : [{ step, lane: HANDS, endMin: step.startMin + handsMinutesOf(step) }]),
]

const INK = '#1e2126'
const PAGE = '#f4f5f1'
const FILL = { plum: '#6b2d73', done: '#bfc1bb', waiting: '#8d5300', critical: INK, other: '#6d7078' }

interface Props {
  steps: readonly Step[]
  total: number
  done: readonly string[]
  picked: string | undefined
  /** Steps that may not be late. */
  critical: ReadonlySet<string>
  onPick: (stepId: string) => void
}

export default function TimeChart({ steps, total, done, picked, critical, onPick }: Props) {
  const bars = useMemo(() => steps.flatMap(barsOf), [steps])
  const latest = useRef({ bars, onPick })
  useEffect(() => {
    latest.current = { bars, onPick }
  })
  const option = useMemo((): EChartsOption => {
    const font = { fontFamily: 'Atkinson Hyperlegible Next Variable', color: INK }
    const every = [5, 10, 15, 30, 60, 120, 240].find((k) => total / k <= 9) ?? 480
    const fillOf = (step: Step): string => {
      if (step.id === picked) return FILL.plum
      if (done.includes(step.id)) return FILL.done
      if (step.needs.length === 0) return FILL.waiting
      return critical.has(step.id) ? FILL.critical : FILL.other
    }
    return {
      animation: false,
      textStyle: font,
      // Words at the axes have the room that is left for them: nothing is laid out twice.
      grid: { left: 58, right: 26, top: 6, bottom: 22, outerBoundsMode: 'none' },
      tooltip: {
        confine: true,
        formatter: (of) => {
          const step = Array.isArray(of) ? undefined : bars[of.dataIndex]?.step
          if (!step) return ''
          const late = critical.has(step.id) ? ', may not be late' : ''
          return `${graphicText(step.title)}<br>${formatMinutes(step.startMin)} to ${formatMinutes(step.endMin)}${late}`
        },
      },
      xAxis: {
        type: 'value',
        min: 0,
        max: total,
        interval: every,
        axisLabel: { ...font, showMaxLabel: false, formatter: (minutes: number) => formatMinutes(minutes) },
        splitLine: { lineStyle: { color: '#d6d7d2' } },
      },
      yAxis: {
        type: 'category',
        data: [...LANES],
        axisTick: { show: false },
        axisLine: { show: false },
        axisLabel: font,
      },
      series: [
        {
          type: 'custom',
          encode: { x: [1, 2], y: 0 },
          data: bars.map(({ step, lane, endMin }) => ({
            value: [lane, step.startMin, endMin],
            itemStyle: { color: fillOf(step) },
          })),
          renderItem: barOf,
        },
      ],
    }
  }, [bars, total, done, picked, critical])
  const place = useChart(
    option,
    useCallback((chart: EChartsType) => {
      chart.on('click', ({ dataIndex }) => {
        const bar = latest.current.bars[dataIndex]
        if (bar) latest.current.onPick(bar.step.id)
      })
    }, []),
  )
  return (
    <section aria-label="Time of the build" className="mx-5 mt-3 mb-2 border border-line bg-panel px-2 py-1">
      <div
        ref={place}
        role="img"
        aria-label={`Cutter, hands and waiting over ${formatMinutes(total)}; what may not be late is darker`}
        className="h-28 w-full"
      />
    </section>
  )
}

/** A bar in its lane, at least 2 px wide. */
const barOf: CustomSeriesRenderItem = (params, api) => {
  const [from = 0, y = 0] = api.coord([api.value(1), api.value(0)])
  const [to = 0] = api.coord([api.value(2), api.value(0)])
  const high = (api.size!([0, 1]) as number[])[1]! * 0.72
  const within = params.coordSys as unknown as { x: number; y: number; width: number; height: number }
  const shape = graphic.clipRectByRect(
    { x: from, y: y - high / 2, width: Math.max(2, to - from), height: high },
    within,
  )
  return shape && { type: 'rect', shape, style: { fill: api.visual('color'), stroke: PAGE, lineWidth: 1 } }
}

/** A maker's words in a tooltip, which is read as markup. */
const graphicText = (words: string): string =>
  words.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')
