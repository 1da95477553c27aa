// The shelf: all projects with their pictures, from an index; new ones, demos, files.
import { useCallback, useEffect, useRef, useState } from 'react'
import { format } from 'date-fns'
import { useNavigate } from 'react-router'
import { toast } from 'sonner'
import { MoreHorizontal } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { BadInput } from '@feuillet/core/base'
import {
  besideItself,
  isBegun,
  madeAnew,
  newProject,
  openProject,
  slug,
  starterMount,
  tidyName,
  type Project,
} from '@feuillet/core/project'
import { formatSize } from '@feuillet/core/base/units'
import { kindNames } from '../stages/measure/kinds'
import { FirstVisit } from './first-visit'
import { SmallPicture } from '../drawing/small-picture'
import { planner } from '../plan/planner'
import {
  keepProject,
  loadShelf,
  readKept,
  session,
  vault,
  whileFree,
  whyNotLasting,
  type ShelfEntry,
} from '../session'
import { demos, seedDemos } from '../session/demos'
import { saveFile } from '../session/save-file'
import { ACCEPTS, Button, dayOf, FileButton, menuItem } from '../ui'
import { editor } from '../workers'

/** So long after the shelf stands its workers start (ms): it is painted by then. */
const WAKE_MS = 120

export function Shelf() {
  const navigate = useNavigate()
  const [entries, setEntries] = useState<ShelfEntry[] | null>(null)
  const [trouble, setTrouble] = useState<string | null>(null)
  const [busy, setBusy] = useState<string | null>(null)
  const refresh = useCallback(async () => {
    try {
      // What a project that was just left still has to keep comes first.
      await session.idle()
      await seedDemos()
      setEntries(await loadShelf())
      setTrouble((said) => said ?? whyNotLasting)
    } catch (error) {
      setEntries([])
      setTrouble(
        `The shelf could not be read: ${error instanceof Error ? error.message : String(error)}. Load the page anew; nothing was changed.`,
      )
    }
  }, [])
  useEffect(() => {
    // Reading the shelf is this effect's whole purpose.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    void refresh()
  }, [refresh])
  const isRead = entries !== null
  useEffect(() => {
    // While the shelf is looked at the page is free: what the first project needs is read then.
    if (!isRead) return
    const timer = setTimeout(() => {
      editor.wake()
      planner.host.wake()
    }, WAKE_MS)
    return () => clearTimeout(timer)
  }, [isRead])
  const openNew = async (project: Project, label: string) => {
    try {
      await keepProject(project, label)
      void navigate(`/project/${project.id}/measure`)
    } catch {
      toast.error(
        'The browser would not keep this project: its storage is full or blocked. Nothing was begun.',
      )
    }
  }
  const openDemo = async (name: (typeof demos)[number]['name']) => {
    const project = await editor.ask((api) => api.demo(name))
    await openNew({ ...project, id: crypto.randomUUID() }, 'a demo project')
  }
  const openFile = async (file: File) => {
    setTrouble(null)
    if (/\.zip$/i.test(file.name)) return bringZip(file)
    if (/\.(svgz?|dxf)$/i.test(file.name))
      return setTrouble(
        `${file.name} is a drawing: begin with what it will live in, and bring it in on Layers.`,
      )
    try {
      const { project, healed } = openProject(await file.text())
      for (const sentence of healed) toast(`${file.name}: ${sentence}`, { duration: 15_000 })
      // Whatever stands on the shelf under its id stays there, damaged or not.
      const taken = (await readKept(project.id)) !== undefined
      await openNew(taken ? besideItself(project, crypto.randomUUID()) : project, `from ${file.name}`)
      if (taken)
        toast(
          `“${project.name}” is on the shelf already: this one stands beside it.${project.cut.length > 0 ? ' What is cut of it was taken from the drawer there.' : ''}`,
          { duration: 12_000 },
        )
    } catch (error) {
      setTrouble(
        error instanceof BadInput ? `${file.name}: ${error.message}.` : `${file.name} could not be opened.`,
      )
    }
  }
  const saveZip = async () => {
    setBusy('Packing…')
    try {
      const { packAll } = await import('../session/zip')
      saveFile(`feuillet-${format(Date.now(), 'yyyy-MM-dd')}.zip`, await packAll(), 'application/zip')
    } catch (error) {
      toast.error(`The zip could not be made: ${error instanceof Error ? error.message : String(error)}`)
    } finally {
      setBusy(null)
    }
  }
  const bringZip = async (file: File) => {
    setBusy('Unpacking…')
    try {
      const { unpackAll } = await import('../session/zip')
      const { taken, words } = await unpackAll(new Uint8Array(await file.arrayBuffer()))
      toast(`${file.name}: ${taken} ${taken === 1 ? 'project' : 'projects'} taken in. ${words.join(' ')}`, {
        duration: 12_000,
      })
      await refresh()
    } catch (error) {
      setTrouble(`${file.name}: ${error instanceof Error ? error.message : String(error)}.`)
    } finally {
      setBusy(null)
    }
  }
  const remove = async ({ id, name }: ShelfEntry) => {
    const kept = await readKept(id)
    const entry = entries?.find((one) => one.id === id)
    const store = await vault()
    await store.remove(id)
    await refresh()
    const back = async () => {
      if (kept && entry) await store.save({ kept, entry, base: null, keepVersion: false, stock: null })
      await refresh()
    }
    toast(`“${name}” is off the shelf.`, { action: { label: 'Undo', onClick: () => void back() } })
  }
  return (
    <main
      className="mx-auto flex h-full max-w-[1240px] flex-col gap-6 overflow-y-auto px-8 py-7"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault()
        const file = event.dataTransfer.files[0]
        if (file) void openFile(file)
      }}
    >
      <header className="flex items-center gap-3">
        <img src="/mark.svg" alt="" width={36} height={36} />
        <div>
          <h1 className="text-[28px]">Feuillet</h1>
          <p className="text-soft">Layered card, planned from the measured frame to the last drop of glue.</p>
        </div>
      </header>
      {trouble && (
        <p role="alert" className="border-l-4 border-crimson bg-crimson-pale px-3 py-2">
          <span aria-hidden>■ </span>
          {trouble}
        </p>
      )}
      <section aria-labelledby="begin" className="grid grid-cols-[1fr_1fr] gap-8">
        <div>
          <h2 id="begin" className="mb-2 text-[17px]">
            Begin with what it will live in
          </h2>
          <div className="grid grid-cols-3 gap-3">
            {kindNames.map(({ kind, title, words }) => (
              <button
                key={kind}
                type="button"
                className="clip-corner flex min-h-[70px] flex-col justify-start bg-plum px-4 py-2 text-left text-white hover:bg-[#56235d]"
                onClick={() =>
                  void openNew(
                    newProject(crypto.randomUUID(), `New ${title.toLowerCase()}`, starterMount(kind)),
                    'a new project',
                  )
                }
              >
                <span className="font-head block text-[18px] font-semibold">{title}</span>
                <span className="text-[13px] opacity-90">{words}</span>
              </button>
            ))}
          </div>
        </div>
        <div>
          <h2 className="mb-2 text-[17px]">Or take a finished one apart</h2>
          <div className="flex flex-wrap items-center gap-3">
            {demos.map(({ name, title, words }) => (
              <Button key={name} onClick={() => void openDemo(name)} className="flex-col items-start! gap-0!">
                <span className="font-semibold">{title}</span>
                <span className="text-[12.5px] text-soft">{words}</span>
              </Button>
            ))}
            <FileButton
              look="quiet"
              label="Project file"
              accept={ACCEPTS.project}
              onFiles={([file]) => file && void openFile(file)}
            >
              Open a project file or a zip
            </FileButton>
          </div>
        </div>
      </section>
      <section aria-labelledby="shelf" className="min-h-0">
        <div className="mb-3 flex items-baseline justify-between">
          <h2 id="shelf" className="text-[17px]">
            On the shelf
          </h2>
          {entries !== null && entries.length > 0 && (
            <Button look="quiet" disabled={busy !== null} onClick={() => void saveZip()}>
              {busy ?? 'Save everything as one zip'}
            </Button>
          )}
        </div>
        {entries?.length === 0 && <FirstVisit onOpen={() => void openDemo('harbour')} />}
        {entries?.length === 0 && (
          <p className="mt-3 text-soft">
            Nothing yet. Projects are kept in this browser; a project file can be dropped anywhere on this
            page.
          </p>
        )}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(230px,1fr))] gap-5 pb-8">
          {entries?.map((entry) => (
            <Entry
              key={entry.id}
              entry={entry}
              onRemove={() => void remove(entry)}
              onChange={() => void refresh()}
            />
          ))}
        </ul>
      </section>
    </main>
  )
}

