// The search for a layout on all cores: this thread and one more, each with a seed of its own; the better result counts.
import { availableParallelism } from 'node:os'
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads'
import { loadGeometry } from '@feuillet/core/base/geometry'
import { Nester, readInstance, Rivals, type NestLayout } from '@feuillet/core/stages/sheets'

/** Searches shorter than this are over before another thread has started (s). */
const WORTH_A_THREAD_S = 2
const SECOND_SEED = 7919

interface Task {
  text: string
  seed: number
  seconds: number
  until: number
}

/** Steps, none of which takes long, until the time (ms since 1970) is up; the first layout is made in any case. */
function search({ text, seed, seconds, until }: Task): NestLayout {
  const instance = readInstance(text)
  const rivals = new Rivals({ instance, seed, seconds }, new Nester(instance, seed))
  for (let now = Date.now(); now < until && !rivals.done; now = Date.now())
    rivals.step(1 - (until - now) / (seconds * 1000))
  return rivals.best
}

/** The best layout that can be found in a time. Throws BadInput as reading and nesting do. */
export async function nestFor(text: string, seconds: number, seed: number): Promise<NestLayout> {
  const until = Date.now() + seconds * 1000
  const other =
    seconds >= WORTH_A_THREAD_S && availableParallelism() > 1
      ? inThread({ text, seed: seed + SECOND_SEED, seconds, until })
      : null
  const own = search({ text, seed, seconds, until })
  const theirs = await other
  return theirs && theirs.score < own.score - 1e-9 ? theirs : own
}

/** Null where the thread fails: the other result still counts. */
function inThread(task: Task): Promise<NestLayout | null> {
  return new Promise((done) => {
    const worker = new Worker(new URL('./nest-thread.mjs', import.meta.url), { workerData: task })
    worker.once('message', done)
    worker.once('error', () => done(null))
    worker.once('exit', () => done(null))
  })
}

if (!isMainThread && parentPort) {
  await loadGeometry()
  parentPort.postMessage(search(workerData as Task))
}
