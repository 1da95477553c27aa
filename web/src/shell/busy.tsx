import { useEffect, useState } from 'react'
import { findLayer, type Project } from '@feuillet/core/project'
import { selectProject, selectSettled } from '../state/selectors'
import { useAppSelector } from '../state/store'

/** Shorter work is over before it is read. */
const PATIENCE_MS = 300

/** What nodes compute, in the maker's words; the others are too quick to be named. */
const WORDS: Record<string, string> = {
  front: 'what lies in front',
  seen: 'what shows',
  necks: 'weak places',
  turns: 'wrong ways of laying',
  'number at': 'places for numbers',
  lifted: 'heights',
  standing: 'what carries',
  held: 'pads',
  runs: 'pieces by paper',
  layout: 'sheets',
  loads: 'loads',
  'left of run': 'off-cuts',
}

function wordsFor(doing: string, project: Project): string {
  const name = Object.keys(WORDS).find((node) => doing === node || doing.startsWith(`${node} `))
  if (!name) return 'figures'
  const layer = findLayer(project, doing.slice(name.length + 1))
  return layer ? `${WORDS[name]} of “${layer.name}”` : WORDS[name]!
}

/** Says what is being computed, where it takes more than a moment. */
export function Busy() {
  const project = useAppSelector(selectProject)
  const settled = useAppSelector(selectSettled)
  const doing = useAppSelector((state) => state.plan.doing)
  const [late, setLate] = useState(false)
  useEffect(() => {
    if (settled) return
    const timer = setTimeout(() => setLate(true), PATIENCE_MS)
    return () => {
      clearTimeout(timer)
      setLate(false)
    }
  }, [settled])
  return (
    // Its place is kept, so that nothing moves when it comes.
    <span
      aria-hidden
      className="line-clamp-2 w-44 text-right text-[12px] leading-tight text-soft max-[1220px]:w-24"
    >
      {!settled && late ? `computing ${doing ? wordsFor(doing, project) : 'figures'}…` : ''}
    </span>
  )
}
