/** Small parts that every screen uses: buttons, choices, figures, fields, folio tabs. They know nothing of the project. */
export { Button } from './button'
export { Choice } from './choice'
export { Figures, Figure } from './figures'
export { FolioTab } from './folio-tab'
export { LengthField, NumberField } from './fields'
export { Switch } from './switch'
export { Heading } from './heading'
export { menuItem } from './menu'
