import { SMALL_OPENING_MM, TWEEZER_MM, type SoundView, type Turn } from '@feuillet/core/stages/layers'
import { formatLength, formatMinutes, formatShare } from '@feuillet/core/base/units'
import { selectUnit } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { Figure, Figures, Heading } from '../../ui'

/** What may tear, fall out or go on the wrong way round. */
export function SoundPanel({ sound, numbered }: { sound: SoundView; numbered: boolean }) {
  const unit = useAppSelector(selectUnit)
  const necks = sound.necks.filter((neck) => neck.kind === 'neck')
  const nearly = sound.turns.filter((turn) => !turn.exact).toSorted((a, b) => a.difference - b.difference)
  const exact = sound.turns.length - nearly.length
  return (
    <Heading title="Soundness">
      <Figures>
        <Figure
          name="Narrowest strip"
          value={
            necks.length > 0
              ? formatLength(necks[0]!.widthMm, unit)
              : `${formatLength(sound.safeMm, unit)} or more`
          }
          alarm={necks.length > 0}
          basis={`Against ${formatLength(sound.safeMm, unit)}, the safe strip of its paper; between outlines that face each other across card`}
        />
        {necks.length > 1 && (
          <Figure name="Strips too narrow" value={necks.length} basis="Each is shown in the drawing" />
        )}
        {sound.passesAt !== null && necks.length > 0 && (
          <Figure
            name="All strips pass at"
            value={`× ${sound.passesAt.toFixed(2)}`}
            basis="Scale of the design, by the narrowest strip"
          />
        )}
        <Figure
          name="Small openings"
          value={sound.smallOpenings}
          basis={`Under ${formatLength(SMALL_OPENING_MM, unit)} across: their waste is hard to weed`}
        />
        <Figure
          name="Pieces for tweezers"
          value={sound.tweezerPieces}
          basis={`Under ${formatLength(TWEEZER_MM, unit)} across`}
        />
        <Figure name="Weeding" value={formatMinutes(sound.weedingMin)} basis="1.5 s an opening" />
        <Figure
          name="Number"
          value={!numbered ? 'bears none' : sound.numberAt ? 'hidden' : 'nowhere to hide'}
          basis={`On its card, under a layer above or the frame’s lip, within ${formatLength(4, unit)}; drawn here as it comes onto the card`}
        />
      </Figures>
      {nearly.length > 0 && (
        <p className="mt-2 border-l-4 border-ochre bg-ochre-pale px-3 py-1.5 text-[13.5px]">
          <span aria-hidden>▲ </span>
          Looks right {nearly.slice(0, 3).map(turnWords).join(' or ')}, but is not.{' '}
          {sound.signAt
            ? `The only sign is ${sound.signAt}, ringed in the drawing.`
            : 'Mark it before it is laid.'}
        </p>
      )}
      {exact > 0 && (
        <p className="mt-2 text-[13px] text-soft">
          <span aria-hidden>✓ </span>
          {exact === 1
            ? `Just as right ${turnWords(sound.turns.find((turn) => turn.exact)!)}.`
            : `Just as right ${exact} other ways round: no way of laying it is wrong.`}
        </p>
      )}
    </Heading>
  )
}

const turnWords = (turn: Turn): string => {
  const by = turn.turnDeg === 0 ? '' : ` turned ${Math.round(turn.turnDeg)}°`
  return `${turn.flipped ? 'face down' : ''}${by}${turn.exact ? '' : ` (${formatShare(turn.difference)} differs)`}`.trim()
}
