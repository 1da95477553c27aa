// From which version of the work each one was made.
import { fingerprint } from '../../base'
import { builtLayers, type Project } from '../../project'

/** Names what one is made of and how: alike where outlines, papers, joints and the mount are. */
export const versionOf = (project: Project): string =>
  fingerprint([
    project.mount,
    builtLayers(project).map(({ pieces, blanks, paperId, joint, copies, tint }) => [
      pieces.map(({ path }) => path),
      blanks.map(({ path }) => path),
      paperId,
      [joint.kind, joint.gapMm],
      copies,
      tint,
    ]),
  ])

/** The version that a make is of: numbered from 1 in the order in which they were first made, and whether the work is still so. */
export interface MadeFrom {
  version: number
  isNow: boolean
}

/** By the id of the make; those that were noted before versions were kept are of none. */
export function versionsMade(project: Project): Map<string, MadeFrom> {
  const now = versionOf(project)
  const numbers = new Map<string, number>()
  const out = new Map<string, MadeFrom>()
  for (const { id, version } of project.journal.makes.toSorted((a, b) => a.at - b.at)) {
    if (!version) continue
    if (!numbers.has(version)) numbers.set(version, numbers.size + 1)
    out.set(id, { version: numbers.get(version)!, isNow: version === now })
  }
  return out
}
