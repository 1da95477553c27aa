import { strToU8, zipSync } from 'fflate'
import { DropdownMenu } from 'radix-ui'
import { useState } from 'react'
import { toast } from 'sonner'
import { slug } from '@feuillet/core/project'
import type { LoadView } from '@feuillet/core/stages/sheets'
import { saveFile } from '../../session/save-file'
import { planner, usePlan } from '../../plan'
import { selectProject } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { menuItem } from '../../ui'

/** Templates to cut by hand, by the stem of their file. */
const TEMPLATES = {
  'templates-mirrored': 'Templates for the back of the card, mirrored (PDF at true size)',
  'templates-as-seen': 'Templates for the front, as it is seen (PDF at true size)',
  'templates-tiled-a4': 'Templates for the back, over pages of A4 (PDF)',
  'templates-tiled-letter': 'Templates for the back, over pages of Letter (PDF)',
} as const

/** Cut files to save: one SVG per load, or everything in one zip. */
export function FilesButton() {
  const project = useAppSelector(selectProject)
  const known = usePlan('loads')
  const [busy, setBusy] = useState(false)
  const loads = known ?? []
  const save = async (pick: (name: string) => boolean, together: boolean, pictures = false) => {
    setBusy(true)
    try {
      const files = [...(await planner.host.ask((api) => api.files()))].filter(([name]) => pick(name))
      if (pictures)
        for (const load of loads)
          files.push([
            `${load.number}-${slug(load.paper.name)}.png`,
            await pictureOf(await planner.host.ask((api) => api.picture(load.id)), load),
          ])
      if (together) {
        const zipped = zipSync(
          Object.fromEntries(
            files.map(([name, content]) => [name, typeof content === 'string' ? strToU8(content) : content]),
          ),
        )
        saveFile(`${slug(project.name)}-files.zip`, zipped, 'application/zip')
      } else
        for (const [name, content] of files)
          saveFile(name, content, name.endsWith('.pdf') ? 'application/pdf' : 'image/svg+xml')
    } catch (error) {
      toast.error(`The files could not be made: ${error instanceof Error ? error.message : String(error)}`)
    } finally {
      setBusy(false)
    }
  }
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
        <DropdownMenu.Item
          className={menuItem}
          onSelect={() => void save((name) => !name.startsWith('test-square'), true, true)}
        >
          Everything in one zip: SVG, DXF, plot, PNG, PDF, lists
        </DropdownMenu.Item>
        <DropdownMenu.Item
          className={menuItem}
          onSelect={() => void save((name) => /^load-.*\.svg$/.test(name), true)}
        >
          All SVG in one zip
        </DropdownMenu.Item>
        <DropdownMenu.Item
          className={menuItem}
          onSelect={() => void save((name) => name === 'sheet-tags.pdf', false)}
        >
          Tags for the sheets&apos; corners (PDF)
        </DropdownMenu.Item>
        <DropdownMenu.Item
          className={menuItem}
          onSelect={() => void save((name) => name === 'pads-from-behind.pdf', false)}
        >
          Pads and glue of each layer, from behind at true size (PDF)
        </DropdownMenu.Item>
        {Object.entries(TEMPLATES).map(([stem, title]) => (
          <DropdownMenu.Item
            key={stem}
            className={menuItem}
            onSelect={() => void save((name) => name === `${stem}.pdf`, false)}
          >
            {title}
          </DropdownMenu.Item>
        ))}
        <DropdownMenu.Item
          className={menuItem}
          onSelect={() => void save((name) => name === 'test-square.svg', false)}
        >
          Test square, to try a setting (SVG)
        </DropdownMenu.Item>
        {loads
          .filter(({ pieces }) => pieces.some(({ printed }) => printed))
          .map((load) => (
            <DropdownMenu.Item
              key={`print ${load.id}`}
              className={menuItem}
              onSelect={() =>
                void save((name) => name.startsWith(loadStem(load)) && name.endsWith('-print.pdf'), false)
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
              void save((name) => name.startsWith(loadStem(load)) && name.endsWith('.svg'), false)
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
