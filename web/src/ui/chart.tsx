// A chart by ECharts, drawn as SVG in the application's type. A screen loads it lazily: the library is large.
import { BarChart, LineChart } from 'echarts/charts'
import { GridComponent, LegendComponent, TooltipComponent } from 'echarts/components'
import { use as register } from 'echarts/core'
import type { EChartsOption } from 'echarts'
import { SVGRenderer } from 'echarts/renderers'
import { useMemo } from 'react'
import { useChart } from './use-chart'

register([BarChart, LineChart, GridComponent, LegendComponent, TooltipComponent, SVGRenderer])

const FONT = { fontFamily: 'Atkinson Hyperlegible Next Variable', color: '#1e2126' }

export default function Chart({
  label,
  option,
  className = 'w-full',
  heightPx = 224,
}: {
  /** What it shows, for those who do not see it. */
  label: string
  option: EChartsOption
  className?: string
  heightPx?: number
}) {
  const place = useChart(
    useMemo(
      () => ({
        animation: false,
        textStyle: FONT,
        ...option,
        ...(option.legend
          ? { legend: { itemWidth: 14, itemHeight: 10, textStyle: FONT, ...option.legend } }
          : {}),
      }),
      [option],
    ),
  )
  return <div ref={place} role="img" aria-label={label} className={className} style={{ height: heightPx }} />
}