interface EntryProps {
  entry: ShelfEntry
  onRemove: () => void
  onChange: () => void
}

function Entry({ entry, onRemove, onChange }: EntryProps) {
  const navigate = useNavigate()
  const [naming, setNaming] = useState(false)
  const renaming = useRef(false)
  const { id, trouble, picture } = entry
  const rename = async (typed: string) => {
    setNaming(false)
    const name = tidyName(typed)
    if (!name || name === entry.name) return
    if (!(await renameKept(id, name))) return
    onChange()
    toast(`Renamed to “${name}”.`, {
      action: { label: 'Undo', onClick: () => void renameKept(id, entry.name).then(onChange) },
    })
  }
  const duplicate = async () => {
    const kept = await readKept(id)
    if (!kept) return
    const { project } = openProject(kept.text)
    const copy = madeAnew(project, { id: crypto.randomUUID(), name: tidyName(`${project.name}, copy`) })
    await keepProject(copy, `a copy of ${project.name}`)
    onChange()
    if (isBegun(project)) toast(`“${copy.name}” is to be made anew: nothing of it is cut or done yet.`)
  }
  const save = async () => {
    const kept = await readKept(id)
    if (kept) saveFile(`${slug(entry.name)}.feuillet.json`, kept.text, 'application/json')
  }
  return (
    <li className="relative border border-line bg-panel" data-project={entry.name}>
      <button
        type="button"
        className="block w-full text-left hover:bg-sheet"
        onClick={() => void navigate(`/project/${encodeURIComponent(id)}/measure`)}
        aria-label={`Open ${entry.name}`}
      >
        <span className="block h-[190px] p-4">
          {picture ? (
            <SmallPicture picture={picture} />
          ) : (
            <span className="grid h-full place-items-center border border-dashed border-line px-3 text-center text-soft">
              {trouble ? trouble.sentence : 'no layers yet'}
            </span>
          )}
        </span>
        <span className="block border-t border-line px-3 py-2 pr-9">
          <span className={`block truncate font-semibold ${naming ? 'invisible' : ''}`}>{entry.name}</span>
          {trouble ? (
            <span className="block truncate text-[12.5px] text-crimson">
              <span aria-hidden>■ </span>
              {trouble.kind === 'newer'
                ? 'of a newer Feuillet: to look at only'
                : 'damaged: it can be exported'}
            </span>
          ) : (
            <span className="block text-[12.5px] text-soft">
              {entry.kind}, {formatSize(entry.widthMm, entry.heightMm, entry.unit)} · {dayOf(entry.savedAt)}
            </span>
          )}
        </span>
      </button>
      {naming && (
        <input
          autoFocus
          aria-label="Name of the project"
          defaultValue={entry.name}
          className="absolute bottom-7 left-2 w-40"
          onBlur={(event) => void rename(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter') void rename(event.currentTarget.value)
            if (event.key === 'Escape') setNaming(false)
          }}
        />
      )}
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger
          className="absolute right-1.5 bottom-3 p-1 text-soft hover:text-ink"
          aria-label={`More for ${entry.name}`}
        >
          <MoreHorizontal size={18} />
        </DropdownMenu.Trigger>

        <DropdownMenu.Content
          align="end"
          className="z-20 min-w-44 border border-ink bg-sheet py-1"
          onCloseAutoFocus={(event) => {
            if (!renaming.current) return
            // The field takes the focus, and not the button that the menu would give it back to.
            event.preventDefault()
            renaming.current = false
            setNaming(true)
          }}
        >
          {!trouble && (
            <>
              <DropdownMenu.Item className={menuItem} onSelect={() => void duplicate()}>
                Duplicate
              </DropdownMenu.Item>
              <DropdownMenu.Item className={menuItem} onSelect={() => (renaming.current = true)}>
                Rename
              </DropdownMenu.Item>
            </>
          )}
          <DropdownMenu.Item className={menuItem} onSelect={() => void save()}>
            Save as a project file
          </DropdownMenu.Item>
          <DropdownMenu.Item className={menuItem} onSelect={onRemove}>
            Take off the shelf
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Root>
    </li>
  )
}

/** Names a kept project otherwise, as it is now; not while another tab has it open. */
async function renameKept(id: string, name: string): Promise<boolean> {
  const done = await whileFree(id, async () => {
    const kept = await readKept(id)
    if (kept)
      await keepProject({ ...openProject(kept.text).project, id, name }, 'rename the project', {
        isNext: true,
        keepsPast: false,
      })
  })
  if (!done) toast.error('This project is open in another tab: rename it there.')
  return done
}
