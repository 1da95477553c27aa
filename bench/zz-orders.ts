import { loadGeometry } from '@feuillet/core/geometry'
import { Nester } from '@feuillet/core/sheets'
import { families } from './instances'
await loadGeometry()
for (const {name,instance} of families()) { const n=new Nester(instance,1,'orders'); const t=performance.now(); while(performance.now()-t<60000&&!n.done)n.step(); console.log(name.padEnd(32),n.best.score.toFixed(4),n.steps) }
