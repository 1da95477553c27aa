// Every test file may cut and join shapes. Property tests draw the same cases each time, so that a run can be repeated;
// FUZZ_SEED=7 npm run unit draws others.
import { loadGeometry } from '@feuillet/core/base/geometry'
import fc from 'fast-check'

fc.configureGlobal({ seed: Number(process.env['FUZZ_SEED'] ?? 1) })

await loadGeometry()
