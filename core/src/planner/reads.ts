// What a node reads of the project, as a table. A node gets a project in which all else is blank, so it cannot read what it
// did not name; and its result stays good for as long as what it named stays the same.
import {
  drawerSchema,
  newProject,
  type Assembly,
  type Layer,
  type Paper,
  type Plan,
  type Project,
} from '../project'

/** What of a project a node reads, by name; what it does not name is blank to it. */
export interface Reads {
  mount?: true
  /** Of every layer that is built: these keys. Which layers there are, and in which order, is always read with them. */
  layers?: readonly (keyof Layer)[] | 'all'
  /** Of the layer that the node is about: these keys. */
  layer?: readonly (keyof Layer)[]
  /** Of every paper of the project. */
  papers?: readonly (keyof Paper)[] | 'all'
  foams?: true
  adhesives?: true
  cutter?: true
  /** Whether a machine cuts or a hand; all else of the cutter is blank. */
  tool?: true
  /** The settings book. */
  settings?: true
  inks?: true
  /** What things cost that the maker priced. */
  things?: true
  /** Which layers are one part, and whether it is built apart; with the names of the parts where they are told. */
  parts?: 'shape' | 'named'
  /** Recipes of what was grown. */
  grown?: true
  /** What may be sold, and what was made. */
  rights?: true
  makes?: true
  /** What steps took, in all projects. */
  observed?: true
  /** Pictures that layers are printed with. */
  pictures?: true
  plan?: readonly (keyof Plan)[] | 'all'
  /** The name, the unit, sheets noted as used. */
  name?: true
  unit?: true
  sheetsUsed?: true
  /** Sheets that have been cut, here and elsewhere. */
  cut?: true
  /** What ticked steps took out of the drawer. */
  took?: true
  /** The papers of the shared drawer. */
  stock?: true
}

const BLANK = newProject('blank', 'Blank', { kind: 'free' })
const BLANK_DRAWER = drawerSchema.parse({ papers: [], foams: [], adhesives: [], cutter: BLANK.drawer.cutter })
const BLANK_TOOLS = {
  machine: BLANK.drawer.cutter,
  knife: { ...BLANK.drawer.cutter, tool: 'knife' },
} as const
const BLANK_LAYER: Layer = {
  id: '',
  name: '',
  role: 'plain',
  pieces: [],
  folds: [],
  ties: [],
  slits: [],
  lives: 'stack',
  cutMirrored: false,
  inOne: false,
  print: null,
  tint: null,
  blanks: [],
  shaping: { how: 'flat', riseMm: 0, flatMm: 0 },
  colour: '#000000',
  paperId: null,
  joint: { kind: 'none', gapMm: 0, pinned: false },
  optional: false,
  leftOut: false,
  hidden: false,
  copies: 1,
  spares: 0,
  sharing: 'any',
  numbered: null,
  assemblyId: null,
}
const BLANK_PART: Assembly = { id: '', name: '', parentId: null, apart: true }
const BLANK_PAPER: Paper = {
  id: '',
  name: '',
  colour: '#000000',
  finish: 'smooth',
  gsm: 216,
  thicknessMm: 0.29,
  core: 'solid',
  widthMm: 1,
  heightMm: 1,
  count: 0,
  price: 0,
  perPack: 1,
  shop: '',
  oneWay: false,
  press: null,
  note: '',
  offCuts: [],
}

/** Narrows projects to what nodes read; parts that did not change keep their identity, so that naming them costs nothing. */
export class Narrower {
  private readonly known = new WeakMap<object, Map<string, unknown>>()
  private readonly places = new WeakMap<readonly Layer[], Map<string, Layer>>()

  /** What a node reads, part by part; parts that did not change are the same objects as before. */
  parts(project: Project, reads: Reads, layerId = ''): unknown[] {
    const { name, unit, mount, plan, sheetsUsed, took, cut, pictures, grown, rights, makes } = reads
    return [
      name ? [project.id, project.name] : 0,
      unit ? project.unit : 0,
      mount ? project.mount : 0,
      this.layers(project, reads, layerId),
      this.drawer(project.drawer, reads),
      plan ? this.only(project.plan, plan, BLANK.plan) : 0,
      sheetsUsed ? project.journal.sheetsUsed : 0,
      took ? project.progress.took : 0,
      ...(cut ? [project.cut, project.cutElsewhere] : []),
      pictures ? project.pictures : 0,
      grown ? project.grown : 0,
      this.partsOf(project, reads) ?? 0,
      rights ? project.rights : 0,
      makes ? project.journal.makes : 0,
    ]
  }

