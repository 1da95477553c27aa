// One entry per command; the formats are fixed, others read them.
import { demo, demoNames, type DemoName } from '@feuillet/core/demo'
import { cutFiles, listFiles, loadFileStem, loadPicture } from '@feuillet/core/io/exports'
import { readDrawing } from '@feuillet/core/io/read'
import { regionArea, regionBox, regionToPath } from '@feuillet/core/base/geometry'
import { intake, shows } from '@feuillet/core/stages/layers'
import { depthAtHand, layerRegion, writeProject, type Project } from '@feuillet/core/project'
import { say, wordsIn } from '@feuillet/core/base/units'
import { BadInput, Cache } from '@feuillet/core/base'
import {
  overEvenings,
  readTimeOfDay,
  readWallClock,
  wallClock,
  type DatedPlan,
  type Evenings,
} from '@feuillet/core/stages/assembly'
import { cardsAt, shimsOf } from '@feuillet/core/stages/depth'
import { allSnagsOf, nodes, snagsOf } from '@feuillet/core/stages'
import { Planner } from '@feuillet/core/planner'
import { Resvg } from '@resvg/resvg-js'
import { named, readFile, readFileLater, readProjectFile, writeAll, give, put } from './files'
import { readFaces } from './faces'
import { makerCommands } from './makers'
import { nestFor } from './nest-search'
import { type Screen } from './screen'
import { numberOption, readArgs, UsageError } from './usage'

interface Command {
  usage: string
  run(args: string[], screen: Screen): void | Promise<void>
}

const OUTPUT = { o: { type: 'string', short: 'o' } } as const
const round = (value: number, places = 3): number => Math.round(value * 10 ** places) / 10 ** places

