import { loadGeometry } from '@feuillet/core/geometry'
import { Nester } from '@feuillet/core/sheets'
import { families } from './instances'
await loadGeometry()
const {instance}=families().find(f=>f.name===process.argv[2])!
const n=new Nester(instance,+process.argv[3]!) as any; let last=n.best; const t=performance.now()
const show=()=>console.log(((performance.now()-t)/1000).toFixed(1),n.steps,n.best.score.toFixed(4),n.best.placements.filter((p:any)=>p.sheet===1).map((p:any)=>p.id).sort().join(' '))
show(); while(performance.now()-t<8000){n.step(); if(n.best!==last){last=n.best;show()}}
