// Every command by its name: what it does, in words, and the keys that do it. Who can do it now says so by `useCommand`.

export interface Command {
  /** What it does, as an entry of a list. */
  title: string
  group:
    | 'Go to'
    | 'Layers'
    | 'Look'
    | 'Project'
    | 'Grow layers'
    | 'Cut files'
    | 'Parts on the board'
    | 'Piece on a sheet'
    | 'Drawing'
    | 'Bench'
  /** For the listener to keys; none where only lists have it. */
  keys?: string
  /** The same as the maker reads it. */
  shown?: string
  /** Told by the sign that comes out of the keyboard, wherever its key lies. */
  bySign?: true
}

export const commands = {
  'go-measure': { title: 'Measure', group: 'Go to', keys: '1', shown: '1' },
  'go-layers': { title: 'Layers', group: 'Go to', keys: '2', shown: '2' },
  'go-paper': { title: 'Paper', group: 'Go to', keys: '3', shown: '3' },
  'go-sheets': { title: 'Sheets', group: 'Go to', keys: '4', shown: '4' },
  'go-depth': { title: 'Depth', group: 'Go to', keys: '5', shown: '5' },
  'go-assembly': { title: 'Assembly', group: 'Go to', keys: '6', shown: '6' },
  'go-journal': { title: 'Journal', group: 'Go to', keys: '7', shown: '7' },
  'go-bench': { title: 'The bench', group: 'Go to' },
  'go-shelf': { title: 'The shelf of projects', group: 'Go to' },
  'layer-below': { title: 'Pick the layer below', group: 'Layers', keys: 'j', shown: 'J', bySign: true },
  'layer-above': { title: 'Pick the layer above', group: 'Layers', keys: 'k', shown: 'K', bySign: true },
  'layer-back': {
    title: 'Move the layer back',
    group: 'Layers',
    keys: 'shift+j,[',
    shown: 'Shift J or [',
    bySign: true,
  },
  'layer-forward': {
    title: 'Move the layer forward',
    group: 'Layers',
    keys: 'shift+k,]',
    shown: 'Shift K or ]',
    bySign: true,
  },
  'only-picked': { title: 'Draw only the picked layer', group: 'Look', keys: 'x', shown: 'X', bySign: true },
  'draw-apart': { title: 'Draw the stack apart', group: 'Look', keys: 'e', shown: 'E', bySign: true },
  'next-snag': { title: 'Next snag of this stage', group: 'Look', keys: 'n', shown: 'N', bySign: true },
  'last-snag': {
    title: 'Snag before',
    group: 'Look',
    keys: 'shift+n',
    shown: 'Shift N',
    bySign: true,
  },
  'look-away': { title: 'Point at nothing', group: 'Look', keys: 'escape', shown: 'Esc' },
  undo: { title: 'Undo', group: 'Project', keys: 'mod+z', shown: 'Ctrl Z' },
  redo: { title: 'Redo', group: 'Project', keys: 'mod+shift+z', shown: 'Ctrl Shift Z' },
  units: { title: 'Switch between mm and inches', group: 'Project' },
  save: { title: 'Save as a project file', group: 'Project' },
  versions: { title: 'Past versions', group: 'Project' },
  find: { title: 'Find', group: 'Project', keys: 'mod+k', shown: 'Ctrl K' },
  keys: { title: 'All keys', group: 'Project', keys: '?', shown: '?', bySign: true },
  'grow-ladder': { title: 'Ladder', group: 'Grow layers' },
  'grow-lettering': { title: 'Lettering', group: 'Grow layers' },
  'grow-tones': { title: 'Tones', group: 'Grow layers' },
  'grow-rosette': { title: 'Rosette', group: 'Grow layers' },
  'grow-garland': { title: 'Garland', group: 'Grow layers' },
  'grow-wings': { title: 'Wings', group: 'Grow layers' },
  'grow-scene': { title: 'Standing piece', group: 'Grow layers' },
  'grow-window': { title: 'Photo window', group: 'Grow layers' },
  'grow-mandala': { title: 'Mandala', group: 'Grow layers' },
  'files-all': { title: 'Everything in one zip: SVG, DXF, plot, PNG, PDF, lists', group: 'Cut files' },
  'files-svg': { title: 'All SVG in one zip', group: 'Cut files' },
  'files-tags': { title: 'Tags for the sheets’ corners (PDF)', group: 'Cut files' },
  'files-pads': {
    title: 'Pads and glue of each layer, from behind at true size (PDF)',
    group: 'Cut files',
  },
  'files-mirrored': {
    title: 'Templates for the back of the card, mirrored (PDF at true size)',
    group: 'Cut files',
  },
  'files-as-seen': {
    title: 'Templates for the front, as it is seen (PDF at true size)',
    group: 'Cut files',
  },
  'files-a4': { title: 'Templates for the back, over pages of A4 (PDF)', group: 'Cut files' },
  'files-letter': { title: 'Templates for the back, over pages of Letter (PDF)', group: 'Cut files' },
  'files-test': { title: 'Test square, to try a setting (SVG)', group: 'Cut files' },
  'place-parts': { title: 'Place parts', group: 'Parts on the board', keys: 'p', shown: 'P', bySign: true },
  'single-pieces': {
    title: 'Work on single pieces',
    group: 'Parts on the board',
    keys: 'i',
    shown: 'I',
    bySign: true,
  },
  'nudge-part': {
    title: 'Move a little, by Shift ten times as far, by Alt a fifth',
    group: 'Parts on the board',
    keys: 'left,right,up,down,shift+left,shift+right,shift+up,shift+down,alt+left,alt+right,alt+up,alt+down',
    shown: 'arrows',
  },
  'turn-part': {
    title: 'Turn by 15°, Shift the other way',
    group: 'Parts on the board',
    keys: 'r,shift+r',
    shown: 'R',
    bySign: true,
  },
  'mirror-part': { title: 'Mirror', group: 'Parts on the board', keys: 'm', shown: 'M', bySign: true },
  'copy-part': { title: 'Copy', group: 'Parts on the board', keys: 'mod+d', shown: 'Ctrl D' },
  'pick-all': { title: 'Pick all pieces', group: 'Piece on a sheet', keys: 'a', shown: 'A', bySign: true },
  'turn-piece': {
    title: 'Turn a quarter, Shift the other way',
    group: 'Piece on a sheet',
    keys: 'r,shift+r',
    shown: 'R',
    bySign: true,
  },
  'nudge-piece': {
    title: 'Move by a small step, Shift by ten',
    group: 'Piece on a sheet',
    keys: 'left,right,up,down,shift+left,shift+right,shift+up,shift+down',
    shown: 'arrows',
  },
  'zoom-board': { title: 'Zoom in, out, show all', group: 'Drawing', shown: '+ − 0' },
  'pan-board': { title: 'Move the drawing while it is zoomed', group: 'Drawing', shown: 'arrows' },
  'bench-done': { title: 'Done, next step', group: 'Bench', shown: 'space bar' },
  'bench-back': { title: 'Back a step', group: 'Bench', keys: 'left,backspace', shown: '←' },
  'bench-leave': { title: 'Leave the bench', group: 'Bench', keys: 'escape', shown: 'Esc' },
} as const satisfies Record<string, Command>

export type CommandId = keyof typeof commands

export const commandOf = (id: CommandId): Command => commands[id]

/** Commands by group, in the order of the list. */
export const commandGroups = (): [group: string, ids: CommandId[]][] => {
  const groups = new Map<string, CommandId[]>()
  for (const id of Object.keys(commands) as CommandId[]) {
    const { group } = commands[id]
    groups.set(group, [...(groups.get(group) ?? []), id])
  }
  return [...groups]
}
