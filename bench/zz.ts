import { loadGeometry } from '@feuillet/core/geometry'
import { Nester } from '@feuillet/core/sheets'
import { families } from './instances'
await loadGeometry()
const only=process.argv[2]??''
for (const {name,instance} of families().filter(f=>f.name.includes(only))) { const n=new Nester(instance,+(process.argv[3]??1)) as any; 
 const orig=n.tidyUp; let ms=0,c=0,g=0
 if(orig) n.tidyUp=function(t:number){const a=performance.now();const r=orig.call(n,t);ms+=performance.now()-a;c++;if(r)g++;return r}
 const t=performance.now(); while(performance.now()-t<6000&&!n.done)n.step(); console.log(name.padEnd(32),n.best.score.toFixed(4),n.steps,'tidy',c,'better',g,'ms each',(ms/c).toFixed(1)) }
