// Every fit of the gaps, from shallow to deep, by a slide.
import { useState } from 'react'
import { freeLayers, withGaps, type GapPlan } from '@feuillet/core/stages/depth'
import { change } from '../../state/edits'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { useWords } from '../../state/use-words'
import { Button, Heading } from '../../ui'
import { editor } from '../../workers'

export function FitSlider() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { length } = useWords()
  const [fits, setFits] = useState<readonly GapPlan[] | null>(null)
  const [busy, setBusy] = useState(false)
  const free = freeLayers(project)
  if (free.length === 0) return null
  const gapOf = (layerId: string) => {
    const joint = project.layers.find(({ id }) => id === layerId)?.joint
    return joint?.kind === 'foam' ? joint.gapMm : 0
  }
  const at = fits?.findIndex(({ gaps }) => gaps.every(({ layerId, gapMm }) => gapOf(layerId) === gapMm)) ?? -1
  const look = async () => {
    setBusy(true)
    try {
      setFits(await editor.ask((api) => api.fits(project)))
    } finally {
      setBusy(false)
    }
  }
  const take = (k: number) => {
    const fit = fits?.[k]
    if (fit) dispatch(change('gaps, shallow to deep', (p) => withGaps(p, fit.gaps), 'gaps by slide'))
  }
  return (
    <Heading title="From shallow to deep">
      {fits === null ? (
        <Button small disabled={busy} onClick={() => void look()}>
          {busy ? 'Looking…' : 'Show every fit'}
        </Button>
      ) : (
        <label className="grid gap-1">
          <input
            type="range"
            aria-label="From shallow to deep"
            aria-valuetext={at < 0 ? 'none of them' : `${at + 1} of ${fits.length}`}
            className="w-full accent-plum"
            min={0}
            max={fits.length - 1}
            step={1}
            value={Math.max(0, at)}
            onChange={(event) => take(Number(event.target.value))}
          />
          <span className="text-[13px] text-soft">
            {at < 0
              ? `${fits.length} fits, from ${length(fits[0]?.stackMm ?? 0)} to ${length(fits.at(-1)?.stackMm ?? 0)}; yours is none of them. Slide to take one.`
              : `${at + 1} of ${fits.length}: ${length(fits[at]!.stackMm)} high, gaps ${fits[at]!.gaps.map(({ gapMm }) => (gapMm > 0 ? length(gapMm) : 'glue')).join(', ')} from the back.`}
          </span>
        </label>
      )}
    </Heading>
  )
}
