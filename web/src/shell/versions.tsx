// Past versions of the open project: when, what was changed last, a small picture; to look at and to go back to.
import { format } from 'date-fns'
import { Dialog } from 'radix-ui'
import { useEffect, useState } from 'react'
import { toast } from 'sonner'
import { session, vault, type PastVersion } from '../session'
import { saveFile } from '../session/save-file'
import { edited } from '../state/document'
import { selectProject } from '../state/selectors'
import { useAppDispatch, useAppSelector } from '../state/store'
import { looked } from '../state/view'
import { Button, momentOf } from '../ui'
import { SmallPicture } from '../drawing/small-picture'

export function Versions() {
  const dispatch = useAppDispatch()
  const open = useAppSelector((state) => state.view.versions)
  return (
    <Dialog.Root open={open} onOpenChange={(versions) => dispatch(looked({ versions }))}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/30" />
        <Dialog.Content
          className="fixed top-16 left-1/2 z-30 flex max-h-[80vh] w-[760px] max-w-[94vw] -translate-x-1/2 flex-col border border-ink bg-sheet p-5"
          aria-describedby={undefined}
        >
          <Dialog.Title className="mb-3 text-[19px]">Past versions</Dialog.Title>
          <VersionList onDone={() => dispatch(looked({ versions: false }))} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}

function VersionList({ onDone }: { onDone: () => void }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const [list, setList] = useState<PastVersion[] | null>(null)
  const [at, setAt] = useState<number | null>(null)
  useEffect(() => {
    let gone = false
    void session
      .flush()
      .then(vault)
      .then((store) => store.versions(project.id))
      .catch(() => [])
      .then((found) => !gone && setList(found.toReversed()))
    return () => {
      gone = true
    }
  }, [project.id])
  if (!list) return <p className="text-soft">Looking…</p>
  if (list.length === 0)
    return (
      <p className="text-soft">
        There are none yet: one is kept at the first change of a sitting, then every ten minutes, the last ten
        of them.
      </p>
    )
  const picked = list.find((version) => version.savedAt === at) ?? list[0]!
  const goBack = () => {
    const old = session.restore(picked)
    if (!old) {
      saveFile('damaged-version.feuillet.json', picked.text, 'application/json')
      toast.error('This version is damaged and cannot be opened. Its text is saved as a file.')
      return
    }
    dispatch(edited({ label: `back to ${format(picked.savedAt, 'd MMM, HH:mm')}`, project: old }))
    onDone()
  }
  return (
    <div className="grid min-h-0 grid-cols-[1fr_300px] gap-5">
      <ol className="min-h-0 overflow-y-auto" aria-label="Versions, the newest first">
        {list.map((version) => (
          <li key={version.savedAt} className="border-b border-line">
            <button
              type="button"
              aria-pressed={version === picked}
              onClick={() => setAt(version.savedAt)}
              className={`flex w-full items-center gap-3 px-2 py-1.5 text-left ${version === picked ? 'bg-panel outline-2 -outline-offset-2 outline-plum' : ''}`}
            >
              <span className="h-12 w-12 shrink-0">
                {version.picture && <SmallPicture picture={version.picture} />}
              </span>
              <span className="min-w-0">
                <span className="measure block text-[13.5px]">{momentOf(version.savedAt)}</span>
                <span className="block truncate text-[12.5px] text-soft">
                  {version.label ? `after: ${version.label}` : 'as it was opened'}
                </span>
              </span>
            </button>
          </li>
        ))}
      </ol>
      <div className="grid content-start gap-3">
        <div className="grid h-[260px] place-items-center border border-line bg-ground p-3">
          {picked.picture ? (
            <SmallPicture picture={picked.picture} />
          ) : (
            <span className="text-soft">no layers</span>
          )}
        </div>
        <Button look="main" onClick={goBack}>
          Go back to this version
        </Button>
        <p className="text-[12.5px] text-soft">
          What is there now is kept as a version too, and undo takes you back. What is cut, ticked or noted
          stays as it is now, and so does who is cut along.
        </p>
      </div>
    </div>
  )
}
