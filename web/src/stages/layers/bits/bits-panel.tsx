import { useState } from 'react'
import { selectProject } from '../../../state/selectors'
import { useAppSelector } from '../../../state/store'
import { useWords } from '../../../state/use-words'
import { Button, Choice, Heading, LengthField, NumberField, SelectField } from '../../../ui'
import type { Fold } from '@feuillet/core/project'
import { scoredFace } from '@feuillet/core/stages/layers'
import { MOST_BITS, type Bits, type LaidTie } from './use-bits'

/** What can be done with the piece, opening or strip that is picked on the board. */
export function BitsPanel({ bits, safeMm }: { bits: Bits; safeMm: number }) {
  const project = useAppSelector(selectProject)
  const { unit, size, length } = useWords()
  const [other, setOther] = useState('')
  const { layer, picked, act, tool, list } = bits
  const layerId = layer.id
  const others = project.layers.filter(({ id }) => id !== layerId)
  const to = others.find(({ id }) => id === other) ?? others[0]
  const pieceIds = picked ? [picked.pieceId] : []
  const count = (kind: string) => list.filter((bit) => bit.kind === kind).length
  return (
    <Heading title={`Pieces of ${layer.name}`}>
      <div className="grid gap-2">
        <Choice
          label="On the board"
          value={tool}
          options={[
            { value: 'pick', label: 'pick' },
            { value: 'lay', label: 'lay strip', title: 'Drag from piece to piece: it ties them' },
            { value: 'cut', label: 'cut', title: 'Drag a strip across a tie to part it' },
            { value: 'fold', label: 'fold', title: 'Drag a line to score and fold along' },
          ]}
          onChange={bits.setTool}
        />
        {(tool === 'lay' || tool === 'cut') && (
          <LengthField
            label="Width of the strip"
            unit={unit}
            valueMm={bits.stripMm}
            min={0.2}
            max={50}
            onChange={bits.setStripMm}
          />
        )}
        {tool === 'fold' && <FoldTool bits={bits} />}
        {tool === 'pick' && bits.pickedTie && <TieFields bits={bits} tie={bits.pickedTie} />}
        {tool === 'pick' && !picked && !bits.pickedTie && (
          <p className="text-[13px] text-soft">
            {count('piece')} pieces, {count('opening')} openings
            {count('strip') > 0 && `, ${count('strip')} strips too narrow`}
            {bits.ties.length > 0 && `, ${bits.ties.length} ties`}: press one in the drawing.
            {list.length >= MOST_BITS && ` The first ${MOST_BITS} can be picked.`}
          </p>
        )}
        {tool === 'pick' && picked && (
          <>
            <p className="text-[13.5px]">
              <strong className="font-semibold">{picked.name}</strong>:{' '}
              {picked.kind === 'strip'
                ? `${length(picked.widthMm)} wide, safe is ${length(safeMm)}`
                : size(picked.widthMm, picked.heightMm)}
            </p>
            <div className="flex flex-wrap gap-2">
              {picked.kind === 'strip' && (
                <Button
                  small
                  onClick={() =>
                    act('widen a strip of', { kind: 'widen-at', layerId, at: picked.at, safeMm })
                  }
                >
                  Widen it alone
                </Button>
              )}
              {picked.kind === 'opening' && (
                <Button
                  small
                  onClick={() => act('fill an opening of', { kind: 'fill-opening', layerId, at: picked.at })}
                >
                  Fill it
                </Button>
              )}
              {picked.kind === 'piece' && (
                <>
                  <Button
                    small
                    onClick={() => act('drop a piece of', { kind: 'drop-specks', layerId, pieceIds })}
                  >
                    Drop it
                  </Button>
                  <Button
                    small
                    disabled={layer.pieces.length < 2}
                    onClick={() => act('split a piece off', { kind: 'split-off', layerId, pieceIds })}
                  >
                    A layer of its own
                  </Button>
                </>
              )}
            </div>
            {picked.kind === 'piece' && to && (
              <div className="flex items-end gap-2">
                <SelectField
                  label="Move it to"
                  className="w-36"
                  value={to.id}
                  options={others.map(({ id, name }) => ({ value: id, label: name }))}
                  onChange={setOther}
                />
                <Button
                  small
                  title="It joins what it touches there"
                  onClick={() =>
                    act('move a piece of', { kind: 'move-pieces', layerId, pieceIds, toId: to.id })
                  }
                >
                  Move
                </Button>
              </div>
            )}
          </>
        )}
      </div>
    </Heading>
  )
}

/** A tie that is picked: how wide it is, and how it is moved. */
function TieFields({ bits, tie }: { bits: Bits; tie: LaidTie }) {
  const { unit, length } = useWords()
  return (
    <>
      <p className="text-[13.5px]">
        <strong className="font-semibold">{tie.name}</strong>: {length(tie.lengthMm)} long. Drag it, or one of
        its ends; arrow keys move it.
      </p>
      <LengthField
        label="Width of the tie"
        unit={unit}
        valueMm={tie.widthMm}
        min={0.2}
        max={50}
        onChange={(widthMm) => void bits.moveTie(tie, { ...tie, widthMm })}
      />
      <Button small className="justify-self-start" onClick={() => void bits.moveTie(tie, null)}>
        Take it out
      </Button>
    </>
  )
}

const WAYS = [
  { value: 'up', label: 'up', title: 'The smaller part turns towards the eye' },
  { value: 'down', label: 'down', title: 'It turns away, behind the piece' },
] as const

/** How the next fold turns, and the folds that are there. */
function FoldTool({ bits: { layer, turn, setTurn, setFolds } }: { bits: Bits }) {
  const { words } = useWords()
  const put = (at: number, patch: Partial<Fold>) =>
    setFolds(
      'fold of',
      layer.folds.map((fold, i) => (i === at ? { ...fold, ...patch } : fold)),
    )
  return (
    <>
      <Choice
        label="The next fold turns"
        captioned
        value={turn.way}
        options={WAYS}
        onChange={(way) => setTurn({ ...turn, way })}
      />
      <NumberField
        label="By"
        unitHint="°"
        value={turn.deg}
        min={1}
        max={180}
        onChange={(deg) => setTurn({ ...turn, deg })}
      />
      {layer.folds.length > 0 && (
        <ul className="grid gap-1 text-[13px]" aria-label="Folds">
          {layer.folds.slice(0, MOST_FOLDS).map((fold, i) => (
            <li key={i} className="flex items-center gap-2 border-t border-line pt-1">
              <span className="min-w-0 flex-1">
                {i + 1}: {fold.way} by {words(`${Math.round(fold.deg)}°`)}, scored on the {scoredFace(fold)}
              </span>
              <Button look="quiet" onClick={() => put(i, { way: fold.way === 'up' ? 'down' : 'up' })}>
                Turn over
              </Button>
              <Button look="quiet" onClick={() => put(i, { deg: turn.deg })}>
                {turn.deg}°
              </Button>
              <Button
                look="quiet"
                onClick={() =>
                  setFolds(
                    'drop a fold of',
                    layer.folds.filter((_, k) => k !== i),
                  )
                }
              >
                Drop
              </Button>
            </li>
          ))}
        </ul>
      )}
    </>
  )
}

const MOST_FOLDS = 40
