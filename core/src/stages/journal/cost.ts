// What the work costs, line by line, and what is spent so far. Prices are the drawer's, what an hour of hands costs is the maker's.
import { groupBy } from '../../base'
import { polygonArea, rectangle } from '../../base/geometry'
import { measured, metres, say, shownAs, type Said, type Unit } from '../../base/units'
import { STAGES, type Project } from '../../project'
import type { Step } from '../assembly'
import { wholeOf, type DepthPlan, type GlueAmount } from '../depth'
import { sheetsNeeded, type Load } from '../sheets'
import { partsOf } from './parts'
import { minutesSpent } from './timers'

/** In the drawer’s currency. */
export interface Cost {
  paper: number
  foam: number
  /** Glue, frame, sticks, twine, prints, blades, mats, the machine, and what the maker added. */
  other: number
  hands: number
  total: number
}

/** Kinds of cost, in the order in which they are told. */
export const COST_KINDS = [
  'paper',
  'off-cut',
  'foam',
  'glue',
  'print',
  'part',
  'blade',
  'mat',
  'machine',
  'hands',
] as const
/** One of COST_KINDS. */
export type CostKind = (typeof COST_KINDS)[number]

/** A line of what the work costs, for the whole batch; money in the drawer's currency. */
export interface CostLine {
  kind: CostKind
  what: string
  amount: number
  unit: string
  cost: number
  /** What the figures rest on. */
  basis: Said
  /** The thing of our list or of the maker's that it is; null for what follows from the plan. */
  partId: string | null
}

/** What the lines follow from. */
export interface Spending {
  project: Project
  loads: readonly Load[]
  depth: Pick<DepthPlan, 'foamUse'>
  glue: readonly GlueAmount[]
  /** Of the hands, for the whole batch. */
  handsMinutes: number
}

/** All that the batch costs, line by line, as COST_KINDS are told. Where it is cut along with another project that one pays for the sheets. */
export function costLines(spending: Spending): CostLine[] {
  const { project, loads } = spending
  return inOrder([...sheetLines(project, loads), ...workLines(spending)])
}

/** Lines in the order in which their kinds are told. */
export const inOrder = (lines: readonly CostLine[]): CostLine[] =>
  lines.toSorted((a, b) => COST_KINDS.indexOf(a.kind) - COST_KINDS.indexOf(b.kind))

/** What follows from the sheets alone, and the things of the list: known long before the pads are planned. */
export function sheetLines(project: Project, loads: readonly Load[]): CostLine[] {
  const { plan } = project
  const own = plan.cutWith ? [] : loads
  const parts = partsOf(project).map(({ id, what, amount, unit, price }): CostLine => ({
    kind: 'part',
    what,
    amount: amount * plan.batch,
    unit,
    cost: amount * plan.batch * price,
    basis: 'Your price, or a start of ours',
    partId: id,
  }))
  const paper = plan.pricing.paperBy === 'share' ? paperByShare(own) : paperBySheets(own)
  const lines = [...paper, ...offCuts(own), ...printLines(project, own), ...parts, ...wear(project, own)]
  // A thing of which none is taken stays, so that it can be taken again.
  return inOrder(lines.filter(({ amount, partId }) => amount > 0 || partId !== null))
}

/** What the layers are held with, and the hands. */
export function workLines({ project, depth, glue, handsMinutes }: Omit<Spending, 'loads'>): CostLine[] {
  const { hourlyRate } = project.plan
  const foam = depth.foamUse.map(({ foam: one, needed, cost }): CostLine => ({
    kind: 'foam',
    what: one.name,
    amount: needed,
    unit: 'pads',
    cost,
    basis: `${one.pricePerPack.toFixed(2)} for ${one.perPack}, by the pad`,
    partId: null,
  }))
  const hands: CostLine = {
    kind: 'hands',
    what: 'hands',
    amount: handsMinutes / 60,
    unit: 'h',
    cost: (handsMinutes / 60) * hourlyRate,
    basis: `Planned minutes of handwork at ${hourlyRate.toFixed(2)} an hour`,
    partId: null,
  }
  return [...foam, ...glueLines(project, glue), hands].filter(({ amount }) => amount > 0)
}

/** What the lines go to, the dearest first: glues and things each by name, all else by its kind. What costs nothing is left out. */
export function costByPart(lines: readonly CostLine[]): { name: string; cost: number }[] {
  const parts = groupBy(lines, ({ kind, what }) =>
    kind === 'glue' || kind === 'part' ? what : KIND_WORDS[kind],
  )
  return [...parts]
    .map(([name, own]) => ({ name, cost: own.reduce((sum, line) => sum + line.cost, 0) }))
    .filter(({ cost }) => cost > 0)
    .toSorted((a, b) => b.cost - a.cost)
}

