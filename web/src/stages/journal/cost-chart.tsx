import { useMemo } from 'react'
import type { EChartsOption } from 'echarts'
import { costByPart, type Cost, type CostLine } from '@feuillet/core/stages/journal'
import Chart from '../../ui/chart'

/** Planned cost beside cost so far, by what it goes to. */
export default function CostChart({
  planned,
  spent,
  currency,
}: {
  planned: Cost
  spent: Cost
  currency: string
}) {
  const option = useMemo((): EChartsOption => {
    const bars = (cost: Cost) =>
      [cost.paper, cost.foam, cost.other, cost.hands].map((v) => Number(v.toFixed(2)))
    return {
      legend: { top: 0, left: 0 },
      tooltip: { valueFormatter: (value: unknown) => `${Number(value).toFixed(2)} ${currency}` },
      grid: { left: 52, right: 8, top: 30, bottom: 24 },
      xAxis: { type: 'category', data: ['paper', 'foam', 'other', 'hands'], axisTick: { show: false } },
      yAxis: { type: 'value', splitNumber: 4, axisLabel: { formatter: `{value} ${currency}` } },
      series: [
        {
          name: 'planned',
          type: 'bar',
          data: bars(planned),
          itemStyle: { color: '#bfc1bb', borderColor: '#1e2126', borderWidth: 1 },
        },
        { name: 'so far', type: 'bar', data: bars(spent), itemStyle: { color: '#6b2d73' } },
      ],
    }
  }, [planned, spent, currency])
  return <Chart label="Cost by paper, foam, other things and hands, planned and so far" option={option} />
}

/** Room for a bar and its name, px. */
const BAR_PX = 24

/** What the planned cost goes to, thing by thing, the dearest on top. */
export function PartsChart({ lines, currency }: { lines: readonly CostLine[]; currency: string }) {
  const parts = useMemo(() => costByPart(lines).toReversed(), [lines])
  const option = useMemo(
    (): EChartsOption => ({
      tooltip: { valueFormatter: (value: unknown) => `${Number(value).toFixed(2)} ${currency}` },
      grid: { left: 172, right: 64, top: 4, bottom: 24 },
      xAxis: { type: 'value', splitNumber: 4, axisLabel: { formatter: `{value} ${currency}` } },
      yAxis: {
        type: 'category',
        data: parts.map(({ name }) => name),
        axisTick: { show: false },
        axisLabel: { width: 160, overflow: 'truncate' },
      },
      series: [
        {
          type: 'bar',
          data: parts.map(({ cost }) => Number(cost.toFixed(2))),
          itemStyle: { color: '#bfc1bb', borderColor: '#1e2126', borderWidth: 1 },
          label: {
            show: true,
            position: 'right',
            formatter: ({ value }) => `${Number(value).toFixed(2)} ${currency}`,
          },
        },
      ],
    }),
    [parts, currency],
  )
  return (
    <Chart label="What the cost goes to, by part" option={option} heightPx={40 + BAR_PX * parts.length} />
  )
}
