// The shelf: all projects with live pictures; new ones, demos, files.
import { useCallback, useEffect, useRef, useState } from 'react'
import { format } from 'date-fns'
import { useNavigate } from 'react-router'
import { toast } from 'sonner'
import { MoreHorizontal } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import {
  newProject,
  projectFileName,
  readProject,
  starterMount,
  viewBox,
  writeProject,
  type NewKind,
  type Project,
} from '@feuillet/core/project'
import { BadInput } from '@feuillet/core/base'
import { formatSize } from '@feuillet/core/base/units'
import { Thumbnail } from '../drawing/stack'
import { Button, menuItem } from '../ui/index'
import { compute } from '../workers/compute'
import { demos, seedDemos } from '../session/demos'
import { saveFile } from '../session/save-file'
import { loadShelf, removeProject, saveOrHold, saveProject, type ShelfEntry } from '../session/storage'

const kinds: { kind: NewKind; title: string; words: string }[] = [
  { kind: 'frame', title: 'Frame', words: 'Sheets stepped back behind glass' },
  { kind: 'card', title: 'Card', words: 'Layers on a card front' },
  { kind: 'topper', title: 'Topper', words: 'Words or figures on sticks' },
]

export function Shelf() {
  const navigate = useNavigate()
  const [entries, setEntries] = useState<ShelfEntry[] | null>(null)
  const [trouble, setTrouble] = useState<string | null>(null)
  const picker = useRef<HTMLInputElement>(null)
  const refresh = useCallback(async () => {
    try {
      await seedDemos()
      setEntries(await loadShelf())
    } catch {
      setEntries([])
      setTrouble(
        'This browser blocks storage for this page: projects last only until it is closed. Save them as files.',
      )
    }
  }, [])
  useEffect(() => {
    // Reading the shelf is this effect's whole purpose.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    void refresh()
  }, [refresh])
  const openNew = async (project: Project) => {
    if (!(await saveOrHold(project)))
      toast.error('The browser would not keep this project. Save it as a file before you close the page.')
    void navigate(`/project/${project.id}/measure`)
  }
  const openDemo = async (name: (typeof demos)[number]['name']) => {
    const project = await compute.demo(name)
    await openNew({ ...project, id: crypto.randomUUID() })
  }
  const openFile = async (file: File) => {
    try {
      const project = readProject(await file.text())
      const taken = entries?.some((entry) => entry.project.id === project.id)
      await openNew(taken ? { ...project, id: crypto.randomUUID() } : project)
    } catch (error) {
      setTrouble(
        error instanceof BadInput ? `${file.name}: ${error.message}.` : `${file.name} could not be opened.`,
      )
    }
  }
  const remove = async ({ project }: ShelfEntry) => {
    await removeProject(project.id)
    await refresh()
    toast(`“${project.name}” is off the shelf.`, {
      action: { label: 'Undo', onClick: () => void saveProject(project).then(refresh) },
    })
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
            {kinds.map(({ kind, title, words }) => (
              <button
                key={kind}
                type="button"
                className="clip-corner flex min-h-24 flex-col justify-start bg-plum px-4 py-3 text-left text-white hover:bg-[#56235d]"
                onClick={() =>
                  void openNew(
                    newProject(crypto.randomUUID(), `New ${title.toLowerCase()}`, starterMount(kind)),
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
            <Button look="quiet" onClick={() => picker.current?.click()}>
              Open a project file
            </Button>
            <input
              ref={picker}
              type="file"
              accept=".json,application/json"
              className="hidden"
              aria-label="Project file"
              onChange={(event) => {
                const file = event.target.files?.[0]
                event.target.value = ''
                if (file) void openFile(file)
              }}
            />
          </div>
        </div>
      </section>
      <section aria-labelledby="shelf" className="min-h-0">
        <h2 id="shelf" className="mb-3 text-[17px]">
          On the shelf
        </h2>
        {entries?.length === 0 && (
          <p className="text-soft">
            Nothing yet. Projects are kept in this browser; a project file can be dropped anywhere on this
            page.
          </p>
        )}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(230px,1fr))] gap-5 pb-8">
          {entries?.map((entry) => (
            <Entry
              key={entry.project.id}
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

function Entry({
  entry,
  onRemove,
  onChange,
}: {
  entry: ShelfEntry
  onRemove: () => void
  onChange: () => void
}) {
  const navigate = useNavigate()
  const [naming, setNaming] = useState(false)
  const renaming = useRef(false)
  const { project, savedAt } = entry
  const box = viewBox(project)
  const rename = async (name: string) => {
    setNaming(false)
    if (!name.trim() || name.trim() === project.name) return
    await saveProject({ ...project, name: name.trim() })
    onChange()
    toast(`Renamed to “${name.trim()}”.`, {
      action: { label: 'Undo', onClick: () => void saveProject(project).then(onChange) },
    })
  }
  const duplicate = async () => {
    await saveProject({ ...project, id: crypto.randomUUID(), name: `${project.name}, copy` })
    onChange()
  }
  return (
    <li className="relative border border-line bg-panel" data-project={project.name}>
      <button
        type="button"
        className="block w-full text-left hover:bg-sheet"
        onClick={() => void navigate(`/project/${project.id}/measure`)}
        aria-label={`Open ${project.name}`}
      >
        <span className="block h-[190px] p-4">
          {project.layers.length > 0 ? (
            <Thumbnail project={project} box={box} />
          ) : (
            <span className="grid h-full place-items-center border border-dashed border-line text-soft">
              no layers yet
            </span>
          )}
        </span>
        <span className="block border-t border-line px-3 py-2 pr-9">
          <span className={`block truncate font-semibold ${naming ? 'invisible' : ''}`}>{project.name}</span>
          <span className="block text-[12.5px] text-soft">
            {project.mount.kind}, {formatSize(box.maxX - box.minX, box.maxY - box.minY, project.unit)} ·{' '}
            {format(savedAt, 'd MMM yyyy')}
          </span>
        </span>
      </button>
      {naming && (
        <input
          autoFocus
          aria-label="Name of the project"
          defaultValue={project.name}
          className="absolute bottom-7 left-2 w-40"
          onBlur={(event) => void rename(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter') void rename(event.currentTarget.value)
            if (event.key === 'Escape') setNaming(false)
          }}
        />
      )}
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          className="absolute right-1.5 bottom-3 p-1 text-soft hover:text-ink"
          aria-label={`More for ${project.name}`}
        >
          <MoreHorizontal size={18} />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
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
            <DropdownMenu.Item className={menuItem} onSelect={() => void duplicate()}>
              Duplicate
            </DropdownMenu.Item>
            <DropdownMenu.Item className={menuItem} onSelect={() => (renaming.current = true)}>
              Rename
            </DropdownMenu.Item>
            <DropdownMenu.Item
              className={menuItem}
              onSelect={() => saveFile(projectFileName(project), writeProject(project), 'application/json')}
            >
              Save as a project file
            </DropdownMenu.Item>
            <DropdownMenu.Item className={menuItem} onSelect={onRemove}>
              Take off the shelf
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </li>
  )
}
