
import { readFileSync } from 'node:fs';
import { deliveredCatalogue, learnedCatalogue } from '@zealous/core';
import { parseMachine } from '@zealous/core/formats';
import { drawOrder, followTracer, perturbed, learnedFrom } from '@zealous/core/practice';
import { seeded } from './traceJob';
const [,, name='whelk', n='100', worlds='3', from='0']=process.argv;
const m = parseMachine(JSON.parse(readFileSync(`demo/machines/${name}.json`,'utf8')));
const mean=(l:number[])=>l.reduce((a,b)=>a+b,0)/l.length; const A:number[]=[],B:number[]=[],C:number[]=[];
for(let w=+from;w<+from+ +worlds;w++){ const truth=perturbed(deliveredCatalogue,seeded(555+w));
 const train=Array.from({length:200},(_,i)=>{const hidden=drawOrder(m,truth,seeded(90000+w*1000+i),deliveredCatalogue);return {hidden,tally:followTracer(hidden,seeded(i),{depth:1})};});
 const learned=learnedFrom(train,deliveredCatalogue); const cat=learnedCatalogue(deliveredCatalogue,learned,m);
 const a:number[]=[],b:number[]=[],c:number[]=[];
 for(let i=0;i<+n;i++){ const h=drawOrder(m,truth,seeded(w*100000+i),deliveredCatalogue); a.push(followTracer(h,seeded(i+7),{depth:1}).minutes); b.push(followTracer({...h,kase:{...h.kase,catalogue:cat}},seeded(i+7),{depth:1}).minutes); c.push(followTracer({...h,kase:{...h.kase,catalogue:truth}},seeded(i+7),{depth:1}).minutes);}
 console.log(w,'delivered',mean(a).toFixed(1),'learned',mean(b).toFixed(1),'truth',mean(c).toFixed(1)); A.push(...a);B.push(...b);C.push(...c);}
console.log(name,'ALL delivered',mean(A).toFixed(1),'learned',mean(B).toFixed(1),'truth',mean(C).toFixed(1),'won back',((mean(A)-mean(B))/(mean(A)-mean(C))).toFixed(2));
