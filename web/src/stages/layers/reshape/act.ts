import type { Mend } from '@feuillet/core/project'

/** Runs a tool on the layer; `idle` says why where it changed nothing. */
export type Act = (label: string, mend: Mend, idle: string) => void
