// A chart of ECharts in an element of its own: made once the element has a size, drawn anew where its option changes.
import { init, type EChartsType } from 'echarts/core'
import type { EChartsOption } from 'echarts'
import { useEffect, useRef } from 'react'

/** The chart of an option (memoized by whom it is of) in the element that takes the ref; `onMade` is told it once. */
export function useChart(option: EChartsOption, onMade?: (chart: EChartsType) => void) {
  const place = useRef<HTMLDivElement>(null)
  const chart = useRef<EChartsType | null>(null)
  const latest = useRef({ option, onMade })
  useEffect(() => {
    latest.current = { option, onMade }
    // Drawn with the next frame: what the screen shows beside it comes first.
    chart.current?.setOption(option, { notMerge: true, lazyUpdate: true })
  }, [option, onMade])
  useEffect(() => {
    // An observer is called when the page has been laid out: a chart that was made before would lay it out itself.
    const observer = new ResizeObserver(() => {
      if (chart.current) return chart.current.resize()
      const made = init(place.current!, null, { renderer: 'svg' })
      chart.current = made
      latest.current.onMade?.(made)
      made.setOption(latest.current.option, { lazyUpdate: true })
    })
    observer.observe(place.current!)
    return () => {
      observer.disconnect()
      chart.current?.dispose()
      chart.current = null
    }
  }, [])
  return place
}