const KIND_WORDS: Record<Exclude<CostKind, 'glue' | 'part'>, string> = {
  paper: 'paper',
  'off-cut': 'off-cuts',
  foam: 'foam',
  print: 'prints',
  blade: 'blades',
  mat: 'mats',
  machine: 'machine',
  hands: 'hands',
}

/** The sums of lines. */
export function sumOf(lines: readonly CostLine[]): Cost {
  const of = (...kinds: CostKind[]) =>
    lines.filter(({ kind }) => kinds.includes(kind)).reduce((sum, { cost }) => sum + cost, 0)
  const [paper, foam, hands] = [of('paper', 'off-cut'), of('foam'), of('hands')]
  const other = of('glue', 'print', 'part', 'blade', 'mat', 'machine')
  return { paper, foam, other, hands, total: paper + foam + other + hands }
}

const paperBySheets = (loads: readonly Load[]): CostLine[] =>
  sheetsNeeded(loads)
    .filter(({ sheets }) => sheets > 0)
    .map(({ paper, sheets, cost }) => ({
      kind: 'paper',
      what: paper.name,
      amount: sheets,
      unit: 'sheets',
      cost,
      basis: `Whole sheets at ${paper.price.toFixed(2)}`,
      partId: null,
    }))

/** Of each sheet what is not kept of it as a clean off-cut. */
function paperByShare(loads: readonly Load[]): CostLine[] {
  const byPaper = new Map<string, CostLine>()
  for (const { paper, onOffCut, offCut, outline } of loads) {
    if (onOffCut) continue
    const kept = offCut ? (offCut.widthMm * offCut.heightMm) / polygonArea(outline) : 0
    const line = byPaper.get(paper.id)
    const amount = (line?.amount ?? 0) + 1 - kept
    byPaper.set(paper.id, {
      kind: 'paper',
      what: paper.name,
      amount,
      unit: 'sheets',
      cost: amount * paper.price,
      basis: `Sheets at ${paper.price.toFixed(2)}, less what is kept of them as clean off-cuts`,
      partId: null,
    })
  }
  return [...byPaper.values()]
}

/** Off-cuts at their share of a sheet. */
function offCuts(loads: readonly Load[]): CostLine[] {
  const byPaper = new Map<string, CostLine>()
  for (const { paper, onOffCut, outline } of loads) {
    if (!onOffCut) continue
    const share = polygonArea(outline) / polygonArea(rectangle([0, 0], paper.widthMm, paper.heightMm))
    const amount = (byPaper.get(paper.id)?.amount ?? 0) + share
    byPaper.set(paper.id, {
      kind: 'off-cut',
      what: `${paper.name}, off-cuts`,
      amount,
      unit: 'sheets',
      cost: amount * paper.price,
      basis: 'At the share of a sheet that they are',
      partId: null,
    })
  }
  return [...byPaper.values()]
}

function glueLines(project: Project, glue: readonly GlueAmount[]): CostLine[] {
  const { drawer, plan } = project
  const byGlue = new Map<string, number>()
  for (const { adhesiveId, ml } of glue.flatMap(({ mlOf }) => mlOf))
    if (adhesiveId !== null)
      byGlue.set(adhesiveId, (byGlue.get(adhesiveId) ?? 0) + ml * plan.batch * plan.glueLost)
  return [...byGlue].map(([id, amount]) => {
    const own = drawer.adhesives.find((one) => one.id === id)!
    return {
      kind: 'glue',
      what: own.name,
      amount,
      unit: 'ml',
      cost: (amount / own.packMl) * own.pricePerPack,
      basis: say`${plan.glueLost} times what the dots, beads and coats hold, at ${own.pricePerPack.toFixed(2)} for ${measured(own.packMl, 'ml')}`,
      partId: null,
    }
  })
}

function printLines({ plan: { printPrice } }: Project, loads: readonly Load[]): CostLine[] {
  const pages = loads.filter(({ pieces }) => pieces.some(({ printed }) => printed)).length
  return [
    {
      kind: 'print',
      what: 'printed sheets',
      amount: pages,
      unit: 'pages',
      cost: pages * printPrice,
      basis: `${printPrice.toFixed(2)} a page for ink`,
      partId: null,
    },
  ]
}

