import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import {
  guestLetter,
  hasChanged,
  mayGoAlong,
  readProject,
  sendHome,
  setPlan,
  takeAlong,
  type Project,
} from '@feuillet/core/project'
import { change } from '../../state/edits'
import { selectProject } from '../../state/selectors'
import { loadShelf, readKept, type ShelfEntry } from '../../session'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, Heading, NumberField, Select } from '../../ui'

/** How many of the work are made, and whose pieces come along onto its sheets. */
export function WhatIsCut() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const shelf = useShelf()
  const guestsNow = useKept(project.plan.guests.map((guest) => guest.projectId))
  const { batch, guests } = project.plan
  const others = mayGoAlong(project, shelf)
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
                {now && hasChanged(guest, now) && (
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
                {now === null && (
                  <span className="block text-[13px] text-soft">No longer on the shelf; cut as it was.</span>
                )}
              </li>
            )
          })}
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
            void keptProject(id).then((other) => {
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

const NOBODY: readonly ShelfEntry[] = []

/** The projects on the shelf that can be changed, as they stand there when the screen opens. */
function useShelf(): readonly ShelfEntry[] {
  const [entries, setEntries] = useState(NOBODY)
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
  }, [])
  return entries
}

/** A kept project; null where there is none that can be read. */
async function keptProject(id: string): Promise<Project | null> {
  try {
    const kept = await readKept(id)
    return kept ? { ...readProject(kept.text), id } : null
  } catch {
    return null
  }
}

/** Kept projects by their ids; null those that are gone. */
function useKept(ids: readonly string[]): ReadonlyMap<string, Project | null> {
  const [found, setFound] = useState<ReadonlyMap<string, Project | null>>(new Map())
  const key = ids.join(' ')
  useEffect(() => {
    let gone = false
    const list = key.split(' ').filter(Boolean)
    void Promise.all(list.map(async (id) => [id, await keptProject(id)] as const)).then((all) => {
      if (!gone) setFound(new Map(all))
    })
    return () => {
      gone = true
    }
  }, [key])
  return found
}
