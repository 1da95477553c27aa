// What a step looks like: the stack as far as it is built, or the piece alone from behind where its back is worked on; at true size
// where that is asked for.
import { padPlace, PadShape } from '../../drawing/pad-shape'
import { useState } from 'react'
import {
  builtLayers,
  colourOf,
  findLayer,
  isPressed,
  layerBox,
  paperOf,
  viewBox,
  type Layer,
  type Project,
} from '@feuillet/core/project'
import { mountPictureOf, type Step } from '@feuillet/core/stages/assembly'
import type { LoadView, SheetDrawing as Drawn } from '@feuillet/core/stages/sheets'
import { flagsOf, type Flag } from '@feuillet/core/stages/layers'
import { growBox } from '@feuillet/core/base/geometry'
import { usePlan } from '../../plan'
import { Board } from '../../drawing/board'
import { ColouringMarks } from '../../drawing/colouring-marks'
import { GlueMarks } from '../../drawing/glue-marks'
import { PinMarks } from '../../drawing/pin-marks'
import { SheetDrawing } from '../../drawing/sheet'
import { inkOn } from '../../ui/folio-tab'
import { LayerShape, StackDrawing } from '../../drawing/stack'
import { FrameFromSide, ShimsDrawing, SticksDrawing } from './bench-mounts'
import { useLargeSheet, useStepSheet } from './use-step-sheet'

interface Props {
  project: Project
  step: Step | undefined
  steps: readonly Step[]
  at: number
}

/** A card as every purse holds one is so wide, mm. */
const CARD_MM = 85.6
const KEPT_AS = 'feuillet px per mm'

/** Whether a step works on the back of its layer, which then lies face down. */
const fromBehind = (step: Step | undefined): boolean => step?.kind === 'pad' || step?.kind === 'glue'

/** The picture of a step, filling its place. */
export function BenchPicture({ project, step, steps, at }: Props) {
  const sheet = useStepSheet(step?.loadId ?? null)
  const drawn = useLargeSheet(sheet)
  const { load } = sheet
  const mounting = mountPictureOf(project, step, usePlan('depth'))
  const box = boxOf(project, step)
  if (step && mounting === 'frame' && project.mount.kind === 'frame')
    return (
      <>
        <FrameFromSide project={project} mount={project.mount} step={step} />
        <p className="mt-2 text-[15px] text-[#c3c5bf]">
          From the side, the pane on top; heights are drawn taller than they are.
        </p>
      </>
    )
  if (load)
    return (
      <>
        <Board
          name="bench"
          box={{ minX: 0, minY: 0, maxX: load.widthMm, maxY: load.heightMm }}
          unit={project.unit}
          label="The sheet of this step"
          rulers={false}
        >
          {(px) => (
            <SheetDrawing load={load} drawn={drawn} rimMm={project.drawer.cutter.rimMm} px={px}>
              <LoadPieces load={load} drawn={drawn} px={px} />
            </SheetDrawing>
          )}
        </Board>
        <p className="mt-2 text-[15px] text-[#c3c5bf]">
          Load {load.number}, {load.paper.name}
          {sheet.isCut && ', as it was cut'}
          {load.pieces.some(({ loose }) => loose) && ': loose bits to keep are drawn strong'}.
        </p>
      </>
    )
  return (
    <>
      <Board name="bench" box={box} unit={project.unit} label="The stack at this step" rulers={false}>
        {(px) => <StepDrawing {...{ project, step, steps, at, px }} />}
      </Board>
      <p className="mt-2 text-[15px] text-[#c3c5bf]">
        {fromBehind(step) || (mounting && mounting !== 'lip')
          ? 'From behind, as it lies face down on the bench.'
          : 'From the front.'}
      </p>
    </>
  )
}

