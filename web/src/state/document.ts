// The open project with the shared drawer's papers and supplies, and their history. Every change goes through `edited`, so undo
// covers everything.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'
import {
  applyStockChanges,
  applySupplyChanges,
  starterSupplies,
  stockChanges,
  supplyChanges,
  toldBy,
  type Books,
  type Paper,
  type Project,
  type Supplies,
} from '@feuillet/core/project'

/** What was there before a change, and what the change is called. Shares with its neighbours all that did not change. */
interface Version {
  project: Project
  stock: readonly Paper[]
  supplies: Supplies
  label: string
}

/** What this page may do with the project: change it; watch another tab change it; look at it only. */
export type Role = 'writing' | 'following' | 'reading'

export interface DocumentState {
  project: Project | null
  stock: readonly Paper[]
  /** Foams and glues of the shared drawer. */
  supplies: Supplies
  past: Version[]
  future: Version[]
  /** Whether older steps were let go, since they would take too much room. */
  forgotten: boolean
  /** Counts every change of project or drawer in this page. */
  revision: number
  /** The last revision that is surely kept. */
  kept: number
  /** Why the last try to keep it failed; null where it did not. */
  trouble: string | null
  role: Role
  /** Changes of one drag or slide bear its name, and are one step. */
  gesture: string | null
}

/** So many steps can be undone, and about so many characters of outlines are kept for them. */
const MOST_STEPS = 200
const MOST_CHARACTERS = 60_000_000

const initialState: DocumentState = {
  project: null,
  stock: [],
  supplies: starterSupplies(),
  past: [],
  future: [],
  forgotten: false,
  revision: 0,
  kept: 0,
  trouble: null,
  role: 'writing',
  gesture: null,
}

export interface Edit {
  label: string
  project: Project
  stock?: readonly Paper[]
  supplies?: Supplies
  /** Edits of one gesture that follow each other are one step. */
  gesture?: string
}

// Projects are plain data that the core's edits copy; drafts would only slow them down.
const document = createSlice({
  name: 'document',
  initialState,
  reducers: {
    opened: (
      state,
      {
        payload,
      }: PayloadAction<{ project: Project; stock: readonly Paper[]; supplies?: Supplies; role?: Role }>,
    ): DocumentState => ({
      ...initialState,
      revision: state.revision + 1,
      kept: state.revision + 1,
      role: payload.role ?? ('writing' as const),
      project: payload.project,
      stock: payload.stock,
      supplies: payload.supplies ?? initialState.supplies,
    }),
    closed: (state) => ({ ...initialState, revision: state.revision + 1, kept: state.revision + 1 }),
    edited: (state, { payload }: PayloadAction<Edit>) => {
      const current = state as DocumentState
      if (!current.project) return state
      const { label, gesture = null } = payload
      const next = {
        ...current,
        project: payload.project,
        stock: payload.stock ?? current.stock,
        supplies: payload.supplies ?? current.supplies,
        future: [],
        revision: current.revision + 1,
        gesture,
      }
      // The step of a gesture goes back to before its first change.
      if (gesture !== null && gesture === current.gesture && current.past.length > 0) return next
      return { ...next, ...trimmed([...current.past, versionOf(current, label)], current.forgotten) }
    },
    undone: (state) => step(state as DocumentState, 'past', 'future'),
    redone: (state) => step(state as DocumentState, 'future', 'past'),
    /** The drawer as it is after other tabs’ changes: no step of the history, and undo does not take them back. */
    drawerCame: (
      state,
      { payload }: PayloadAction<{ stock?: readonly Paper[]; supplies?: Supplies }>,
    ): DocumentState => {
      const current = state as DocumentState
      const moved = afterChangesOf(current, { ...current, ...payload })
      return { ...current, ...payload, past: current.past.map(moved), future: current.future.map(moved) }
    },
    /** What other projects tell of this one: no step of the history, and true of all its states. */
    booksCame: (state, { payload }: PayloadAction<Books>): DocumentState => {
      const current = state as DocumentState
      const project = current.project && toldBy(current.project, payload)
      if (project === current.project) return current
      const told = (version: Version) => ({ ...version, project: toldBy(version.project, payload) })
      const [past, future] = [current.past.map(told), current.future.map(told)]
      return { ...current, project, past, future, revision: current.revision + 1 }
    },
    /** The project as another tab has kept it. */
    followed: (
      state,
      { payload }: PayloadAction<{ project: Project; stock: readonly Paper[]; supplies: Supplies }>,
    ): DocumentState => ({
      ...(state as DocumentState),
      ...payload,
      past: [],
      future: [],
      revision: state.revision + 1,
      kept: state.revision + 1,
    }),
    keptTo: (state, { payload }: PayloadAction<number>) => ({
      ...state,
      kept: Math.max(state.kept, payload),
      trouble: null,
    }),
    notKept: (state, { payload }: PayloadAction<string>) => ({ ...state, trouble: payload }),
    becameRole: (state, { payload }: PayloadAction<Role>) => ({ ...state, role: payload }),
  },
})

