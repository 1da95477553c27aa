import { starterStock } from '../stages/paper'
import { assignPaper, type Project } from '../project'

/** Gives each layer, back to front, the paper of a name from the starter drawer. Throws where the drawer has none of that name. */
export function withPapers(project: Project, names: readonly string[]): Project {
  const stock = starterStock()
  return project.layers.reduce((p, layer, i) => {
    const paper = stock.find((candidate) => candidate.name === names[i])
    if (!paper) throw new Error(`no paper named ${names[i]} in the starter drawer`)
    return assignPaper(p, [layer.id], { paper })
  }, project)
}
