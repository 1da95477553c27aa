// Looking back over all projects: hours by stage, sheets by paper, the drawer over time.
import { lazy, Suspense, useMemo } from 'react'
import { format } from 'date-fns'
import type { EChartsOption } from 'echarts'
import { STAGES } from '@feuillet/core/project'
import { drawerOverTime, sheetsUsedOf } from '@feuillet/core/stages/journal'
import { formatMinutes } from '@feuillet/core/base/units'
import { stageName } from '../../shell/stage-names'
import { useAppSelector } from '../../state/store'
import { selectProject } from '../../state/selectors'
import { Heading } from '../../ui'
import { useDigests } from './use-shelf'

const Chart = lazy(() => import('../../ui/chart'))

const DAY_MS = 24 * 3600 * 1000
/** More papers than this are told as the rest. */
const MOST_PAPERS = 14
/** From a light grey to the accent, a stage each. */
const SHADES = ['#d8d9d4', '#bfc1bb', '#a3a69e', '#85797f', '#8f6496', '#6b2d73', '#3c1a41']

export function OverAll({ now }: { now: number }) {
  const { stock } = useAppSelector((state) => state.document)
  const { drawer } = useAppSelector(selectProject)
  const { digests, doing } = useDigests(now)
  const papers = useMemo(
    () => new Map([...stock, ...drawer.papers].map((paper) => [paper.id, paper])),
    [stock, drawer.papers],
  )
  const worked = useMemo(
    () => digests.filter(({ minutes }) => STAGES.some((stage) => minutes[stage] > 0)),
    [digests],
  )
  const hours = useMemo(
    (): EChartsOption => ({
      legend: { top: 0, left: 0 },
      tooltip: { valueFormatter: (value: unknown) => formatMinutes(Number(value) * 60) },
      grid: { left: 130, right: 24, top: 34, bottom: 24 },
      xAxis: { type: 'value', axisLabel: { formatter: '{value} h' } },
      yAxis: { type: 'category', inverse: true, data: worked.map(({ name }) => name), axisLabel: { width: 118, overflow: 'truncate' } }, // prettier-ignore
      series: STAGES.map((stage, k) => ({
        name: stageName[stage],
        type: 'bar',
        stack: 'hours',
        barMaxWidth: 26,
        data: worked.map(({ minutes }) => Number((minutes[stage] / 60).toFixed(3))),
        itemStyle: { color: SHADES[k % SHADES.length]!, borderColor: '#1e2126', borderWidth: 0.5 },
      })),
    }),
    [worked],
  )
  const sheets = useMemo((): EChartsOption => {
    const all = sheetsUsedOf(digests)
    const shown = all.slice(0, MOST_PAPERS)
    const rest = all.slice(MOST_PAPERS).reduce((sum, { count }) => sum + count, 0)
    const bars = [
      ...shown.map(({ paperId, count }) => ({
        name: papers.get(paperId)?.name ?? 'no longer in the drawer',
        value: count,
        colour: papers.get(paperId)?.colour ?? '#d8d9d4',
      })),
      ...(rest > 0 ? [{ name: 'all others', value: rest, colour: '#d8d9d4' }] : []),
    ]
    return {
      tooltip: { valueFormatter: (value: unknown) => `${Number(value)} sheets` },
      grid: { left: 130, right: 24, top: 8, bottom: 24 },
      xAxis: { type: 'value', minInterval: 1, axisLabel: { formatter: '{value}' } },
      yAxis: { type: 'category', inverse: true, data: bars.map(({ name }) => name), axisLabel: { width: 118, overflow: 'truncate' } }, // prettier-ignore
      series: [
        {
          name: 'used',
          type: 'bar',
          barMaxWidth: 22,
          data: bars.map(({ value, colour }) => ({
            value,
            itemStyle: { color: colour, borderColor: '#1e2126', borderWidth: 0.8 },
          })),
        },
      ],
    }
  }, [digests, papers])
  const level = useMemo((): EChartsOption => {
    const atHand = stock.reduce((sum, { count }) => sum + count, 0)
    const steps = drawerOverTime(digests, { atHand, now })
    // A day of what was there before leads in.
    const points = [{ at: steps[0]!.at - DAY_MS, sheets: steps[0]!.sheets }, ...steps]
    return {
      tooltip: { trigger: 'axis', valueFormatter: (value: unknown) => `${Number(value)} sheets` },
      grid: { left: 52, right: 24, top: 12, bottom: 28 },
      xAxis: {
        type: 'time',
        axisLabel: { hideOverlap: true, formatter: (at: number) => format(at, 'd MMM') },
      },
      yAxis: { type: 'value', minInterval: 1, scale: true },
      series: [
        {
          name: 'at hand',
          type: 'line',
          showSymbol: points.length < 40,
          data: points.map(({ at, sheets: n }) => [at, n]),
          lineStyle: { color: '#6b2d73', width: 2 },
          itemStyle: { color: '#6b2d73' },
        },
      ],
    }
  }, [digests, stock, now])
  const used = digests.some((digest) => digest.used.length > 0)
  return (
    <Suspense fallback={<p className="text-soft">Opening…</p>}>
      <p className="mb-2 text-[13px] text-soft" aria-live="polite">
        {doing ? `Reading ${doing}…` : `${digests.length} projects of the shelf.`}
      </p>
      <Heading title="Hours by stage">
        {worked.length > 0 ? (
          <>
            <Chart
              label={`Hours by stage of ${worked.length} projects`}
              option={hours}
              className="w-full"
              // A line a project.
              heightPx={70 + 34 * worked.length}
            />
            <p className="text-[13px] text-soft">
              By the clocks of the stages; steps that the bench timed count for Assembly, cutting and weeding
              for Sheets.
            </p>
          </>
        ) : (
          <p className="text-soft">
            No clock has run yet: start one under “what it took”, or work at the bench.
          </p>
        )}
      </Heading>
      <Heading title="Sheets used, by paper">
        {used ? (
          <Chart
            label="Sheets used, by paper"
            option={sheets}
            className="w-full"
            heightPx={40 + 26 * Math.min(MOST_PAPERS + 1, sheetsUsedOf(digests).length)}
          />
        ) : (
          <p className="text-soft">No sheets are noted as used yet.</p>
        )}
      </Heading>
      <Heading title="Sheets at hand over time">
        {used ? (
          <>
            <Chart label="Sheets at hand over time" option={level} />
            <p className="text-[13px] text-soft">
              Back from what is at hand now by what was noted as used since; what was bought or corrected in
              between is not known.
            </p>
          </>
        ) : (
          <p className="text-soft">It begins with the first sheet that is noted as used.</p>
        )}
      </Heading>
    </Suspense>
  )
}