type Drawer = Pick<DocumentState, 'stock' | 'supplies'>

/** A version with what was done to the drawer between two states of it; versions that share a drawer go on sharing it. */
function afterChangesOf(before: Drawer, after: Drawer): (version: Version) => Version {
  const inStock = stockChanges(before.stock, after.stock)
  const inSupplies = supplyChanges(before.supplies, after.supplies)
  const stocks = new Map<Version['stock'], Version['stock']>()
  const supplied = new Map<Supplies, Supplies>()
  return (version) => ({
    ...version,
    stock: inStock
      ? once(stocks, version.stock, (stock) => applyStockChanges(stock, inStock))
      : version.stock,
    supplies: inSupplies
      ? once(supplied, version.supplies, (supplies) => applySupplyChanges(supplies, inSupplies))
      : version.supplies,
  })
}

function once<T>(known: Map<T, T>, key: T, compute: (key: T) => T): T {
  const found = known.get(key) ?? compute(key)
  known.set(key, found)
  return found
}

const versionOf = ({ project, stock, supplies }: DocumentState, label: string): Version => ({
  project: project!,
  stock,
  supplies,
  label,
})

/** As many of the last steps as there is room for. */
function trimmed(past: Version[], forgotten: boolean): Pick<DocumentState, 'past' | 'forgotten'> {
  let characters = 0
  let from = Math.max(0, past.length - MOST_STEPS)
  for (let i = past.length - 2; i >= from; i--) {
    characters += ownCharacters(past[i]!.project, past[i + 1]!.project)
    if (characters > MOST_CHARACTERS) from = i + 1
  }
  return from === 0 ? { past, forgotten } : { past: past.slice(from), forgotten: true }
}

/** Characters of outlines that a project does not share with the next. */
function ownCharacters(project: Project, next: Project): number {
  if (project.layers === next.layers) return 0
  const shared = new Set(next.layers.map((layer) => layer.pieces))
  return project.layers
    .filter(({ pieces }) => !shared.has(pieces))
    .reduce((sum, { pieces }) => sum + pieces.reduce((n, { path }) => n + path.length, 0), 0)
}

function step(state: DocumentState, from: 'past' | 'future', to: 'past' | 'future'): DocumentState {
  const version = state[from].at(-1)
  if (!version || !state.project) return state
  return {
    ...state,
    project: version.project,
    stock: version.stock,
    supplies: version.supplies,
    [from]: state[from].slice(0, -1),
    [to]: [...state[to], versionOf(state, version.label)],
    revision: state.revision + 1,
    gesture: null,
  }
}

export const {
  opened,
  closed,
  edited,
  undone,
  redone,
  drawerCame,
  booksCame,
  followed,
  keptTo,
  notKept,
  becameRole,
} = document.actions
export default document.reducer
