import { BarChart } from 'echarts/charts'
import { GridComponent, LegendComponent, TooltipComponent } from 'echarts/components'
import { init, use as register, type EChartsType } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { useEffect, useRef } from 'react'
import type { Cost } from '@feuillet/core/stages/journal'

register([BarChart, GridComponent, LegendComponent, TooltipComponent, SVGRenderer])

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
  const place = useRef<HTMLDivElement>(null)
  const chart = useRef<EChartsType | null>(null)
  useEffect(() => {
    chart.current = init(place.current!, null, { renderer: 'svg' })
    const observer = new ResizeObserver(() => chart.current?.resize())
    observer.observe(place.current!)
    return () => {
      observer.disconnect()
      chart.current?.dispose()
    }
  }, [])
  useEffect(() => {
    const font = { fontFamily: 'Atkinson Hyperlegible Next Variable', color: '#1e2126' }
    const bars = (cost: Cost) =>
      [cost.paper, cost.foam, cost.other, cost.hands].map((v) => Number(v.toFixed(2)))
    chart.current?.setOption({
      animation: false,
      textStyle: font,
      legend: { top: 0, left: 0, itemWidth: 14, itemHeight: 10, textStyle: font },
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
    })
  }, [planned, spent, currency])
  return (
    <div
      ref={place}
      role="img"
      aria-label="Cost by paper, foam, other things and hands, planned and so far"
      className="h-56 w-full"
    />
  )
}
