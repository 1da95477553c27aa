// The fonts that ship with the application, all of open licence; each is fetched from the application's own files when
// it is first asked for.
import alfa from '@expo-google-fonts/alfa-slab-one/400Regular/AlfaSlabOne_400Regular.ttf?url'
import baloo from '@expo-google-fonts/baloo-2/700Bold/Baloo2_700Bold.ttf?url'
import dancing from '@expo-google-fonts/dancing-script/700Bold/DancingScript_700Bold.ttf?url'
import fredoka from '@expo-google-fonts/fredoka/700Bold/Fredoka_700Bold.ttf?url'
import greatVibes from '@expo-google-fonts/great-vibes/400Regular/GreatVibes_400Regular.ttf?url'
import lobster from '@expo-google-fonts/lobster/400Regular/Lobster_400Regular.ttf?url'
import londrina from '@expo-google-fonts/londrina-outline/400Regular/LondrinaOutline_400Regular.ttf?url'
import pacifico from '@expo-google-fonts/pacifico/400Regular/Pacifico_400Regular.ttf?url'
import righteous from '@expo-google-fonts/righteous/400Regular/Righteous_400Regular.ttf?url'
import zilla from '@expo-google-fonts/zilla-slab/700Bold/ZillaSlab_700Bold.ttf?url'
import { editor } from '../../../workers'

export const shippedFonts = [
  { id: 'pacifico', name: 'Pacifico', kind: 'script', url: pacifico },
  { id: 'lobster', name: 'Lobster', kind: 'script', url: lobster },
  { id: 'dancing-script', name: 'Dancing Script', kind: 'script', url: dancing },
  { id: 'great-vibes', name: 'Great Vibes', kind: 'script', url: greatVibes },
  { id: 'fredoka', name: 'Fredoka', kind: 'round', url: fredoka },
  { id: 'baloo', name: 'Baloo', kind: 'round', url: baloo },
  { id: 'righteous', name: 'Righteous', kind: 'round', url: righteous },
  { id: 'alfa-slab', name: 'Alfa Slab', kind: 'slab', url: alfa },
  { id: 'zilla-slab', name: 'Zilla Slab', kind: 'slab', url: zilla },
  { id: 'londrina', name: 'Londrina', kind: 'outline', url: londrina },
] as const

/** Hands a shipped font to the worker where it has none of the name: a worker that was started afresh has forgotten its fonts. */
export async function readyFont(id: string): Promise<void> {
  const font = shippedFonts.find((f) => f.id === id)
  if (!font || (await editor.ask((api) => api.hasFont(id)))) return
  const bytes = new Uint8Array(await (await fetch(font.url)).arrayBuffer())
  await editor.ask((api) => api.takeFont(id, bytes))
}
