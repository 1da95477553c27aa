import { loadTag, type LoadView } from '@feuillet/core/stages/sheets'
import { inkOn } from '../../../ui/folio-tab'

interface Props {
  loads: readonly LoadView[]
  picked: LoadView | undefined
  /** A run is under way: no other can be picked. */
  locked: boolean
  /** Ids of loads that are cut already. */
  cut: ReadonlySet<string>
  onPick: (loadId: string) => void
}

/** All loads by their tags, in the order in which they are cut. */
export const LoadsToCut = ({ loads, picked, locked, cut, onPick }: Props) => (
  <ol
    aria-label="Loads to cut"
    className="flex gap-1.5 overflow-x-auto border-t border-line bg-panel px-5 py-2"
  >
    {loads.map((l) => (
      <li key={l.id}>
        <button
          type="button"
          disabled={locked && l !== picked}
          aria-pressed={l === picked}
          onClick={() => onPick(l.id)}
          className={`clip-tab grid h-12 max-w-32 min-w-16 content-between px-1.5 py-1 text-left ${l === picked ? 'outline-2 -outline-offset-3 outline-current' : ''}`}
          style={{ background: l.paper.colour, color: inkOn(l.paper.colour) }}
        >
          <span className="truncate leading-none font-semibold">{loadTag(l)}</span>
          <span className="text-[11px] leading-none">
            load {l.number}
            {cut.has(l.id) && ' ✓'}
          </span>
        </button>
      </li>
    ))}
  </ol>
)
