// Settings of makers whose forms are tables of fields and nothing else.
import type { GarlandRecipe, SceneRecipe, WindowRecipe, WingsRecipe } from '@feuillet/core/project'
import { LIMITS } from '@feuillet/core/project'
import type { SchemaField } from '../../../ui'

export const GARLAND: readonly SchemaField<GarlandRecipe>[] = [
  {
    kind: 'select',
    key: 'shape',
    label: 'Flag',
    options: [
      { value: 'pennant', label: 'pennant' },
      { value: 'swallowtail', label: 'swallowtail' },
      { value: 'banner', label: 'banner' },
      { value: 'scalloped', label: 'scalloped' },
      { value: 'round', label: 'round end' },
      { value: 'own', label: 'the picked layer' },
    ],
  },
  { kind: 'whole', key: 'flags', label: 'Flags', min: 1, max: 200 },
  { kind: 'length', key: 'flagWidthMm', label: 'Flag width', min: 10 },
  { kind: 'length', key: 'flagHeightMm', label: 'Flag height', min: 10 },
  {
    kind: 'length',
    key: 'scallopMm',
    label: 'Circles of the edge, about',
    min: 4,
    when: ({ shape }) => shape === 'scalloped',
  },
  { kind: 'length', key: 'gapMm', label: 'Twine between flags' },
  { kind: 'length', key: 'endsMm', label: 'Free twine at either end', max: 5000 },
  { kind: 'length', key: 'spanMm', label: 'Hook to hook, 0 if not known', max: 50_000 },
  {
    kind: 'choice',
    key: 'order',
    label: 'Order of the colours',
    options: [
      { value: 'repeating', label: 'repeating' },
      { value: 'mirrored', label: 'mirrored' },
      { value: 'list', label: 'as listed' },
    ],
  },
  {
    kind: 'choice',
    key: 'fixing',
    label: 'On the twine by',
    options: [
      { value: 'flap', label: 'a folded flap' },
      { value: 'eyelets', label: 'eyelets' },
    ],
  },
  { kind: 'length', key: 'flapMm', label: 'Flap', min: 4, max: 100, when: ({ fixing }) => fixing === 'flap' },
  {
    kind: 'length',
    key: 'eyeletMm',
    label: 'Eyelet across',
    min: 1.5,
    max: 15,
    when: ({ fixing }) => fixing === 'eyelets',
  },
]

export const WINGS: readonly SchemaField<WingsRecipe>[] = [
  {
    kind: 'choice',
    key: 'wing',
    label: 'Wing',
    options: [
      { value: 'gull', label: 'gull' },
      { value: 'butterfly', label: 'butterfly' },
      {
        value: 'own',
        label: 'picked layer',
        title: 'The picked layer is the right half: its left side joins the body',
      },
    ],
  },
  { kind: 'length', key: 'spanMm', label: 'Span', min: 10 },
  { kind: 'length', key: 'heightMm', label: 'Height', min: 5 },
  { kind: 'length', key: 'bodyMm', label: 'Body that is glued', min: 1, max: 200 },
  { kind: 'number', key: 'deg', label: 'Wings turned up by', unitHint: '°', min: 0, max: 85 },
]

const isBand = ({ hold }: SceneRecipe): boolean => hold === 'wraps'
const stands = ({ hold }: SceneRecipe): boolean => hold === 'stands' || hold === 'hangs'
const isFigure = (recipe: SceneRecipe): boolean => !isBand(recipe)

export const SCENE: readonly SchemaField<SceneRecipe>[] = [
  {
    kind: 'choice',
    key: 'hold',
    label: 'How it is held',
    options: [
      { value: 'stands', label: 'stands', title: 'On two feet folded opposite ways' },
      { value: 'hangs', label: 'hangs', title: 'From one bar along its upper edge' },
      { value: 'wraps', label: 'band', title: 'A band round the inside of the frame' },
      { value: 'adorns', label: 'corners', title: 'Ornaments in the corners or at the sides of the frame' },
    ],
  },
  {
    kind: 'select',
    key: 'places',
    label: 'Where',
    options: [
      { value: 'upper corners', label: 'both upper corners' },
      { value: 'lower corners', label: 'both lower corners' },
      { value: 'four corners', label: 'all four corners' },
      { value: 'upper left', label: 'upper left corner' },
      { value: 'upper right', label: 'upper right corner' },
      { value: 'lower left', label: 'lower left corner' },
      { value: 'lower right', label: 'lower right corner' },
      { value: 'both sides', label: 'both sides' },
      { value: 'left side', label: 'left side' },
      { value: 'right side', label: 'right side' },
    ],
    when: ({ hold }) => hold === 'adorns',
  },
  { kind: 'length', key: 'widthMm', label: 'Width', min: 5, when: isFigure },
  { kind: 'length', key: 'heightMm', label: 'Height', min: 5, when: isFigure },
  { kind: 'length', key: 'barMm', label: 'Feet, bar or width of the band', min: 2, max: 100 },
  { kind: 'length', key: 'fromPaneMm', label: 'Behind the pane by', max: 300 },
  { kind: 'length', key: 'frameWidthMm', label: 'Inner frame, width', min: 20 },
  { kind: 'length', key: 'frameHeightMm', label: 'Inner frame, height', min: 20 },
  { kind: 'length', key: 'frameDepthMm', label: 'Inner frame, depth', min: 3, max: 300 },
  { kind: 'length', key: 'flapMm', label: 'Flap that closes it', min: 2, max: 60, when: isBand },
  { kind: 'length', key: 'longestMm', label: 'Longest strip of a sheet', min: 30, max: 2000, when: isBand },
  { kind: 'length', key: 'thicknessMm', label: 'Card of it', min: 0.1, max: 3 },
  { kind: 'number', key: 'gsm', label: 'Its weight', unitHint: 'gsm', min: 60, max: 1200, when: stands },
]

export const WINDOW: readonly SchemaField<WindowRecipe>[] = [
  {
    kind: 'select',
    key: 'shape',
    label: 'Opening',
    options: [
      { value: 'round', label: 'round' },
      { value: 'oval', label: 'oval' },
      { value: 'rounded', label: 'rounded corners' },
      { value: 'heart', label: 'heart' },
      { value: 'own', label: 'the picked layer' },
    ],
  },
  { kind: 'length', key: 'widthMm', label: 'Opening, width', min: 5 },
  { kind: 'length', key: 'heightMm', label: 'Opening, height', min: 5 },
  { kind: 'length', key: 'ringMm', label: 'Ring, width', min: 1, max: 200 },
  { kind: 'length', key: 'underMm', label: 'Picture under the ring', min: 0.5, max: 150 },
  {
    kind: 'choice',
    key: 'pane',
    label: 'Over the picture',
    options: [
      { value: 'clear', label: 'clear pane', title: 'Glued under the ring' },
      { value: 'none', label: 'nothing' },
    ],
  },
  { kind: 'length', key: 'raisedMm', label: 'Raised over the picture', max: 20 },
  {
    kind: 'length',
    key: 'bleedMm',
    label: 'Bleed, 0 for a white edge',
    max: LIMITS.bleedMm[1],
    when: ({ picture }) => picture !== null,
  },
]
