import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import {
  alsoCutBy,
  forgetCut,
  guestLetter,
  hasChanged,
  mayGoAlong,
  piecesIn,
  sendHome,
  setPlan,
  takeAlong,
  type Project,
} from '@feuillet/core/project'
import { change } from '../../state/edits'
import { selectProject } from '../../state/selectors'
import { loadShelf, readWithBooks, session, type ShelfEntry } from '../../session'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, Heading, NumberField, Select } from '../../ui'

/** How many of the work are made, and whose pieces come along onto its sheets. */
export function WhatIsCut() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const kept = useKeptElsewhere()
  const shelf = useShelf(kept)
  const guestsNow = useKept(
    project.plan.guests.map((guest) => guest.projectId),
    kept,
  )
  const { batch, guests } = project.plan
  const { cutElsewhere } = project
  const others = mayGoAlong(project, shelf ?? [])
  return (
    <Heading title="What is cut">
      <NumberField
        label="The whole work, times"
        value={batch}
        min={1}
        max={200}
        whole
        onChange={(n) => dispatch(change('how many are made', (p) => setPlan(p, { batch: n })))}
      />
      {guests.length > 0 && (
        <ul aria-label="Cut along with it" className="mt-2 grid gap-1.5">
          {guests.map((guest, n) => {
            const now = guestsNow.get(guest.projectId)
            return (
              <li key={guest.projectId} className="border-l-4 border-line pl-2">
                <span className="flex items-baseline justify-between gap-2">
                  <span className="min-w-0 truncate">
                    <strong className="font-semibold">{guestLetter(n)}</strong> {guest.name}
                    {guest.batch > 1 && ` × ${guest.batch}`}
                  </span>
                  <Button
                    look="quiet"
                    small
                    onClick={() =>
                      dispatch(change(`${guest.name} is not cut along`, (p) => sendHome(p, guest.projectId)))
                    }
                  >
                    Send home
                  </Button>
                </span>
                {now && hasChanged(guest, now, project.id) && (
                  <span className="flex items-baseline justify-between gap-2 text-[13px] text-ochre">
                    ▲ It has changed since.
                    <Button
                      look="quiet"
                      small
                      onClick={() => dispatch(change(`${guest.name} as it is now`, (p) => takeAlong(p, now)))}
                    >
                      Take it anew
                    </Button>
                  </span>
                )}
                {alsoCutBy(project, guest.projectId, shelf ?? []).map(({ id, name }) => (
                  <span key={id} className="block text-[13px] text-ochre">
                    {id === guest.projectId
                      ? '▲ It has guests of its own by now and is cut on its own sheets: send it home, or its pieces are cut twice.'
                      : `▲ “${name}” cuts it along too: send it home from one of them, or its pieces are cut twice.`}
                  </span>
                ))}
                {now === null && (
                  <span className="block text-[13px] text-soft">No longer on the shelf; cut as it was.</span>
                )}
                {guest.cut.length > 0 && (
                  <span className="block text-[13px] text-soft">
                    {pieces(piecesIn(guest.cut))} of it {piecesIn(guest.cut) === 1 ? 'was' : 'were'} cut
                    before it came.
                  </span>
                )}
              </li>
            )
          })}
        </ul>
      )}
      {cutElsewhere.length > 0 && (
        <ul aria-label="Cut on other sheets" className="mt-2 grid gap-1.5">
          {cutElsewhere.map(({ projectId, name, sheets, spoilt }) => (
            <li key={projectId} className="border-l-4 border-line pl-2 text-[13px]">
              {pieces(piecesIn(sheets))} {piecesIn(sheets) === 1 ? 'was' : 'were'} cut and paid for
              {spoilt.length > 0 && `, of which ${spoilt.length} came to grief since,`} with{' '}
              {shelf === null || shelf.some(({ id }) => id === projectId) ? (
                <>
                  <Link to={`/project/${projectId}/sheets`} className="text-plum underline">
                    “{name}”
                  </Link>
                  , where any that is spoilt is noted.
                </>
              ) : (
                <>
                  “{name}”, which is no longer on the shelf.{' '}
                  <Button
                    look="quiet"
                    small
                    onClick={() =>
                      dispatch(
                        change(`what was cut with ${name} is cut again`, (p) => forgetCut(p, projectId)),
                      )
                    }
                  >
                    Cut them again
                  </Button>
                </>
              )}
            </li>
          ))}
        </ul>
      )}
      {others.length > 0 && (
        <Select
          label="Cut another project along"
          className="mt-2 w-full"
          value=""
          hint="take another project along…"
          options={others.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(id) =>
            void readWithBooks(id).then((other) => {
              if (other) dispatch(change(`${other.name} is cut along`, (p) => takeAlong(p, other)))
            })
          }
        />
      )}
    </Heading>
  )
}

/** Where a project has no sheets of its own: whose it is cut from. */
export function CutElsewhere({ host }: { host: { projectId: string; name: string } }) {
  return (
    <div className="grid flex-1 place-content-center gap-2 px-10 text-center">
      <p className="text-[17px]">Its pieces are cut along with “{host.name}”.</p>
      <p className="text-soft">
        Sheets, loads and paper are planned there. Send it home there to give it sheets of its own again.
      </p>
      <Link to={`/project/${host.projectId}/sheets`} className="text-plum underline">
        To the sheets of “{host.name}”
      </Link>
    </div>
  )
}

const pieces = (count: number): string => `${count} ${count === 1 ? 'piece' : 'pieces'}`

/** While another tab keeps its changes one after the other, the shelf is read anew this long after the last (ms). */
const CALM_MS = 400

/** Counts how often other tabs have kept something, so that what is read of the shelf is read anew. */
function useKeptElsewhere(): number {
  const [times, setTimes] = useState(0)
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined
    const end = session.whenKeptElsewhere(() => {
      clearTimeout(timer)
      timer = setTimeout(() => setTimes((n) => n + 1), CALM_MS)
    })
    return () => {
      clearTimeout(timer)
      end()
    }
  }, [])
  return times
}

/** The projects on the shelf that can be changed; null until they are read. */
function useShelf(kept: number): readonly ShelfEntry[] | null {
  const [entries, setEntries] = useState<readonly ShelfEntry[] | null>(null)
  useEffect(() => {
    let gone = false
    void loadShelf()
      .then((found) => {
        if (!gone) setEntries(found.filter((entry) => entry.trouble === null))
      })
      // Where the browser keeps nothing there is nobody to take along.
      .catch(() => undefined)
    return () => {
      gone = true
    }
  }, [kept])
  return entries
}

/** Kept projects by their ids; null those that are gone. */
function useKept(ids: readonly string[], kept: number): ReadonlyMap<string, Project | null> {
  const [found, setFound] = useState<ReadonlyMap<string, Project | null>>(new Map())
  const key = ids.join(' ')
  useEffect(() => {
    let gone = false
    const list = key.split(' ').filter(Boolean)
    void Promise.all(list.map(async (id) => [id, await readWithBooks(id)] as const)).then((all) => {
      if (!gone) setFound(new Map(all))
    })
    return () => {
      gone = true
    }
  }, [key, kept])
  return found
}
