import { selectGoodCuts } from '../state/selectors'
import { useAppSelector } from '../state/store'

interface Props {
  /** What would be changed: “size”. */
  what: string
  /** Layers that it is of; all where not given. */
  of?: readonly string[]
  /** What does no harm, as a sentence. */
  but?: string
  className?: string
}

/** Pieces that are cut, before something is changed that spoils them; nothing where there are none. */
export function SpoilsNote({ what, of, but, className = '' }: Props) {
  const count = useCutCount(of)
  if (count === 0) return null
  const [some, are, them] = count === 1 ? ['A piece', 'is', 'it'] : [`${count} pieces`, 'are', 'them']
  return (
    <p className={`text-[13px] text-ochre ${className}`} data-spoils={count}>
      ▲ {some} {of && 'of it '}
      {are} cut: another {what} spoils {them}.{but && ` ${but}`}
    </p>
  )
}

/** How many pieces of some layers, or of all, are cut and of use still. */
export const useCutCount = (of?: readonly string[]): number =>
  useAppSelector((state) => {
    const cuts = selectGoodCuts(state)
    return (of ?? [...cuts.keys()]).reduce((sum, id) => sum + (cuts.get(id) ?? 0), 0)
  })
