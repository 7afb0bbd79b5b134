import { readFileSync } from 'node:fs';
import { prospectOf } from './src/core/analysis/shares/prospect';
import { sharesOf } from './src/core/analysis';
import { readDocumentText } from './src/core/document/read';
import { planOf } from './src/core/routing/planner';
import { generate, filters, picksThatGate } from './bench/generate';
import { secondsByName } from './src/core/routing/burden';
const read=(f:string)=>{const r=readDocumentText(readFileSync(f,'utf8')); if(!r.ok) throw 1; return planOf(r.document);};
const docs:[string,()=>any][]=[['demo',()=>read('demo/tern-valley-home-heating.fork.json')],['street',()=>read('demo/street-lighting-doorstep.fork.json')]];
for (const n of [120,300,1000]) docs.push([`gen${n}`,()=>planOf(generate({items:n,longRange:n>=1000?8:4}))]);
docs.push(['filters40',()=>planOf(filters(40))],['picks12',()=>planOf(picksThatGate(12))]);
for (const [name,make] of docs){ const plan=make(); 
 let t=performance.now(); const lap=(w:string)=>{const n=performance.now(); console.log('  ',w,(n-t).toFixed(1)); t=performance.now();};
 console.log(name);
 const p=prospectOf(plan); lap('prospect'); if(!p){console.log('null');continue;}
 console.log('   has', p.hasLengths); lap('trace');
 const iv=(p as any).traced; console.log('   nodes',iv?.nodes.length, 'ways', iv?.nodes.reduce((s:number,n:any)=>s+n.ways.length,0),'circuit',(p as any).weighing.circuit.size);
 if(!iv) continue;
 const sec=secondsByName(plan); const ends=new Set<string>(plan.endings.map((e:any)=>e.ending.id));
 t=performance.now(); let l=p.lengths(sec,ends)!; lap('lengths'); l=p.lengths(sec,ends)!; lap('lengths again');
 const tot=l.reduce((s,x)=>s+x.share,0), mean=l.reduce((s,x)=>s+x.share*x.seconds,0)/60;
 console.log('   ',l.length,tot,mean); 
 t=performance.now(); const s=p.sharesOfThoseWhoStay(sec,()=>1)!; lap('stay'); const sh=p.shares(); console.log('   maxdiff',Math.max(...s.map((x,n)=>Math.abs(x-sh[n]!))));
 t=performance.now(); p.assume(new Map([['x',{}]])); lap('assume'); 
 for (let g=0;g<sh.length;g++) p.slopes(g); lap('all slopes');
 console.log('   minutes by sharesOf', sharesOf(plan)?.minutes);
}
