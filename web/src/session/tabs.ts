// Pages of one browser among each other: which of them changes a project, and what they tell one another. A page holds a lock
// for as long as it lives, so a page that died holds nothing back.

type Word =
  /** A project was kept; `about` are the other projects that its book tells of. */
  { kind: 'kept'; id: string; about: readonly string[] } | { kind: 'drawer' } | { kind: 'wanted'; id: string }

/** What a page does on hearing each of them. */
interface Hearing {
  kept: (id: string, about: readonly string[]) => void
  drawer: () => void
  wanted: (id: string) => void
}

/** The right to change a project. */
export interface Claim {
  /** False where another page has it. */
  held: boolean
  release: () => void
}

export interface Tabs {
  listen(hear: Hearing): void
  say(word: Word): void
  /** Takes the right to change a project, where no other page has it. */
  claim(id: string, onLost: () => void): Promise<Claim>
  /** The right, once the page that has it lets it go; null where it was taken otherwise in the meantime. */
  whenFree(id: string, onLost: () => void): Promise<Claim | null>
  /** Asks the other page for it, and takes it by force where it does not answer. */
  takeOver(id: string, claim: Claim, onLost: () => void): Promise<void>
  /** A claim of a page that follows. */
  waiting(): Claim
}

/** So long another page is waited for that is asked to hand a project over (ms). */
const PATIENCE_MS = 1500
/** So long a page that is being closed may take to be gone (ms). */
const DYING_MS = 400

const projectLock = (id: string) => `feuillet project ${id}`

const free: Claim = { held: true, release: () => undefined }

/** Tabs by broadcast channel and web locks. A browser without locks lets every page write; saves are still refused where another was later. */
export function browserTabs(): Tabs {
  const channel = 'BroadcastChannel' in globalThis ? new BroadcastChannel('feuillet') : null
  const locks = 'locks' in navigator ? navigator.locks : null
  const waiting = new Map<string, AbortController>()

  /** Requests a lock and holds it until it is released. */
  const hold = (id: string, options: LockOptions, onLost: () => void): Promise<Claim | null> =>
    new Promise((resolve) => {
      let letGo: () => void = () => undefined
      let given = false
      locks!
        .request(projectLock(id), options, (lock) => {
          if (!lock) {
            resolve(null)
            return undefined
          }
          given = true
          return new Promise<void>((done) => {
            letGo = done
            resolve({ held: true, release: done })
          })
        })
        .catch(() => {
          // Taken by force, or no longer waited for.
          letGo()
          if (given) onLost()
          resolve(null)
        })
    })

  return {
    listen(hear) {
      if (!channel) return
      channel.onmessage = ({ data }: MessageEvent<Word>) => {
        if (data.kind === 'drawer') hear.drawer()
        else if (data.kind === 'kept') hear.kept(data.id, data.about)
        else hear.wanted(data.id)
      }
    },
    say: (word) => channel?.postMessage(word),
    async claim(id, onLost) {
      if (!locks) return free
      const control = new AbortController()
      const timer = setTimeout(() => control.abort(), DYING_MS)
      // A page that is loaded anew still has it for a moment.
      const claim = await hold(id, { signal: control.signal }, onLost)
      clearTimeout(timer)
      return claim ?? this.waiting()
    },
    whenFree(id, onLost) {
      if (!locks) return Promise.resolve(null)
      waiting.get(id)?.abort()
      const control = new AbortController()
      waiting.set(id, control)
      return hold(id, { signal: control.signal }, onLost)
    },
    async takeOver(id, claim, onLost) {
      channel?.postMessage({ kind: 'wanted', id } satisfies Word)
      waiting.get(id)?.abort()
      if (!locks) return
      const control = new AbortController()
      const timer = setTimeout(() => control.abort(), PATIENCE_MS)
      const got =
        (await hold(id, { signal: control.signal }, onLost)) ?? (await hold(id, { steal: true }, onLost))
      clearTimeout(timer)
      if (!got) return
      claim.held = true
      claim.release = got.release
    },
    waiting: () => ({ held: false, release: () => undefined }),
  }
}
