// What of a table could not be taken.

/** So many sentences are read; what is wrong with a whole column is in the first of them. */
const SHOWN = 12

/** A sentence for each row that was left out, the first ones of many. */
export function TableFaults({ wrong }: { wrong: readonly string[] }) {
  if (wrong.length === 0) return null
  const more = wrong.length - SHOWN
  return (
    <div
      role="alert"
      className="mb-2 max-h-24 overflow-y-auto border-l-4 border-ochre bg-ochre-pale px-3 py-1.5 text-[13px]"
    >
      {wrong.slice(0, SHOWN).map((sentence) => (
        <p key={sentence}>▲ {sentence}</p>
      ))}
      {more > 0 && <p>▲ And {more === 1 ? 'one more row' : `${more} more rows`}.</p>}
    </div>
  )
}
