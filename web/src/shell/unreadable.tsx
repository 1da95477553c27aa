import { Link } from 'react-router'
import { slug } from '@feuillet/core/project'
import { keepProject, type OpenAnswer } from '../session'
import { saveFile } from '../session/save-file'
import { openProject } from '@feuillet/core/project'
import { Button, momentOf } from '../ui'

/** In place of a project that cannot be opened: why, its text as it is, and the past versions that can. */
export function Unreadable({
  id,
  answer,
  onOpen,
}: {
  id: string
  answer: OpenAnswer & { kind: 'unreadable' }
  onOpen: () => void
}) {
  const { sentence, text, versions } = answer
  const goBack = async (old: string) => {
    // What cannot be opened stays among the past versions: it may be mended elsewhere.
    await keepProject({ ...openProject(old).project, id }, 'back to a past version', { isNext: true })
    onOpen()
  }
  return (
    <main className="mx-auto grid h-full max-w-[60ch] content-center gap-3 p-8">
      <h1 className="text-[22px]">This project cannot be opened</h1>
      <p role="alert">
        <span aria-hidden className="text-crimson">
          ■{' '}
        </span>
        {sentence} It stays as it is.
      </p>
      <p className="flex flex-wrap gap-2">
        {text !== null && (
          <Button look="main" onClick={() => saveFile(`${slug(id)}.feuillet.json`, text, 'application/json')}>
            Save its text as a file
          </Button>
        )}
        <Link to="/" className="self-center text-plum underline">
          Back to the shelf
        </Link>
      </p>
      {versions.length > 0 && (
        <section>
          <h2 className="mt-3 mb-1 text-[16px]">Past versions</h2>
          <ul className="grid gap-1">
            {versions.toReversed().map((version) => (
              <li
                key={version.savedAt}
                className="flex items-center justify-between gap-3 border-b border-line py-1"
              >
                <span>
                  {momentOf(version.savedAt)} <span className="text-soft">{version.label}</span>
                </span>
                <Button small onClick={() => void goBack(version.text)}>
                  Go back to it
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </main>
  )
}
