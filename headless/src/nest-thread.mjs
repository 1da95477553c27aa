// A thread of the search: threads do not take over how the shell's entry reads TypeScript.
import { register } from 'tsx/esm/api'

register()
await import('./nest-search.ts')
