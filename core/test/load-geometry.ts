// Every test file may cut and join shapes.
import { loadGeometry } from '@feuillet/core/geometry'

await loadGeometry()
