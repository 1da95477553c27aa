// What a recipe asks for beyond what a layer can hold, in a sentence.
import { ZodError } from 'zod'
import { BadInput } from '../../../base'
import { length, say, type Said } from '../../../base/units'

/** What a schema refused of grown layers, as BadInput; any other error as it is. */
export function asRefusal(error: unknown): unknown {
  if (!(error instanceof ZodError)) return error
  return new BadInput(say`these settings ask for ${wordsOf(error.issues[0]!)}: take smaller ones`)
}

function wordsOf(issue: ZodError['issues'][number]): Said {
  const most = issue.code === 'too_big' ? Number(issue.maximum) : Infinity
  if (issue.code === 'too_big' && issue.origin === 'array')
    return `more than ${most} ${String(issue.path.findLast((key) => typeof key === 'string') ?? 'parts')} in a layer`
  if (!Number.isFinite(most)) return 'what no layer can hold'
  return issue.path.at(-1) === 'gapMm'
    ? say`a gap of more than ${length(most)}`
    : say`something farther than ${length(most)} from the corner of the work`
}
