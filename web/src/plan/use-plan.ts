import { useEffect, useMemo } from 'react'
import { shallowEqual } from 'react-redux'
import { nodes, type NodeName, type ViewOf } from '@feuillet/core/stages'
import { useAppSelector } from '../state/store'
import { nameOf } from './link'
import { planner } from './planner'

/** The view of a node, asked for while the component stands; undefined until it is there. An arg of null asks for nothing. */
export function usePlan<Name extends NodeName>(node: Name, arg?: string | null): ViewOf<Name> | undefined {
  const name = arg === null ? null : nameOf({ node, arg })
  useEffect(() => (arg === null ? undefined : planner.watch({ node, arg })), [node, arg])
  return useAppSelector((state) => (name === null ? undefined : state.plan.views[name])) as
    ViewOf<Name> | undefined
}

/** Views of one node about many things, in their order; those that are not there yet are left out. */
export function usePlans<Name extends NodeName>(node: Name, args: readonly string[]): ViewOf<Name>[] {
  const key = args.join('\n')
  const list = useMemo(() => (key ? key.split('\n') : []), [key])
  useEffect(() => {
    const stop = list.map((arg) => planner.watch({ node, arg }))
    return () => stop.forEach((end) => end())
  }, [node, list])
  return useAppSelector(
    (state) => list.flatMap((arg) => state.plan.views[nameOf({ node, arg })] ?? []) as ViewOf<Name>[],
    shallowEqual,
  )
}

/** Of the whole work, not of single layers or sheets, which may just have been taken away. */
const WHOLE: ReadonlySet<string> = new Set(Object.values(nodes).map(({ node }) => node.name))

/** Why parts of the plan could not be computed, each reason once. */
export const useFailures = (): string[] =>
  useAppSelector(({ plan: { failed, settled } }) => {
    const now = Object.entries(failed).filter(
      ([name, { revision }]) => WHOLE.has(name) && (settled === null || revision === settled),
    )
    return [...new Set(now.map(([, { sentence }]) => sentence))]
  }, shallowEqual)
