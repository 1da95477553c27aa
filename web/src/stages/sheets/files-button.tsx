import { strToU8, zipSync } from 'fflate'
import { DropdownMenu } from 'radix-ui'
import { useState } from 'react'
import { toast } from 'sonner'
import { slug } from '@feuillet/core/project'
import type { LoadView } from '@feuillet/core/stages/sheets'
import { commandOf, type CommandId } from '../../commands/list'
import { doCommand, useCommand } from '../../commands/use-command'
import { keepLayouts } from '../../session/layouts'
import { runIdOf, savedLoads } from '../../session/loads-out'
import { savedText, saveFile } from '../../session/save-file'
import { planner, usePlan } from '../../plan'
import { selectProject } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { menuItem } from '../../ui'

/** Files that are the same for every project: which of all that are made, and whether they go together. */
const FILES = {
  'files-all': {
    pick: (name) => !name.startsWith('test-square'),
    together: true,
    pictures: true,
    cuts: 'all',
  },
  'files-svg': { pick: (name) => /^load-.*\.svg$/.test(name), together: true, cuts: 'all' },
  'files-tags': { pick: (name) => name === 'sheet-tags.pdf' },
  'files-pads': { pick: (name) => name === 'pads-from-behind.pdf' },
  'files-mirrored': { pick: (name) => name === 'templates-mirrored.pdf' },
  'files-as-seen': { pick: (name) => name === 'templates-as-seen.pdf' },
  'files-a4': { pick: (name) => name === 'templates-tiled-a4.pdf' },
  'files-letter': { pick: (name) => name === 'templates-tiled-letter.pdf' },
  'files-test': { pick: (name) => name === 'test-square.svg' },
} as const satisfies Partial<Record<CommandId, Files>>

interface Files {
  pick: (name: string) => boolean
  together?: boolean
  /** Sheets as PNG beside them. */
  pictures?: boolean
  /** Loads that are cut from them: all, or those of these ids. */
  cuts?: 'all' | readonly string[]
}

const kinds = Object.keys(FILES) as (keyof typeof FILES)[]

/** Cut files to save: one SVG per load, or everything in one zip. */
export function FilesButton() {
  const project = useAppSelector(selectProject)
  const stock = useAppSelector((state) => state.document.stock)
  const known = usePlan('loads')
  const [busy, setBusy] = useState(false)
  const loads = known ?? []
  const save = async ({ pick, together = false, pictures = false, cuts = [] }: Files) => {
    setBusy(true)
    try {
      const made = await planner.host.ask((api) => api.files(stock))
      const files = [...made.files].filter(([name]) => pick(name))
      if (pictures)
        for (const load of loads)
          files.push([
            `${load.number}-${slug(load.paper.name)}.png`,
            await pictureOf(await planner.host.ask((api) => api.picture(load.id)), load),
          ])
      if (together) {
        const zipped = zipSync(
          Object.fromEntries(
            files.map(([name, content]) => [
              name,
              typeof content === 'string' ? strToU8(savedText(name, content)) : content,
            ]),
          ),
        )
        saveFile(`${slug(project.name)}-files.zip`, zipped, 'application/zip')
      } else
        for (const [name, content] of files)
          saveFile(name, content, name.endsWith('.pdf') ? 'application/pdf' : 'image/svg+xml')
      // A knife cuts along templates, or by measure.
      if (project.drawer.cutter.tool === 'knife') return
      const out = made.loads.filter(({ sheet }) => cuts === 'all' || cuts.includes(sheet.id))
      if (out.length === 0) return
      const at = Date.now()
      await savedLoads.remember(out.map((load) => [runIdOf(project.id, load.sheet.id), { ...load, at }]))
      await keepLayouts(await planner.host.ask((api) => api.hold()))
    } catch (error) {
      toast.error(`The files could not be made: ${error instanceof Error ? error.message : String(error)}`)
    } finally {
      setBusy(false)
    }
  }
  for (const id of kinds)
    // A fixed list: the hooks come in the same order each time.
    // eslint-disable-next-line react-hooks/rules-of-hooks
    useCommand(id, () => void save(FILES[id]), { enabled: !busy && loads.length > 0 })
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        className="clip-corner bg-plum px-4 py-2 font-semibold text-white hover:bg-[#56235d]"
        disabled={busy || loads.length === 0}
      >
        {busy ? 'Making files…' : 'Cut files'}
      </DropdownMenu.Trigger>

      <DropdownMenu.Content
        align="start"
        side="top"
        sideOffset={6}
        className="z-20 max-h-80 overflow-y-auto border border-ink bg-sheet py-1"
      >
        {kinds.map((id) => (
          <DropdownMenu.Item key={id} className={menuItem} onSelect={() => doCommand(id)}>
            {commandOf(id).title}
          </DropdownMenu.Item>
        ))}
        {loads
          .filter(({ pieces }) => pieces.some(({ printed }) => printed))
          .map((load) => (
            <DropdownMenu.Item
              key={`print ${load.id}`}
              className={menuItem}
              onSelect={() =>
                void save({ pick: (name) => name.startsWith(loadStem(load)) && name.endsWith('-print.pdf') })
              }
            >
              Print sheet of load {load.number}, {load.paper.name} (PDF at true size)
            </DropdownMenu.Item>
          ))}
        {loads.map((load) => (
          <DropdownMenu.Item
            key={load.id}
            className={menuItem}
            onSelect={() =>
              void save({
                pick: (name) => name.startsWith(loadStem(load)) && name.endsWith('.svg'),
                cuts: [load.id],
              })
            }
          >
            Load {load.number}, {load.paper.name} (SVG in mm)
          </DropdownMenu.Item>
        ))}
      </DropdownMenu.Content>
    </DropdownMenu.Root>
  )
}

/** What the files of a load begin with. */
const loadStem = ({ number }: LoadView): string => `load-${String(number).padStart(2, '0')}-`

/** Pixels a mm in pictures of sheets. */
const PX_PER_MM = 4

/** A drawing as PNG, painted by the browser. */
async function pictureOf(svg: string, load: LoadView): Promise<Uint8Array> {
  const image = new Image()
  image.src = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }))
  try {
    await image.decode()
    const canvas = document.createElement('canvas')
    canvas.width = Math.round(load.widthMm * PX_PER_MM)
    canvas.height = Math.round(load.heightMm * PX_PER_MM)
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height)
    const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'))
    if (!blob) throw new Error('the browser could not paint the picture')
    return new Uint8Array(await blob.arrayBuffer())
  } finally {
    URL.revokeObjectURL(image.src)
  }
}
