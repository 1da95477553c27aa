// The whole application in a document without a browser, with its workers' own code behind it: what a maker sees and does there.
import { configure, fireEvent, waitFor, within } from '@testing-library/dom'
import userEvent from '@testing-library/user-event'
import { openDB } from 'idb'
import type { Root } from 'react-dom/client'
import { expect } from 'vitest'
import { demo, type DemoName } from '@feuillet/core/demo'
import { writeProject, type Project } from '@feuillet/core/project'
import { keepProject, loadShelf, session, vault } from '../src/session'
import { smallThings } from '../src/session/small-things'
import { store } from '../src/state/store'
import { atEnd } from './outlasting'

configure({
  // A busy machine is waited for.
  asyncUtilTimeout: 15_000,
  getElementError: (message) => new Error(message ?? 'not there'),
})

export { fireEvent, waitFor, within }
export { saved } from './outlasting'
export { startedWorkers } from './page-workers'
export const user = userEvent.setup({ delay: null, pointerEventsCheck: 0, applyAccept: false })

/** The words of an element but for those that are not read out. */
const heard = (node: Node | null): string => {
  if (!(node instanceof Element)) return node?.nodeType === Node.TEXT_NODE ? node.textContent! : ''
  return node.getAttribute('aria-hidden') === 'true' ? '' : [...node.childNodes].map(heard).join('')
}
const text = (of: Node | null) => heard(of).replace(/\s+/g, ' ').trim()

const labelFor = (id: string) =>
  id === '' ? undefined : [...document.getElementsByTagName('label')].find(({ htmlFor }) => htmlFor === id)

/** What an element is called by whoever reads it out: far quicker than all the rules there are for it. */
function nameOf(element: Element): string {
  const label = element.getAttribute('aria-label')
  if (label !== null) return label
  const by = element.getAttribute('aria-labelledby')
  if (by)
    return by
      .split(' ')
      .map((id) => text(document.getElementById(id)))
      .join(' ')
  if (/^(INPUT|TEXTAREA)$/.test(element.tagName)) {
    const label = element.closest('label') ?? labelFor(element.id)
    if (label) return text(label)
  }
  return text(element)
}

const kinds = {
  button: 'button:not([role]), [role=button]',
  link: 'a',
  radio: '[role=radio], input[type=radio]',
  checkbox: 'input[type=checkbox]:not([role]), [role=checkbox]',
  switch: '[role=switch]',
  combobox: '[role=combobox]',
  option: '[role=option]',
  menuitem: '[role=menuitem], [role=menuitemcheckbox]',
  heading: 'h1, h2, h3',
  field:
    'input:not([type]), input[type=text], input[type=number], input[type=datetime-local], input[type=time], textarea',
  alert: '[role=alert]',
  status: '[role=status]',
  file: 'input[type=file]',
  slider: '[role=slider], input[type=range]',
  dialog: '[role=dialog]',
  any: '*',
} as const
export type Kind = keyof typeof kinds

/** All of a kind that are called so. */
export const all = (kind: Kind, name: string | RegExp = /^/, inside: ParentNode = document): HTMLElement[] =>
  [...inside.querySelectorAll<HTMLElement>(kinds[kind])].filter((element) =>
    typeof name === 'string' ? nameOf(element) === name : name.test(nameOf(element)),
  )

/** The only one of a kind that is called so. */
export function the(kind: Kind, name: string | RegExp = /^/, inside: ParentNode = document): HTMLElement {
  const found = all(kind, name, inside)
  if (found.length !== 1) {
    const there = [...inside.querySelectorAll(kinds[kind])].map(nameOf).join(' | ')
    throw new Error(`${found.length} times ${kind} ${String(name)}; there are: ${there.slice(0, 1500)}`)
  }
  return found[0]!
}

/** The same once it is there. */
export const soon = (...what: Parameters<typeof the>): Promise<HTMLElement> => waitFor(() => the(...what))

/** The first that a selector finds. */
export function one(selector: string, inside: ParentNode = document): HTMLElement {
  const found = inside.querySelector<HTMLElement>(selector)
  if (!found) throw new Error(`nothing is ${selector}`)
  return found
}

let isLoaded = false
let root: Root | null = null

/** Goes to an address, as by a link to it. */
export async function goTo(address: string): Promise<void> {
  history.pushState({}, '', address)
  const { show } = await import('../src/app')
  // What is loaded already has its address from what it is told.
  if (isLoaded) dispatchEvent(new PopStateEvent('popstate'))
  isLoaded = true
  if (root) return
  root = show(document.body.appendChild(document.createElement('div')))
  atEnd.push(leave)
}

/** Leaves nothing of a file to the next: no screen, no project, a drawer and settings as at first. */
async function leave(): Promise<void> {
  await goTo('/')
  await waitFor(() => expect(store.getState().document.project).toBeNull())
  await session.idle()
  root!.unmount()
  root = null
  document.body.replaceChildren()
  localStorage.clear()
  await smallThings.clear()
  // The vault's own stores, whatever they are: nothing is open any more.
  const held = await openDB('feuillet-vault')
  await Promise.all([...held.objectStoreNames].map((name) => held.clear(name)))
  held.close()
}

/** Waits until the planner has answered for all that is on screen. */
export const settled = (): Promise<unknown> =>
  waitFor(() => expect(document.querySelector('[data-plan]')?.getAttribute('data-plan')).toBe('settled'))

export const kept = (): Promise<unknown> =>
  waitFor(() => expect(document.querySelector('[data-kept]')?.getAttribute('data-kept')).toBe('saved'))

