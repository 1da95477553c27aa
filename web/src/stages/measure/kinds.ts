import type { MountKind } from '@feuillet/core/project'

/** Kinds of work as the shelf and the Measure stage name them. */
export const kindNames: readonly { kind: MountKind; title: string; words: string }[] = [
  { kind: 'frame', title: 'Frame', words: 'Sheets stepped back behind glass' },
  { kind: 'card', title: 'Card', words: 'Layers on a card front' },
  { kind: 'topper', title: 'Topper', words: 'Words or figures on sticks' },
  { kind: 'panel', title: 'Panel', words: 'Relief on canvas or wood' },
  { kind: 'garland', title: 'Garland', words: 'Flags on a string' },
  { kind: 'free', title: 'Free work', words: 'Nothing that limits it' },
]
