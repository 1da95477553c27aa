// A chart by ECharts, drawn as SVG in the application's type. A screen loads it lazily: the library is large.
import { BarChart, LineChart } from 'echarts/charts'
import { GridComponent, LegendComponent, TooltipComponent } from 'echarts/components'
import { init, use as register, type EChartsType } from 'echarts/core'
import type { EChartsOption } from 'echarts'
import { SVGRenderer } from 'echarts/renderers'
import { useEffect, useRef } from 'react'

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
    chart.current?.setOption(
      {
        animation: false,
        textStyle: FONT,
        ...option,
        ...(option.legend
          ? { legend: { itemWidth: 14, itemHeight: 10, textStyle: FONT, ...option.legend } }
          : {}),
      },
      // Drawn with the next frame: what the screen shows beside it comes first.
      { notMerge: true, lazyUpdate: true },
    )
  }, [option])
  return <div ref={place} role="img" aria-label={label} className={className} style={{ height: heightPx }} />
}
