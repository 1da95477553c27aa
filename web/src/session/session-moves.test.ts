// Whatever pages do and however they die: what was said to be kept is there afterwards.
import fc from 'fast-check'
import { beforeEach, describe, expect, it } from 'vitest'
import { blank, Browser, ID, Page, sleep } from '../../test/browser'
import { redone, undone } from '../state/document'
import { type Draft } from './vault'

let browser: Browser
beforeEach(async () => {
  browser = new Browser()
  await browser.keep(blank('start'))
})
const open = (name: string) => new Page(browser, name).open()

/** What the model knows: the states that a page said are kept must be there afterwards, or a later one. */
type Move =
  | 'edit'
  | 'undo'
  | 'redo'
  | 'flush'
  | 'wait'
  | 'leave'
  | 'close tab'
  | 'crash'
  | 'second tab'
  | 'take over'
  | 'full'
  | 'room'
const moves: Move[] = [
  'edit',
  'edit',
  'edit',
  'undo',
  'redo',
  'flush',
  'wait',
  'leave',
  'close tab',
  'crash',
  'second tab',
  'take over',
  'full',
  'room',
]

describe('whatever happens', () => {
  it('what was said to be kept is there', async () => {
    let edits = 0
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.constantFrom(...moves), fc.nat(4)), { minLength: 3, maxLength: 22 }),
        async (steps) => {
          browser = new Browser()
          await browser.keep(blank('0'))
          let page = await open(`a${edits}`)
          let other: Page | null = null
          /** The last state that was said to be kept. */
          let said = '0'
          const note = () => {
            if (
              !page.dead &&
              page.doc.project &&
              page.doc.role === 'writing' &&
              page.doc.kept === page.doc.revision &&
              page.doc.trouble === null
            )
              said = page.doc.project.name
          }
          const anew = async () => {
            other?.crash()
            other = null
            browser.waiting = []
            page = await open(`a${++edits}`)
            // At the least what was said to be kept, and what a page that was shut began to write.
            expect(Number(page.doc.project!.name)).toBeGreaterThanOrEqual(Number(said))
          }
          for (const [move, wait] of steps) {
            if (move === 'edit') page.edit(String(++edits))
            else if (move === 'undo' || move === 'redo') {
              // Names rise with every state, so that later is larger.
              page.store.dispatch(move === 'undo' ? undone() : redone())
              page.edit(String(++edits))
            } else if (move === 'flush') await page.session.flush()
            else if (move === 'wait') await sleep(wait * 30)
            else if (move === 'leave') {
              const last = page.refuse ? said : page.doc.project!.name
              page.session.close()
              await page.session.idle()
              page.crash()
              await anew()
              expect(Number(page.doc.project!.name)).toBeGreaterThanOrEqual(Number(last))
            } else if (move === 'close tab') {
              const last = page.doc.role === 'writing' ? page.doc.project!.name : said
              page.shut()
              await anew()
              expect(Number(page.doc.project!.name)).toBeGreaterThanOrEqual(Number(last))
            } else if (move === 'crash') {
              note()
              page.crash()
              await anew()
            } else if (move === 'second tab') {
              if (!other) other = await open(`b${++edits}`)
            } else if (move === 'take over') {
              if (other && !page.refuse && page.doc.role === 'writing') {
                const last = page.doc.project!.name
                await other.session.takeOver()
                expect(Number(other.doc.project!.name)).toBeGreaterThanOrEqual(Number(last))
                ;[page, other] = [other, page]
              }
            } else page.refuse = move === 'full'
            await sleep(wait)
            note()
          }
        },
      ),
      { numRuns: 60, endOnFailure: true },
    )
  }, 120_000)

  it('a draft of a page that has gone on since is let go', async () => {
    const page = await open('a')
    page.edit('one')
    page.session.leaveInHaste()
    await page.session.flush()
    page.edit('two')
    await page.session.flush()
    page.crash()
    const drafts: Draft[] = await (await browser.vault).drafts(ID)
    expect(drafts.length).toBeLessThanOrEqual(1)
    expect((await open('b')).doc.project!.name).toBe('two')
  })
})