export const commands: Record<string, Command> = {
  demo: {
    usage: `demo NAME [-o PROJECT]   (${['list', ...demoNames].join(', ')})`,
    run(args, screen) {
      const { positionals, values } = readArgs(args, ['NAME'], OUTPUT)
      const name = positionals[0]!
      if (name === 'list') return give(demoNames, values.o, screen)
      if (!demoNames.includes(name as DemoName)) throw new UsageError(`there is no demo “${name}”`)
      const text = writeProject(demo(name as DemoName))
      put(text, values.o, screen)
    },
  },
  import: {
    usage: 'import FILE.svg|dxf [-o FILE]',
    run(args, screen) {
      const { positionals, values } = readArgs(args, ['FILE'], OUTPUT)
      const file = positionals[0]!
      const taken = readFile(file, (bytes) => intake(readDrawing(file, bytes, { outlines: 'lines' })))
      const layers = taken.layers.map((layer) => {
        const region = layerRegion(layer)
        const b = regionBox(region)
        return {
          name: layer.name,
          colour: layer.colour,
          areaMm2: round(regionArea(region)),
          pieces: layer.pieces.length,
          bounds: [b.minX, b.minY, b.maxX, b.maxY].map((v) => round(v)),
          path: regionToPath(region),
          ...(layer.folds.length > 0 && { folds: layer.folds.map(({ line }) => line.map((v) => round(v))) }),
        }
      })
      give(
        { layers, leftOut: taken.leftOut, widthMm: round(taken.widthMm), heightMm: round(taken.heightMm) },
        values.o,
        screen,
      )
    },
  },
  ...makerCommands,
  check: {
    usage: 'check PROJECT [-o FILE]',
    run(args, screen) {
      const { positionals, values } = readArgs(args, ['PROJECT'], OUTPUT)
      const project = readProjectFile(positionals[0]!, screen)
      const snags = named(positionals[0]!, () => snagsOf(plannerFor(project), project))
      give(
        {
          snags: snags.map(({ code, stage, layer, message, at }) => ({
            code,
            stage,
            layer,
            message: wordsIn(message, project.unit),
            at,
          })),
        },
        values.o,
        screen,
      )
    },
  },
  shows: {
    usage: 'shows PROJECT [--aside 30 --towards 90] [-o FILE]',
    run(args, screen) {
      const { positionals, values } = readArgs(args, ['PROJECT'], {
        ...OUTPUT,
        aside: { type: 'string' },
        towards: { type: 'string' },
      })
      const angleDeg = numberOption(values, 'aside', { other: 0, min: 0, max: 85 })
      const towardsDeg = numberOption(values, 'towards', { other: 0, min: -360, max: 360 })
      const project = readProjectFile(positionals[0]!, screen)
      const layers = angleDeg === 0 ? shows(project) : showsAside(project, angleDeg, towardsDeg)
      give(
        { layers: layers.map((l) => ({ ...l, areaMm2: round(l.areaMm2), visibleMm2: round(l.visibleMm2) })) },
        values.o,
        screen,
      )
    },
  },
  nest: {
    usage: 'nest INSTANCE [--seconds 10] [--seed 1] [-o FILE]',
    async run(args, screen) {
      const { positionals, values } = readArgs(args, ['INSTANCE'], {
        ...OUTPUT,
        seconds: { type: 'string' },
        seed: { type: 'string' },
      })
      const seconds = numberOption(values, 'seconds', { other: 10, min: 0, max: 3600 })
      const seed = numberOption(values, 'seed', { other: 1, min: 0, max: 2 ** 32 })
      const { placements, sheets, utilisation } = await readFileLater(positionals[0]!, (bytes) =>
        nestFor(new TextDecoder().decode(bytes), seconds, seed),
      )
      give(
        {
          placements: placements.map((p) => ({ ...p, x: round(p.x, 6), y: round(p.y, 6) })),
          sheets,
          utilisation: round(utilisation, 4),
        },
        values.o,
        screen,
      )
    },
  },
  depth: {
    usage: 'depth PROJECT [-o FILE]',
    run(args, screen) {
      const { positionals, values } = readArgs(args, ['PROJECT'], OUTPUT)
      const project = readProjectFile(positionals[0]!, screen)
      const planner = plannerFor(project)
      const plan = planner.get(nodes.depth())
      const glue = planner.get(nodes.glues())
      give(
        {
          pieces: plan.pieces.map((p) => ({
            layer: p.layer.id,
            piece: p.pieceId,
            bottomMm: round(p.bottomMm),
            topMm: round(p.topMm),
            tiltMm: round(p.tiltMm),
          })),
          pads: plan.pads.map((p) => ({
            layer: p.layerId,
            piece: p.pieceId,
            x: round(p.x),
            y: round(p.y),
            rotation: p.rotation,
            widthMm: p.widthMm,
            heightMm: p.heightMm,
            thicknessMm: round(p.thicknessMm),
            foam: p.foamIds.join('+'),
            clear: p.foamIds.every((id) => project.drawer.foams.find((f) => f.id === id)?.look === 'clear'),
          })),
          glue: glue.map((own) => ({
            layer: own.layerId,
            zonePath: regionToPath(own.zone),
            dots: own.dots.map(([x, y]) => [round(x), round(y)]),
            beadMm: round(own.beadLengthMm),
            coatMm2: round(own.coatMm2),
            ml: round(own.ml),
            bare: own.bare,
          })),
          shims: shimsOf(project, plan),
          stackMm: round(plan.stackMm),
          pressedMm: round(plan.pressedMm),
          roomMm: plan.roomMm,
          buy: plan.foamUse.map((use) => ({
            foam: use.foam.id,
            name: use.foam.name,
            needed: use.needed,
            atHand: use.foam.count,
            packs: use.packs,
          })),
        },
        values.o,
        screen,
      )
    },
  },
  plan: {
    usage: 'plan PROJECT [--by 2026-12-20T18:00 --evening 19:00-21:30 --days mon,wed,sat] [-o FILE]',
    run(args, screen) {
      const { positionals, values } = readArgs(args, ['PROJECT'], {
        ...OUTPUT,
        by: { type: 'string' },
        evening: { type: 'string' },
        days: { type: 'string' },
      })
      const when = eveningsOf(values)
      const project = readProjectFile(positionals[0]!, screen)
      const planner = plannerFor(project)
      refuseTooLarge(positionals[0]!, planner)
      const { steps, minutes } = planner.get(nodes.assembly())
      const dated = when && overEvenings(steps, { ...when, people: project.plan.people })
      give(
        {
          steps: steps.map(({ id, kind, title, after, needs, handsMin, startMin, endMin }) => ({
            id,
            kind,
            title,
            after,
            needs,
            ...(handsMin !== undefined && { handsMin }),
            startMin: round(startMin),
            endMin: round(endMin),
            ...datesOf(dated, id),
          })),
          minutes: round(minutes),
          ...(dated && {
            evenings: dated.evenings.map(({ fromAt, toAt }) => ({
              startAt: wallClock(fromAt),
              endAt: wallClock(toAt),
            })),
            readyAt: wallClock(dated.readyAt),
            slackMin: round(dated.slackMin),
          }),
        },
        values.o,
        screen,
      )
    },
  },
  price: {
    usage: 'price PROJECT [-o FILE]',
    run(args, screen) {
      const { positionals, values } = readArgs(args, ['PROJECT'], OUTPUT)
      const project = readProjectFile(positionals[0]!, screen)
      const planner = plannerFor(project)
      refuseTooLarge(positionals[0]!, planner)
      const { lines, priced, total } = planner.get(nodes.cost())
      const { handsMinutes } = planner.get(nodes.assembly())
      const money = (value: number | null) => (value === null ? null : round(value, 4))
      give(
        {
          materials: lines
            .filter(({ kind }) => kind !== 'hands')
            .map(({ kind, what, amount, unit, cost }) => ({
              what,
              amount: round(amount, 4),
              unit,
              cost: round(cost, 4),
              kind,
            })),
          hours: round(handsMinutes / 60, 4),
          cost: round(total, 4),
          price: priced.price === null ? null : round(priced.price * project.plan.batch, 4),
          perPiece: money(priced.price),
          currency: project.drawer.currency,
          batch: project.plan.batch,
          each: {
            material: money(priced.material),
            hours: money(priced.hours),
            cost: money(priced.cost),
            tax: money(priced.tax),
            fees: money(priced.fees),
            sending: money(priced.sending),
            left: money(priced.left),
            profit: money(priced.profit),
            wage: money(priced.wage),
          },
          breakEven: priced.breakEven,
        },
        values.o,
        screen,
      )
    },
  },
  export: {
    usage: 'export PROJECT -o DIR',
    async run(args, screen) {
      const { positionals, values } = readArgs(args, ['PROJECT'], OUTPUT)
      if (!values.o) throw new UsageError('-o DIR is missing')
      const project = readProjectFile(positionals[0]!, screen)
      const planner = plannerFor(project)
      refuseTooLarge(positionals[0]!, planner)
      const loads = planner.get(nodes.loads())
      if (loads.length === 0 && project.cut.length === 0)
        throw new BadInput(`${positionals[0]!}: the project has no layers to cut`)
      const planned = {
        loads,
        assembly: planner.get(nodes.assembly()),
        needed: planner.get(nodes.needed()),
        depth: planner.get(nodes.depth()),
        glue: planner.get(nodes.glues()),
        colourings: planner.get(nodes.colourings()),
        cost: planner.get(nodes.cost()),
      }
      const files = new Map([
        ...cutFiles(project, loads),
        ...(await listFiles(project, planned, await readFaces())),
      ])
      for (const load of loads) files.set(`${loadFileStem(load)}.png`, picture(loadPicture(project, load)))
      writeAll(values.o, files)
      give({ files: [...files.keys()] }, undefined, screen)
    },
  },
}

