import { strToU8, zipSync } from 'fflate'
import { DropdownMenu } from 'radix-ui'
import { useState } from 'react'
import { toast } from 'sonner'
import { slug } from '@feuillet/core/project'
import { saveFile } from '../../app/save-file'
import { selectDerived, selectProject } from '../../app/selectors'
import { useAppSelector } from '../../app/store'
import { menuItem } from '../../ui'
import { compute } from '../../workers/compute'

/** Cut files to save: one SVG per load, or everything in one zip. */
export function FilesButton() {
  const project = useAppSelector(selectProject)
  const derived = useAppSelector(selectDerived)
  const [busy, setBusy] = useState(false)
  const loads = derived?.loads ?? []
  const save = async (pick: (name: string) => boolean, together: boolean) => {
    if (!derived) return
    setBusy(true)
    try {
      const files = [...(await compute.files(project, derived))].filter(([name]) => pick(name))
      if (together) {
        const zipped = zipSync(Object.fromEntries(files.map(([name, content]) => [name, typeof content === 'string' ? strToU8(content) : content])))
        saveFile(`${slug(project.name)}-files.zip`, zipped, 'application/zip')
      } else for (const [name, content] of files) saveFile(name, content, 'image/svg+xml')
    } catch (error) {
      toast.error(`The files could not be made: ${error instanceof Error ? error.message : String(error)}`)
    } finally {
      setBusy(false)
    }
  }
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="clip-corner bg-plum px-4 py-2 font-semibold text-white hover:bg-[#56235d]" disabled={busy || loads.length === 0}>
        {busy ? 'Making files…' : 'Cut files'}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="start" side="top" sideOffset={6} className="z-20 max-h-80 overflow-y-auto border border-ink bg-sheet py-1">
          <DropdownMenu.Item className={menuItem} onSelect={() => void save(() => true, true)}>
            Everything in one zip: SVG, DXF, plot, PDF, lists
          </DropdownMenu.Item>
          <DropdownMenu.Item className={menuItem} onSelect={() => void save((name) => name.endsWith('.svg'), true)}>
            All SVG in one zip
          </DropdownMenu.Item>
          {loads.map((load) => (
            <DropdownMenu.Item
              key={load.id}
              className={menuItem}
              onSelect={() => void save((name) => name.startsWith(`load-${String(load.number).padStart(2, '0')}-`) && name.endsWith('.svg'), false)}
            >
              Load {load.number}, {load.paper.name} (SVG in mm)
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}