/** Pieces of a sheet; loose bits that are kept are drawn strong. */
function LoadPieces({ load, drawn, px }: { load: LoadView; drawn: Drawn | null; px: number }) {
  const ink = inkOn(load.paper.colour)
  return (drawn?.pieces ?? []).map(({ path }, k) => {
    const isLoose = load.pieces[k]?.loose ?? false
    return (
      <path
        key={k}
        d={path}
        fillRule="evenodd"
        fill={isLoose ? '#e0a948' : ink}
        fillOpacity={isLoose ? 0.9 : 0.1}
        stroke={ink}
        strokeWidth={px * (isLoose ? 2 : 1)}
        data-loose={isLoose || undefined}
      />
    )
  })
}

const boxOf = (project: Project, step: Step | undefined) => {
  const layer = fromBehind(step) ? findLayer(project, step!.layerId) : undefined
  return layer && layer.pieces.length > 0 ? growBox(layerBox(layer), 4) : viewBox(project)
}

function StepDrawing({ project, step, steps, at, px }: Props & { px: number }) {
  const map = usePlan('padMap', step?.kind === 'pad' ? step.layerId : null)
  const glue = usePlan('glueMap', step?.kind === 'glue' ? step.layerId : null)
  const inked = usePlan('colouringMap', step?.kind === 'colour' ? step.layerId : null)
  const depth = usePlan('depth')
  const pins = depth?.pins ?? null
  const layers = builtLayers(project)
  const mounting = mountPictureOf(project, step, depth)
  const own = findLayer(project, step?.layerId ?? null)
  if (mounting === 'shims') return <ShimsDrawing project={project} box={boxOf(project, step)} px={px} />
  if (mounting === 'lip' && depth?.lip)
    return (
      <>
        <StackDrawing project={project} layers={layers} px={px} />
        {depth.lip.at.map(({ x, y, widthMm, heightMm }) => (
          <rect
            key={`${x} ${y}`}
            x={x - widthMm / 2}
            y={y - heightMm / 2}
            width={widthMm}
            height={heightMm}
            fill="#fff"
            stroke="#1e2126"
            strokeWidth={px * 1.2}
            data-lip-pad
          />
        ))}
      </>
    )
  if (mounting === 'sticks') return <SticksDrawing project={project} box={boxOf(project, step)} px={px} />
  if (own && fromBehind(step)) {
    const { minX, maxX } = boxOf(project, step)
    return (
      <g transform={`matrix(-1 0 0 1 ${minX + maxX} 0)`}>
        <LayerShape layer={own} colour={colourOf(project, own)} px={px} />
        {glue && <GlueMarks glue={glue} px={px} ink="#1e2126" />}
        {(map?.pads ?? []).map((pad, i) => (
          <g key={i} transform={padPlace(pad)}>
            <PadShape pad={pad} stroke="#1e2126" strokeWidth={px * 1.2} />
          </g>
        ))}
      </g>
    )
  }
  if (own?.tint && inked && step?.kind === 'colour') {
    const paper = paperOf(project, own)?.colour ?? own.colour
    const edge = project.drawer.inks.find(({ id }) => id === own.tint!.edgeInkId)?.colour ?? own.tint.colour
    return (
      <g>
        <LayerShape layer={own} colour={paper} px={px} />
        <ColouringMarks map={inked} px={px} ink={own.tint.colour} edgeInk={edge} />
      </g>
    )
  }
  const laid = new Set(
    steps
      .slice(0, at)
      .filter((s) => s.kind === 'lay' || s.kind === 'glue' || (s.kind === 'mount' && !s.pieceId))
      // What is built on the bench comes onto the stack with its part.
      .flatMap((s) => (s.onBench || !s.layerId ? [] : (s.asOne?.layerIds ?? [s.layerId]))),
  )
  const taken = new Set(step?.asOne?.layerIds ?? (own ? [own.id] : []))
  const lying = step?.onBench && new Set(step.onBench)
  const under = (layer: Layer) => layers[layers.indexOf(layer) - 1]
  // Film is part of its card from the first.
  const isThere = (layer: Layer): boolean =>
    laid.has(layer.id) || (isPressed(layer) && Boolean(under(layer) && isThere(under(layer)!)))
  const carrier = own && step?.kind === 'press' ? under(own) : undefined
  const shown =
    Boolean(step?.layerId) || laid.size > 0
      ? layers.filter(
          (layer) =>
            taken.has(layer.id) || layer === carrier || (lying ? lying.has(layer.id) : isThere(layer)),
        )
      : layers
  if (own && step?.pieceId) return <TwineDrawing {...{ project, step, steps, at, px }} />
  const pinned = own && own.id === pins?.layerId && step?.kind === 'lay'
  return (
    <>
      <StackDrawing project={project} layers={shown} px={px} />
      {pinned && <PinMarks at={pins.at} px={px} />}
    </>
  )
}

