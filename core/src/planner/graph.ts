// The graph of results. A node says what of the project it reads and which other nodes it needs; its key follows from both,
// and a result is looked up by key. Whoever drives the planner may stop between any two nodes.
import type { Cache, Memo } from '../base'
import type { Paper, Project, Stage } from '../project'
import { Narrower, type Reads } from './reads'

/** All that results follow from. */
export interface Inputs {
  project: Project
  stock: readonly Paper[]
  /** Layouts (NestLayout) that longer searches or the maker's hand found, by the fingerprint of their run. */
  found: ReadonlyMap<string, unknown>
}

/** A node, about one layer, run or load where it is of many. */
export interface Ref<T> {
  node: AnyNode
  arg: string
  /** Only for the type. */
  readonly value?: T
}

/** A need that a node may do without: it is computed only where the node asks for it. */
export interface Later<T> {
  later: Ref<T>
}

/** Makes a need one that is asked for only where it is wanted, by `yield* need()`. */
export const later = <T>(ref: Ref<T>): Later<T> => ({ later: ref })

type Need = Ref<unknown> | Later<unknown> | readonly Ref<unknown>[] | null
type Needs = Record<string, Need>

/** All that may be needed. */
const refsOf = (needs: Needs): Ref<unknown>[] =>
  Object.values(needs).flatMap((need) =>
    need === null ? [] : 'later' in need ? [need.later] : 'node' in need ? [need] : need,
  )

/** Values in place of refs; of lists only those that could be computed. */
export type Values<N> = {
  [K in keyof N]: N[K] extends Later<infer T>
    ? () => Generator<Ref<unknown>, T>
    : N[K] extends Ref<infer T>
      ? T
      : N[K] extends readonly Ref<infer T>[]
        ? T[]
        : N[K] extends Ref<infer T> | null
          ? T | null
          : never
}

/** What a node computes with: nothing else is there for it to read. */
export interface Given extends Inputs {
  arg: string
  memo: Memo
}

/** What a node is made of. */
export interface NodeSpec<T, V, N extends Needs> {
  stage: Stage
  reads: Reads
  /** Whether layouts found earlier are read. */
  found?: true
  /** Asked for at each revision; what is dear to tell is remembered by what it follows from. */
  needs?: (project: Project, arg: string, memo: Memo) => N
  /**
   * Its value is small and often stays as it was though what it came from changed: what needs it is computed anew only where the
   * value itself is another.
   */
  byValue?: true
  /** One that takes its time may hand back control between its steps. */
  compute: (given: Given, needs: Values<N>) => T | Generator<Ref<unknown> | undefined, T>
  /** What the page gets of it: numbers, and what is drawn. Without one it stays in the worker. */
  view?: (value: T) => V
}

/** A node of any values and needs. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type AnyNode = NodeSpec<any, any, any> & { name: string }

/** A node of many takes the id of what it is about; one of a kind takes nothing. */
export type NodeOf<T, V> = ((arg?: string) => Ref<T>) & { node: AnyNode; readonly view?: V }

/** Declares a node; calling it names it as something that another node needs. */
export function node<T, V = never, const N extends Needs = Record<string, never>>(
  name: string,
  spec: NodeSpec<T, V, N>,
): NodeOf<T, V> {
  const full: AnyNode = { ...spec, name }
  return Object.assign((arg = ''): Ref<T> => ({ node: full, arg }), { node: full })
}

/** A node that could not be computed, and why. Others go on without it. */
export class Failure {
  constructor(readonly sentence: string) {}
}

/** The name of a ref: its node, and what it is about. */
export const refName = ({ node: { name }, arg }: Ref<unknown>): string => (arg ? `${name} ${arg}` : name)

/** Computes nodes when they are asked for, and keeps what is still true. */
export class Planner {
  private inputs: Inputs | null = null
  private named = new Map<string, Named>()
  /** Names of the revision before: what follows from the same has the same name, without weighing it anew. */
  private before = new Map<string, Named>()
  private readonly narrower = new Narrower()

  /** Results are kept in the cache that is handed in, under keys of all that they follow from. */
  constructor(readonly cache: Cache) {}

  /** Takes new inputs. Nothing is computed until it is asked for. */
  update(inputs: Inputs): void {
    this.inputs = inputs
    this.before = this.named
    this.named = new Map()
  }