  /** The project as a node sees it. `layerId` is the layer that the node is about. */
  narrow(project: Project, reads: Reads, layerId = ''): Project {
    const { plan, drawer } = project
    return {
      ...BLANK,
      ...(reads.name ? { id: project.id, name: project.name } : {}),
      ...(reads.unit ? { unit: project.unit } : {}),
      ...(reads.mount ? { mount: project.mount } : {}),
      ...(reads.pictures ? { pictures: project.pictures } : {}),
      layers: this.layers(project, reads, layerId),
      drawer: this.drawer(drawer, reads),
      plan: reads.plan ? this.only(plan, reads.plan, BLANK.plan) : BLANK.plan,
      ...(reads.cut ? { cut: project.cut, cutElsewhere: project.cutElsewhere } : {}),
      ...(reads.grown ? { grown: project.grown } : {}),
      ...(reads.parts ? { assemblies: this.partsOf(project, reads)! } : {}),
      ...(reads.rights ? { rights: project.rights } : {}),
      ...(reads.took ? { progress: this.only(project.progress, ['took'], BLANK.progress) } : {}),
      ...(reads.sheetsUsed ? { journal: this.only(project.journal, ['sheetsUsed'], BLANK.journal) } : {}),
      ...(reads.makes ? { journal: this.only(project.journal, ['makes'], BLANK.journal) } : {}),
    }
  }

  private layers(project: Project, reads: Reads, layerId: string): Layer[] {
    if (reads.layer) {
      const own = this.layerOf(project, layerId)
      return own ? this.listOf(own, reads.layer) : NONE
    }
    return reads.layers ? this.all(project.layers, reads.layers, BLANK_LAYER) : NONE
  }

  private partsOf({ assemblies }: Project, { parts }: Reads): Assembly[] | undefined {
    if (!parts) return undefined
    return parts === 'named' ? assemblies : this.all(assemblies, ['parentId', 'apart'], BLANK_PART)
  }

  private layerOf({ layers }: Project, layerId: string): Layer | undefined {
    let byId = this.places.get(layers)
    if (!byId) this.places.set(layers, (byId = new Map(layers.map((layer) => [layer.id, layer]))))
    return byId.get(layerId)
  }

  private listOf(layer: Layer, keys: readonly (keyof Layer)[]): Layer[] {
    return this.kept(layer, `list of ${keys.join(' ')}`, () => [this.only(layer, keys, BLANK_LAYER)])
  }

  private drawer(drawer: Project['drawer'], reads: Reads): Project['drawer'] {
    const { papers, foams, adhesives, cutter, tool, settings, observed, inks, things } = reads
    const name = `drawer ${papers === 'all' ? papers : papers?.join(' ')} ${foams} ${adhesives} ${cutter} ${tool} ${settings} ${observed} ${inks} ${things}`
    return this.kept(drawer, name, () => ({
      ...BLANK_DRAWER,
      currency: drawer.currency,
      papers: papers ? this.all(drawer.papers, papers, BLANK_PAPER) : [],
      ...(foams ? { foams: drawer.foams } : {}),
      ...(adhesives ? { adhesives: drawer.adhesives } : {}),
      ...(cutter ? { cutter: drawer.cutter } : tool ? { cutter: BLANK_TOOLS[drawer.cutter.tool] } : {}),
      ...(settings ? { settings: drawer.settings } : {}),
      ...(observed ? { observed: drawer.observed } : {}),
      ...(inks ? { inks: drawer.inks } : {}),
      ...(things ? { things: drawer.things } : {}),
    }))
  }

  private all<T extends object>(list: T[], keys: readonly (keyof T)[] | 'all', blank: T): T[] {
    return keys === 'all'
      ? list
      : this.kept(list, keys.join(' '), () => list.map((one) => this.only(one, keys, blank)))
  }

  /** An object with some of its keys, the others as in a blank one; of layers and papers the id and their place count always. */
  private only<T extends object>(whole: T, keys: readonly (keyof T)[] | 'all', blank: T): T {
    if (keys === 'all') return whole
    return this.kept(whole, keys.join(' '), () => {
      const part = { ...blank }
      for (const key of [...ALWAYS, ...keys] as (keyof T)[]) if (key in whole) part[key] = whole[key]
      return part
    })
  }

  private kept<T>(whole: object, name: string, make: () => T): T {
    let known = this.known.get(whole)
    if (!known) this.known.set(whole, (known = new Map()))
    if (!known.has(name)) known.set(name, make())
    return known.get(name) as T
  }
}

const ALWAYS = ['id', 'leftOut']
const NONE: Layer[] = []
