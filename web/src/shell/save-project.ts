import { projectFileName, writeProject, type Project } from '@feuillet/core/project'
import { saveFile } from '../session/save-file'

/** Hands a project to the browser as a project file. */
export const saveProjectFile = (project: Project): void =>
  saveFile(projectFileName(project), writeProject(project), 'application/json')
