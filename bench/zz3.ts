import { loadGeometry } from '@feuillet/core/geometry'
import { Nester } from '@feuillet/core/sheets'
import { Improver } from '../core/src/sheets/nest/improver'
import { families } from './instances'
await loadGeometry()
const {instance}=families().find(f=>f.name===process.argv[2])!
const n=new Nester(instance,+process.argv[3]!) as any; const t=performance.now()
const gb=(Improver.prototype as any).giveUp; (Improver.prototype as any).giveUp=function(){ console.log(((performance.now()-t)/1000).toFixed(1),this.way,this.bite.toFixed(4),'sweeps',this.sweeps,'lowest',this.lowest.toFixed(2)); gb.call(this)}
while(performance.now()-t<8000){n.step()}
console.log(n.best.score)
