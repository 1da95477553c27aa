/**
 * The page's workers: the planner, which keeps all results; and one that reads files, grows layers and makes edits that cut
 * and join shapes, so that neither keeps the other from answering. Searches run in workers of the planner's own.
 */
import { toast } from 'sonner'
import type { EditApi } from './edit.worker'
import { Host } from './host'

export { Host, WorkerGone } from './host'

/** Reads, grows, cuts and joins; may be ended at any time. */
export const editor = new Host<EditApi>({
  name: 'editor',
  start: () => new Worker(new URL('./edit.worker.ts', import.meta.url), { type: 'module', name: 'edit' }),
  // A large drawing or a photo of many tones takes its time, and can be stopped by hand.
  patienceMs: 180_000,
  onLost: (why) =>
    toast.error(
      why === 'died'
        ? 'The part of Feuillet that reads and joins shapes broke off and was started anew. Nothing was changed.'
        : 'The part of Feuillet that reads and joins shapes did not answer and was started anew. Nothing was changed.',
    ),
})
