import type { Answering } from './host'

/** The part of every worker that tells that it lives. */
export const answering: Answering = {
  ping: () => performance.now(),
  holdLife: (name) =>
    new Promise((granted) => {
      if (!('locks' in navigator)) return granted()
      void navigator.locks.request(name, () => {
        granted()
        // Held until the worker is no more.
        return new Promise(() => undefined)
      })
    }),
}