  /**
   * Names a node's result with all that it follows from: the same key is the same result. Null while something that counts by
   * its value is not computed yet.
   */
  keyOf(ref: Ref<unknown>): string | null {
    const name = refName(ref)
    const known = this.named.get(name)
    if (known) return known.key
    const { reads, found } = ref.node
    const { project, stock, found: layouts } = this.given()
    const parts = this.narrower.parts(project, reads, ref.arg)
    if (reads.stock) parts.push(stock)
    if (found) parts.push(layouts)
    const needs: string[] = []
    for (const need of Object.values(this.needsOf(ref))) {
      if (need === null) needs.push('-')
      for (const one of refsOf({ need })) {
        const part = this.partOf(one)
        if (part === null) return null
        needs.push(part)
      }
    }
    const before = this.before.get(name)
    const isSame = before && areSame(before.parts, parts) && areSame(before.needs, needs)
    const key = isSame ? before.key : `${name} ${this.cache.nameOf([parts, needs])}`
    this.named.set(name, { key, parts, needs })
    return key
  }

  /** What a need counts for in the key of what needs it. */
  private partOf(need: Ref<unknown>): string | null {
    const key = this.keyOf(need)
    if (key === null || !need.node.byValue) return key
    const kept = this.cache.get(key)
    return kept ? `${refName(need)} ${this.cache.nameOf(kept.value)}` : null
  }

  /** Computes what a key waits for: the needs, near and far, that count by their value. */
  private *keyed(ref: Ref<unknown>): Generator<Ref<unknown>, string> {
    for (const need of refsOf(this.needsOf(ref))) {
      if (this.keyOf(need) === null) yield* this.keyed(need)
      if (need.node.byValue) yield* this.work(need)
    }
    const key = this.keyOf(ref)
    if (key === null) throw new Error(`${refName(ref)} cannot be named`)
    return key
  }

  /** A result that is there already for the inputs of now. */
  peek<T>(ref: Ref<T>): T | Failure | undefined {
    const key = this.keyOf(ref)
    return key === null ? undefined : (this.cache.get(key)?.value as T | Failure | undefined)
  }

  /** Computes a node and all that it needs; hands back control after each one that had to be computed. */
  *work<T>(ref: Ref<T>): Generator<Ref<unknown>, T | Failure> {
    const key = this.keyOf(ref) ?? (yield* this.keyed(ref))
    const known = this.cache.get(key)
    if (known) return known.value as T | Failure
    const values: Record<string, unknown> = {}
    let value: T | Failure | undefined
    for (const [name, need] of Object.entries(this.needsOf(ref))) {
      if (need === null) values[name] = null
      else if ('later' in need) values[name] = () => this.orThrow(need.later)
      else if (!('node' in need)) {
        const list: unknown[] = []
        for (const one of need) list.push(yield* this.work(one))
        values[name] = list.filter((one) => !(one instanceof Failure))
      } else {
        const one = yield* this.work(need)
        if (one instanceof Failure) value = one
        values[name] = one
      }
    }
    value ??= yield* this.compute(ref, values)
    this.cache.set(key, value)
    yield ref
    return value
  }

  /** Computes a node to its end. */
  get<T>(ref: Ref<T>): T {
    const steps = this.orThrow(ref)
    for (;;) {
      const step = steps.next()
      if (step.done) return step.value
    }
  }

  private *orThrow<T>(ref: Ref<T>): Generator<Ref<unknown>, T> {
    const value = yield* this.work(ref)
    if (value instanceof Failure) throw new Error(value.sentence)
    return value
  }

  private *compute<T>(ref: Ref<T>, values: Record<string, unknown>): Generator<Ref<unknown>, T | Failure> {
    const { project, stock, found } = this.given()
    const { node } = ref
    const given: Given = {
      project: this.narrower.narrow(project, node.reads, ref.arg),
      stock: node.reads.stock ? stock : [],
      found: node.found ? found : new Map(),
      arg: ref.arg,
      memo: this.cache.memo,
    }
    try {
      const made = (node.compute as (given: Given, values: Record<string, unknown>) => unknown)(given, values)
      if (!isGenerator<T>(made)) return made as T
      for (;;) {
        const step = made.next()
        if (step.done) return step.value
        yield step.value ?? ref
      }
    } catch (error) {
      return new Failure(error instanceof Error ? error.message : String(error))
    }
  }

  private needsOf({ node, arg }: Ref<unknown>): Needs {
    return node.needs
      ? (node.needs as (project: Project, arg: string, memo: Memo) => Needs)(
          this.given().project,
          arg,
          this.cache.memo,
        )
      : {}
  }

  private given(): Inputs {
    if (!this.inputs) throw new Error('the planner has no project yet')
    return this.inputs
  }
}

/** A result's name, and what it follows from: what of the project it reads, and the names of what it needs. */
interface Named {
  key: string
  parts: readonly unknown[]
  needs: readonly string[]
}

const areSame = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((one, k) => one === b[k])

const isGenerator = <T>(value: unknown): value is Generator<Ref<unknown> | undefined, T> =>
  typeof value === 'object' && value !== null && Symbol.iterator in value && 'next' in value