const DAYS = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat']

/** The evenings of `--by`, `--evening` and `--days`; null without a date. */
function eveningsOf(values: Readonly<Record<string, unknown>>): Evenings | null {
  const text = (name: string, other: string) => (typeof values[name] === 'string' ? values[name] : other)
  if (values['by'] === undefined) {
    if (values['evening'] !== undefined || values['days'] !== undefined)
      throw new UsageError('--evening and --days want --by')
    return null
  }
  const byMin = readWallClock(text('by', ''))
  if (byMin === null) throw new UsageError('--by takes a date and time such as 2026-12-20T18:00')
  const [from, to, ...more] = text('evening', '19:00-21:30').split('-').map(readTimeOfDay)
  if (typeof from !== 'number' || typeof to !== 'number' || more.length > 0 || to <= from)
    throw new UsageError('--evening takes times such as 19:00-21:30')
  const days = text('days', DAYS.join(','))
    .split(',')
    .map((day) => DAYS.indexOf(day.trim().toLowerCase()))
  if (days.includes(-1)) throw new UsageError(`--days takes some of ${DAYS.join(',')}`)
  return { byMin, fromMin: from, toMin: to, days }
}

/** When a step is worked at, by a dated plan. */
function datesOf(dated: DatedPlan | null, id: string): { startAt?: string; endAt?: string } {
  const found = dated?.steps.find(({ step }) => step.id === id)
  return found ? { startAt: wallClock(found.startAt), endAt: wallClock(found.endAt) } : {}
}

/** What an eye sees that stands aside, of the stack as it is built. */
function showsAside(project: Project, angleDeg: number, towardsDeg: number) {
  const plan = plannerFor(project).get(nodes.depth())
  const openingMm = depthAtHand(project.mount)?.depthMm ?? plan.stackMm
  return shows(project, { angleDeg, towardsDeg, cards: cardsAt(plan), openingMm })
}

/** A planner with a project and nothing computed yet. */
function plannerFor(project: Project): Planner {
  const planner = new Planner(new Cache())
  planner.update({ project, stock: project.drawer.papers, found: new Map() })
  return planner
}

/** A project of which a piece fits on no sheet has neither steps nor files. */
function refuseTooLarge(file: string, planner: Planner): void {
  const snag = allSnagsOf(planner).find(({ code }) => code === 'piece-too-large')
  if (snag) throw new BadInput(say`${file}: ${snag.message}`)
}

/** An SVG as PNG, 1200 pixels wide. */
const picture = (svg: string): Uint8Array =>
  new Resvg(svg, { fitTo: { mode: 'width', value: 1200 } }).render().asPng()
