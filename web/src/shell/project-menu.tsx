import { DropdownMenu } from 'radix-ui'
import { ChevronDown } from 'lucide-react'
import { useRef, useState } from 'react'
import { tidyName } from '@feuillet/core/project'
import { commandOf } from '../commands/list'
import { doCommand } from '../commands/use-command'
import { menuItem } from '../ui'
import { change } from '../state/edits'
import { selectProject } from '../state/selectors'
import { useAppDispatch, useAppSelector } from '../state/store'

/** The project's name, with what can be done to the whole of it. */
export function ProjectMenu() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const [naming, setNaming] = useState(false)
  const renaming = useRef(false)
  const rename = (name: string) => {
    setNaming(false)
    const tidy = tidyName(name)
    if (tidy && tidy !== project.name) dispatch(change('rename the project', (p) => ({ ...p, name: tidy })))
  }
  if (naming)
    return (
      <input
        autoFocus
        aria-label="Name of the project"
        defaultValue={project.name}
        className="w-32"
        onBlur={(event) => rename(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') rename(event.currentTarget.value)
          if (event.key === 'Escape') setNaming(false)
        }}
      />
    )
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        className="flex min-w-0 items-center gap-1 text-soft hover:text-ink"
        aria-label={`Project: ${project.name}`}
      >
        <span className="line-clamp-2 text-left leading-tight wrap-anywhere">{project.name}</span>
        <ChevronDown size={14} className="shrink-0" />
      </DropdownMenu.Trigger>

      <DropdownMenu.Content
        align="start"
        sideOffset={6}
        className="z-20 min-w-48 border border-ink bg-sheet py-1"
        onCloseAutoFocus={(event) => {
          if (!renaming.current) return
          // The field takes the focus, and not the button that the menu would give it back to.
          event.preventDefault()
          renaming.current = false
          setNaming(true)
        }}
      >
        <DropdownMenu.Item className={menuItem} onSelect={() => (renaming.current = true)}>
          Rename
        </DropdownMenu.Item>
        {(['save', 'versions', 'units', 'keys', 'go-shelf'] as const).map((id) => (
          <DropdownMenu.Item
            key={id}
            className={`${menuItem} flex justify-between gap-6`}
            onSelect={() => doCommand(id)}
          >
            {commandOf(id).title}
            <span className="measure text-[12px] opacity-75">{commandOf(id).shown}</span>
          </DropdownMenu.Item>
        ))}
      </DropdownMenu.Content>
    </DropdownMenu.Root>
  )
}
