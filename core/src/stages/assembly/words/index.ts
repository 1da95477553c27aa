// The wording of jobs: what to do, what to watch and the usual caution, for the bench.
import { sayAll, type Said } from '../../../base/units'
import type { Project } from '../../../project'
import type { Turn } from '../../layers'
import type { About, Task, Untold } from '../task'
import type { Words } from './common'
import { beforeSticking } from './before'
import { atSticking } from './at'
import { afterSticking } from './after'

/** Puts words to the jobs of a project. `turns` are the ways of laying each layer that look right, by id. */
export function tell(
  project: Project,
  jobs: readonly Untold[],
  turns: ReadonlyMap<string, readonly Turn[]>,
): Task[] {
  const { batch } = project.plan
  return jobs.map(({ about, ...job }): Task => {
    const { title: plain, detail, caution = null } = wordsFor(project, about)
    const title = job.nth === undefined ? plain : `${plain} (${job.nth} of ${batch})`
    const all: Said[] = [detail]
    // What is cut is cut for the whole batch; hands do the rest once for each.
    const once = about.step === 'prepare' || about.step === 'weed'
    if (batch > 1 && job.nth === undefined && job.needs.includes('hands') && !once)
      all.push(`For all ${batch}.`)
    if ('layer' in about && (job.kind === 'lay' || job.kind === 'glue'))
      all.push(...turnWarning(turns.get(about.layer.id) ?? []))
    return { ...job, title, detail: sayAll(all), caution }
  })
}

function wordsFor(project: Project, about: About): Words {
  switch (about.step) {
    case 'prepare':
    case 'print':
    case 'ink':
    case 'cut':
    case 'weed':
    case 'score':
    case 'shape':
    case 'colour':
    case 'colour-dries':
    case 'press':
    case 'dry-fit':
      return beforeSticking(project, about)
    case 'start':
    case 'begin':
    case 'pad':
    case 'lay':
    case 'glue':
    case 'hold':
      return atSticking(project, about)
    default:
      return afterSticking(project, about)
  }
}

/** Which wrong way of laying a layer looks right, where there is one. */
function turnWarning(turns: readonly Turn[]): string[] {
  const near = turns.filter((turn) => !turn.exact)
  const [first] = near
  if (!first) return []
  const turned = Math.round(first.turnDeg) % 360
  const way = `${first.flipped ? 'face down' : ''}${turned > 0 ? ` turned ${turned}°` : ''}`.trim()
  const more = near.length > 1 ? `, and ${near.length - 1} more ways` : ''
  return [`It looks right ${way} as well${more}: check before it touches.`]
}