/** Blade and mats by what they last, the machine by the hour. */
function wear({ drawer: { cutter } }: Project, loads: readonly Load[]): CostLine[] {
  const cutM = loads.reduce(
    (sum, { outlineMm, setting }) =>
      sum + (outlineMm / 1000) * setting.passes * (setting.hardOnBlade ? 3 : 1),
    0,
  )
  const mats = new Map(cutter.mats.map((mat) => [mat.id, mat]))
  const onMats = loads.flatMap(({ mat }) => (mat ? (mats.get(mat.matId) ?? []) : []))
  const hours = loads.reduce((sum, { minutes }) => sum + minutes, 0) / 60
  return [
    {
      kind: 'blade',
      what: 'blade',
      amount: cutM,
      unit: 'm',
      cost: (cutM / cutter.bladeM) * cutter.bladePrice,
      basis: say`${cutter.bladePrice.toFixed(2)} for ${metres(cutter.bladeM)}; glitter and board count threefold`,
      partId: null,
    },
    {
      kind: 'mat',
      what: 'mats',
      amount: onMats.length,
      unit: 'loads',
      cost: onMats.reduce((sum, { price, lasts }) => sum + price / lasts, 0),
      basis: 'Each load its share of how many a mat lasts',
      partId: null,
    },
    {
      kind: 'machine',
      what: cutter.name,
      amount: cutter.tool === 'machine' ? hours : 0,
      unit: 'h',
      cost: cutter.tool === 'machine' ? hours * cutter.hourCost : 0,
      basis: `Planned minutes at ${cutter.hourCost.toFixed(2)} an hour`,
      partId: null,
    },
  ]
}

/** An amount as the maker counts it: where lengths are inches, feet and fluid ounces. */
export function amountIn(
  { amount, unit }: Pick<CostLine, 'amount' | 'unit'>,
  maker: Unit,
): Pick<CostLine, 'amount' | 'unit'> {
  if (unit !== 'm' && unit !== 'ml') return { amount, unit }
  const { unit: name, one } = shownAs(unit, maker)
  return { amount: amount * one, unit: name }
}

/** What guests take of the paper that is paid here: of each whole sheet their share by area of the pieces on it. */
export function paperForGuests(loads: readonly Load[]): number {
  return loads.reduce((total, load) => {
    if (load.onOffCut) return total
    const area = (pieces: Load['pieces']) => pieces.reduce((sum, piece) => sum + polygonArea(piece.shape), 0)
    const all = area(load.pieces)
    return (
      total +
      (all === 0 ? 0 : (load.paper.price * area(load.pieces.filter((piece) => piece.guestId !== null))) / all)
    )
  }, 0)
}

/** Minutes of hands so far: the clocks of the stages, and steps that the bench timed while no clock of Assembly ran. */
export function handsSoFar(project: Project, now: number): number {
  const clocks = STAGES.reduce((total, stage) => total + minutesSpent(project, stage, now), 0)
  const ran = (at: number) =>
    project.journal.timers.some(
      ({ stage, startedAt, endedAt }) => stage === 'assembly' && startedAt <= at && at <= (endedAt ?? now),
    )
  return project.journal.steps.reduce((total, { minutes, at }) => (ran(at) ? total : total + minutes), clocks)
}

/**
 * Cost so far: sheets noted as used, foam that ticked steps took, hands by clocks and bench, other things as planned by the share of
 * their steps that is ticked.
 * @param now ms since 1970, for the clock that runs
 */
export function costSoFar(
  project: Project,
  now: number,
  planned: { lines: readonly CostLine[]; steps: readonly Pick<Step, 'id' | 'kind' | 'minutes'>[] },
): Cost {
  const price = new Map(project.drawer.papers.map((paper) => [paper.id, paper.price]))
  const foamPrice = new Map(project.drawer.foams.map((foam) => [foam.id, foam.pricePerPack / foam.perPack]))
  const paper = project.journal.sheetsUsed.reduce(
    (total, use) => total + use.count * (price.get(use.paperId) ?? 0),
    0,
  )
  const foam = project.progress.took
    .flatMap(({ foams }) => foams)
    .reduce((total, { foamId, count }) => total + count * (foamPrice.get(wholeOf(foamId).foamId) ?? 0), 0)
  const hands = (handsSoFar(project, now) / 60) * project.plan.hourlyRate
  const other = otherSoFar(project.progress.done, planned)
  return { paper, foam, other, hands, total: paper + foam + other + hands }
}

/** With which steps a cost comes. */
const COMES_WITH: Partial<Record<CostKind, readonly Step['kind'][]>> = {
  glue: ['glue', 'lay'],
  print: ['print'],
  part: ['mount', 'glaze', 'close'],
  blade: ['cut'],
  mat: ['cut'],
  machine: ['cut'],
}

function otherSoFar(
  done: readonly string[],
  { lines, steps }: { lines: readonly CostLine[]; steps: readonly Pick<Step, 'id' | 'kind' | 'minutes'>[] },
): number {
  const ticked = new Set(done)
  const minutes = (own: typeof steps) => own.reduce((sum, step) => sum + step.minutes, 0)
  return lines.reduce((sum, { kind, cost }) => {
    const kinds = COMES_WITH[kind]
    const own = kinds ? steps.filter((step) => kinds.includes(step.kind)) : []
    const all = minutes(own)
    return all > 0 ? sum + (cost * minutes(own.filter(({ id }) => ticked.has(id)))) / all : sum
  }, 0)
}
