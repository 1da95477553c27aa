import { DropdownMenu } from 'radix-ui'
import { useRef } from 'react'
import { toast } from 'sonner'
import type { Recipe, RecipeKind } from '@feuillet/core/project'
import { doCommand, useCommand } from '../../../commands/use-command'
import { selectLayer, selectProject } from '../../../state/selectors'
import { useAppSelector } from '../../../state/store'
import { ACCEPTS, FileInput, menuItem } from '../../../ui'
import { readPhoto } from './photo'
import { makerNames, startRecipe, tonesOf } from './start'

export interface MakerStart {
  recipe: Recipe
  grownId: string | null
}

const kinds = Object.keys(makerNames) as RecipeKind[]

/** The makers, and those whose layers are here already, to be adjusted. */
export function MakerMenu({ onStart }: { onStart: (start: MakerStart) => void }) {
  const project = useAppSelector(selectProject)
  const layer = useAppSelector(selectLayer)
  const photo = useRef<HTMLInputElement>(null)
  const choose = (kind: RecipeKind) => {
    if (kind === 'tones') {
      photo.current?.click()
      return
    }
    const recipe = startRecipe(kind, project, layer)
    if (recipe) onStart({ recipe, grownId: null })
  }
  const takePhoto = async (file: File) => {
    const read = await readPhoto(file)
    if (read) onStart({ recipe: tonesOf(read, project), grownId: null })
    else toast.error(`${file.name}: this is not a PNG, JPEG or WebP picture that can be read.`)
  }
  const here = project.grown.filter((grown) =>
    grown.layerIds.some((id) => project.layers.some((l) => l.id === id)),
  )
  for (const kind of kinds)
    // A fixed list: the hooks come in the same order each time.
    // eslint-disable-next-line react-hooks/rules-of-hooks
    useCommand(`grow-${kind}`, () => choose(kind), { enabled: kind !== 'ladder' || layer !== undefined })
  return (
    <>
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger className="border border-ink bg-panel px-4 py-2 font-medium hover:bg-sheet">
          Grow layers
        </DropdownMenu.Trigger>

        <DropdownMenu.Content
          align="end"
          side="top"
          sideOffset={6}
          className="z-20 max-w-72 border border-ink bg-sheet py-1"
        >
          {kinds.map((kind) => (
            <DropdownMenu.Item
              key={kind}
              className={menuItem}
              disabled={kind === 'ladder' && !layer}
              onSelect={() => doCommand(`grow-${kind}`)}
            >
              <span className="block font-semibold">{makerNames[kind].title}</span>
              <span className="block text-[12.5px] opacity-80">
                {kind === 'ladder' && layer
                  ? `From “${layer.name}”: steps inwards or outwards`
                  : kind === 'ladder'
                    ? 'Pick a layer as the silhouette first'
                    : makerNames[kind].words}
              </span>
            </DropdownMenu.Item>
          ))}
          {here.length > 0 && <DropdownMenu.Separator className="my-1 border-t border-line" />}
          {here.map((grown) => (
            <DropdownMenu.Item
              key={grown.id}
              className={menuItem}
              onSelect={() => onStart({ recipe: grown.recipe, grownId: grown.id })}
            >
              Adjust the {makerNames[grown.recipe.kind].title.toLowerCase()} of {grown.layerIds.length} layers
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Root>
      <FileInput
        ref={photo}
        label="Photo"
        accept={ACCEPTS.picture}
        onFiles={([file]) => file && void takePhoto(file)}
      />
    </>
  )
}