/** Flags as far as they hang on their twine, and the one that comes next. */
function TwineDrawing({ project, step, steps, at, px }: Props & { px: number }) {
  const flags = flagsOf(project)
  const hung = new Set(
    steps.slice(0, at).flatMap(({ pieceId, layerId }) => (pieceId ? [`${layerId}/${pieceId}`] : [])),
  )
  const box = viewBox(project)
  return (
    <g>
      <path
        d={`M${box.minX - 20} ${twineAt(flags)}H${box.maxX + 20}`}
        stroke="#b08d57"
        strokeWidth={Math.max(1, px * 2)}
      />
      {flags.map(({ layer, piece, nth }) => {
        const isNext = layer.id === step?.layerId && piece.id === step.pieceId
        const isThere = isNext || hung.has(`${layer.id}/${piece.id}`)
        return (
          <path
            key={nth}
            d={piece.path}
            fillRule="evenodd"
            fill={colourOf(project, layer)}
            opacity={isThere ? 1 : 0.18}
            stroke={isNext ? '#e0a948' : 'rgb(0 0 0 / 0.5)'}
            strokeWidth={px * (isNext ? 3 : 1)}
            data-flag={isNext ? 'next' : isThere ? 'hung' : 'waiting'}
          />
        )
      })}
    </g>
  )
}

/** Twine runs along the folds of the flaps, else along the upper edges. */
const twineAt = ([first]: readonly Flag[]): number =>
  first?.layer.folds[0]?.line[1] ?? (first ? layerBox(first.layer).minY : 0)

/** The step at true size on this very screen, to lay pieces on; the screen's size is told by holding a card to it. */
export function TrueSize(props: Props) {
  const [pxPerMm, setPxPerMm] = useState(() => Number(localStorage.getItem(KEPT_AS)) || 96 / 25.4)
  const box = boxOf(props.project, props.step)
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY]
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-3">
      <div
        className="min-h-0 flex-1 overflow-auto bg-[#d6d7d2]"
        tabIndex={0}
        aria-label="The step at true size"
      >
        <svg
          role="img"
          aria-label="True size"
          width={w * pxPerMm}
          height={h * pxPerMm}
          viewBox={`${box.minX} ${box.minY} ${w} ${h}`}
        >
          <StepDrawing {...props} px={1 / pxPerMm} />
        </svg>
      </div>
      <label className="grid gap-1 text-[15px] text-[#c3c5bf]">
        Hold a bank card to the bar and slide until they are as wide: {CARD_MM} mm
        <span
          className="block h-8 border-x-4 border-[#e0a948] bg-panel"
          style={{ width: CARD_MM * pxPerMm }}
        />
        <input
          type="range"
          aria-label="Size of the screen"
          min={1.5}
          max={14}
          step={0.005}
          value={pxPerMm}
          onChange={(event) => {
            const value = Number(event.target.value)
            setPxPerMm(value)
            try {
              localStorage.setItem(KEPT_AS, String(value))
            } catch {
              // Nothing is lost: it is asked again the next time.
            }
          }}
        />
      </label>
    </div>
  )
}
