import { useMemo } from 'react'
import type { EChartsOption } from 'echarts'
import type { Cost } from '@feuillet/core/stages/journal'
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
