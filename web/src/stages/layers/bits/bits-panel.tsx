import { useState } from 'react'
import { selectProject } from '../../../state/selectors'
import { useAppSelector } from '../../../state/store'
import { useWords } from '../../../state/use-words'
import { Button, Choice, Heading, LengthField, SelectField } from '../../../ui'
import type { Bits } from './use-bits'

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
            { value: 'lay', label: 'lay a strip', title: 'Drag from piece to piece: it ties them' },
            { value: 'cut', label: 'cut a strip', title: 'Drag across a tie to part it' },
          ]}
          onChange={bits.setTool}
        />
        {tool !== 'pick' && (
          <LengthField
            label="Width of the strip"
            unit={unit}
            valueMm={bits.stripMm}
            min={0.2}
            max={50}
            onChange={bits.setStripMm}
          />
        )}
        {tool === 'pick' && !picked && (
          <p className="text-[13px] text-soft">
            {count('piece')} pieces, {count('opening')} openings
            {count('strip') > 0 && `, ${count('strip')} strips too narrow`}: press one in the drawing.
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
