// What the wording of several steps has in common.
import { adhesiveOf, glueOf, type Layer, type Project } from '../../../project'
import type { About, Task } from '../task'

/** What a step is told in. */
export type Words = Pick<Task, 'title' | 'detail'> & { caution?: string | null }

/** What steps of some kinds are about. */
export type Of<Step extends About['step']> = Extract<About, { step: Step }>

/** The name of a layer's glue; of the project's where no layer is meant. */
export const glueName = (project: Project, layer: Layer | undefined, unnamed = 'Glue'): string =>
  (layer ? glueOf(project, layer) : adhesiveOf(project))?.name ?? unnamed

/** What is to be heeded, each once; null where there is nothing. */
export const heed = (...all: readonly (string | null | undefined)[]): string | null =>
  [...new Set(all.filter(Boolean))].join(' ') || null

const LIT =
  'Cool, low-voltage LED only, its battery case closed; never a candle or a hot lamp in paper. Follow the label of the light.'

/** What is to be heeded of a light behind the work; null where there is none. */
export const lit = ({ plan }: Pick<Project, 'plan'>): string | null => (plan.litFromBehind ? LIT : null)

/** “thick squares on thin squares”, “narrow strips, 3 on each other”. */
export const stackOf = (foams: readonly string[]): string =>
  foams.length > 1 && new Set(foams).size === 1
    ? `${foams[0]}, ${foams.length} on each other`
    : foams.join(' on ')

/** “1 piece”, “3 pieces”. */
export const plural = (n: number, noun: string): string => `${n} ${noun}${n === 1 ? '' : 's'}`

/** With its first letter as a capital. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