/** Opens a project of its own at a stage; gives its id. */
export async function open(from: Project | DemoName, stage: string): Promise<string> {
  const project = typeof from === 'string' ? demo(from) : from
  const id = crypto.randomUUID()
  await keepProject({ ...project, id }, 'for a test')
  await goTo(`/project/${id}/${stage}`)
  await waitFor(() => expect(store.getState().document.project?.id).toBe(id))
  await screenOf(stage)
  return id
}

/** Takes every project off the shelf; none may be open. */
export async function clearShelf(): Promise<void> {
  await session.idle()
  const held = await vault()
  for (const { id } of await loadShelf()) await held.remove(id)
}

/** Keeps a project whose text is another than what was written, as in a store that lost a part of what it holds. */
export async function keepAs(id: string, text: string): Promise<void> {
  await keepProject({ ...demo('bon-voyage'), id }, 'for a test')
  const held = await vault()
  const before = (await held.read(id))!
  await held.save({
    kept: { ...before, text, revision: before.revision + 1, seq: before.seq + 1 },
    entry: (await loadShelf()).find((entry) => entry.id === id)!,
    base: before.revision,
    keepVersion: true,
    stock: null,
  })
}

/** Waits for the screen of a stage, with all its figures. */
async function screenOf(stage: string): Promise<void> {
  // The one before stays in sight until the new one is there.
  await waitFor(() => {
    const current = document.querySelector('nav[aria-label=Stages] [aria-current=page]')
    expect(current?.getAttribute('href')).toMatch(new RegExp(`/${stage}$`))
    expect(document.querySelector('main[aria-busy]')).toBeNull()
  })
  await settled()
}

/** To another stage, by its link. */
export async function toStage(stage: string): Promise<void> {
  const stages = await waitFor(() => one('nav[aria-label=Stages]'))
  await user.click(the('link', new RegExp(stage, 'i'), stages))
  await screenOf(stage)
}

export const project = (): Project => store.getState().document.project!
export const layer = (id: string) => project().layers.find((one) => one.id === id)!

/** What the store holds of the open project, as text; all of it must be written by then. */
export async function keptText(): Promise<string> {
  await session.flush()
  await kept()
  return writeProject(project())
}

export const panel = (): HTMLElement => [...document.querySelectorAll('aside')].at(-1)!

/** The value beside a figure's name in the panel. */
export function figure(name: string): string {
  const term = [...panel().querySelectorAll('dt')].find((dt) => dt.textContent!.startsWith(name))
  if (!term) throw new Error(`no figure ${name}`)
  return term.parentElement!.querySelector('dd')!.textContent!
}

export const shows = (name: string, value: string | RegExp): Promise<unknown> =>
  waitFor(() => expect(figure(name)).toMatch(value instanceof RegExp ? value : exactly(value)))

const exactly = (text: string) => new RegExp(`^${text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}$`)

/** Snags of a kind on the screen. */
export const snags = (code: string): HTMLElement[] => [
  ...panel().querySelectorAll<HTMLElement>(`[data-snag="${code}"]`),
]

export const field = (label: string): HTMLInputElement => the('field', label) as HTMLInputElement

/** Types into a field in place of what is there, and leaves it with Enter. */
export async function type(label: string, words: string): Promise<void> {
  const input = field(label)
  await user.clear(input)
  await user.type(input, `${words}{Enter}`)
}

/** Presses what is called so: a button where no other kind is named. */
export const press = (name: string | RegExp, kind: Kind = 'button'): Promise<void> =>
  user.click(the(kind, name))

/** Picks from a list that opens. */
export async function choose(list: string | RegExp, option: string | RegExp): Promise<void> {
  the('combobox', list).focus()
  await user.keyboard('{Enter}')
  await user.click(await soon('option', option))
}

/** What is told in passing, once it is. */
export const toast = (words: RegExp): Promise<HTMLElement> =>
  waitFor(() => {
    const found = [...document.querySelectorAll<HTMLElement>('[data-sonner-toast]')].find((note) =>
      words.test(note.textContent),
    )
    if (!found) throw new Error(`nothing tells ${String(words)}`)
    return found
  })

/** Picks a layer by its row of the section. */
export async function pick(layerId: string): Promise<void> {
  await user.click(await waitFor(() => one(`[data-row="${layerId}"] button`)))
  await settled()
}

/** Undoes by the button of the bar; what is told in passing may have one of its own. */
export async function undo(): Promise<void> {
  await user.click(all('button', 'Undo').find((button) => !button.closest('[data-sonner-toast]'))!)
  await settled()
}

/** A file of the maker's, as a chooser hands it over. */
export const file = (name: string, content: string | Uint8Array<ArrayBuffer>, kind = 'text/plain'): File =>
  new File([content], name, { type: kind })

export const bring = (label: string, ...files: File[]): Promise<void> =>
  user.upload(the('file', label), files)

/** Lets the page take in what was done, as a browser does between two events. */
const turn = () => new Promise((resolve) => setTimeout(resolve, 2))

/** A drag from place to place of a drawing, mm, with keys that are held meanwhile. */
export async function drag(
  on: Element,
  [from, ...to]: readonly (readonly [number, number])[],
  keys: { altKey?: boolean; shiftKey?: boolean } = {},
): Promise<void> {
  const at = ([clientX, clientY]: readonly [number, number]) => ({
    clientX,
    clientY,
    pointerId: 1,
    button: 0,
    ...keys,
  })
  fireEvent.pointerDown(on, at(from!))
  for (const place of to) {
    await turn()
    fireEvent.pointerMove(on, at(place))
  }
  await turn()
  fireEvent.pointerUp(on, at(to.at(-1) ?? from!))
  await turn()
}
