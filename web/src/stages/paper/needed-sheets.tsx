// What the loads want of each paper, what of it is at hand, and what the rest costs.
import { formatSize } from '@feuillet/core/base/units'
import { sameButSize } from '@feuillet/core/project'
import { buyWords, toPay } from '@feuillet/core/stages/sheets'
import { usePlan } from '../../plan'
import { selectProject, selectUnit } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { Figure, Figures, Heading } from '../../ui'

export function NeededSheets() {
  const unit = useAppSelector(selectUnit)
  const { currency } = useAppSelector(selectProject).drawer
  const needed = usePlan('needed')
  return (
    <Heading title="Sheets and shopping">
      {needed ? (
        <>
          <table className="w-full text-[13px]">
            <thead className="text-left text-soft">
              <tr>
                <th className="font-normal">paper</th>
                <th className="text-right font-normal">needed</th>
                <th className="text-right font-normal">have</th>
                <th className="text-right font-normal">buy</th>
              </tr>
            </thead>
            <tbody>
              {needed.map((need) => (
                <tr key={need.paper.id}>
                  <td className="max-w-28 truncate">
                    <span
                      aria-hidden
                      className="mr-1.5 inline-block h-3 w-3 border border-line align-[-1px]"
                      style={{ background: need.paper.colour }}
                    />
                    {need.paper.name}
                    {needed.some((other) => sameButSize(other.paper, need.paper)) &&
                      ` ${formatSize(need.paper.widthMm, need.paper.heightMm, unit)}`}
                  </td>
                  <td className="measure text-right">{need.sheets}</td>
                  <td className="measure text-right">{need.paper.count}</td>
                  <td className={`measure text-right ${need.buy ? 'text-ochre' : ''}`}>
                    {need.buy ? `▲ ${buyWords(need)}` : '0'}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {needed.some(({ buy }) => buy > 0) && (
            <div className="mt-2">
              <Figures>
                <Figure
                  name="To pay for what is short"
                  value={`${needed.reduce((sum, need) => sum + toPay(need), 0).toFixed(2)} ${currency}`}
                  basis="Whole packs, at the prices of the drawer"
                />
              </Figures>
            </div>
          )}
        </>
      ) : (
        <p className="text-soft">Computing…</p>
      )}
    </Heading>
  )
}
