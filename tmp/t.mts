import { makeDemo } from '../demo/src/make.ts';
import { DemoClient } from '../demo/src/client.ts';
const orig = DemoClient.prototype.call; const t: Record<string,[number,number]> = {};
DemoClient.prototype.call = async function(this: any, r: any, i: any) { const s = performance.now(); try { return await orig.call(this, r, i) } finally { const k = r.method+' '+r.path; const e = t[k] ??= [0,0]; e[0]++; e[1]+=performance.now()-s; } } as any;
const s = performance.now();
await makeDemo('/tmp/d/x.sqlite', new Date()); console.log(performance.now()-s);
console.table(Object.entries(t).map(([k,[n,m]])=>({k,n,ms:Math.round(m),avg:(m/n).toFixed(1)})).sort((a,b)=>b.ms-a.ms));
