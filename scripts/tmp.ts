import { zipSync, strToU8 } from 'fflate';
import sharp from 'sharp';
import { importSite, READY_MADE, sendFolder, takeIn, takeBackIn, administratorOf, Trivet } from '@/services';
const trivet = await Trivet.open(null);
await importSite(trivet, { ...READY_MADE.empty.site({title:'x',timeZone:'UTC',today:'2026-11-20'}), people:[{id:'una',name:'Una',email:'una@x.example',desk:{right:'owner',branch:null}}] }, 'Una');
const person = [...trivet.state.people.values()][0]!;
const admin = administratorOf({ person, facts: person.facts, session: 'here' })!;
const files: Record<string, Uint8Array> = {};
const words = 'the dark hill over the moor was never quite as silent as they had said it would be in the letters'.split(' ');
let seed = 1; const rnd = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
const para = () => Array.from({length: 60}, () => words[Math.floor(rnd()*words.length)]).join(' ');
for (let i=0;i<2000;i++) {
  let t = `---\ntitle: Page ${i}\ntags: [a, b]\n---\n# Page ${i}\n\n`;
  while (t.length < 5000) t += `## Part ${t.length}\n\n${para()} [link](page-${(i*7)%2000}.md) **bold** and *soft*.\n\n- one\n- two\n\n`;
  if (i % 4 === 0) t += `![Picture](../pictures/p${i/4}.jpg)\n`;
  files[`site/part-${i%20}/page-${i}.md`] = strToU8(t.replaceAll('](page-', '](../part-0/page-'));
}
console.time('pictures');
for (let i=0;i<500;i++) {
  const raw = Buffer.alloc(1600*1000*3); for (let j=0;j<raw.length;j+=997) raw[j]=(i*j)&255;
  files[`site/pictures/p${i}.jpg`] = new Uint8Array(await sharp(raw,{raw:{width:1600,height:1000,channels:3}}).jpeg({quality:85}).toBuffer());
}
console.timeEnd('pictures');
const zip = zipSync(files, {level:0});
console.log('MB', zip.length/1e6);
let longest=0,last=performance.now(); const timer=setInterval(()=>{const n=performance.now(); longest=Math.max(longest,n-last); last=n;},5);
const reset=(w:string)=>{console.log(w,'longest pause',Math.round(longest));longest=0;};
let t0=performance.now();
const sent = await sendFolder(trivet, admin, new Blob([zip]).stream() as never, 'x'); console.log(JSON.stringify(sent)); 
console.log('sent', Math.round(performance.now()-t0)); reset('send'); t0=performance.now();
const wishes={above:trivet.state.outline.root,posts:true,published:true,first:true};
let at: any={};
const src=(sent as any).source;
const look: any = await takeIn(trivet, admin, {source:src,wishes,basis:null}, new Date(), {onProgress:(p)=>{ if (p.what!==at.what) {console.log(p.what, Math.round(performance.now()-t0)); at=p;}}, signal:new AbortController().signal});
console.log(look.kind, look.report?.pages.length, look.report?.files, look.report?.leftOut.length, 'read+look', Math.round(performance.now()-t0)); reset('look'); t0=performance.now();
const look2: any = await takeIn(trivet, admin, {source:src,wishes,basis:null}, new Date(), {onProgress:()=>{}, signal:new AbortController().signal});
console.log('look again', Math.round(performance.now()-t0)); reset('again'); t0=performance.now();
at={};
const done: any = await takeIn(trivet, admin, {source:src,wishes,basis:look2.report.basis}, new Date(), {onProgress:(p)=>{ if (p.what!==at.what) {console.log(p.what, Math.round(performance.now()-t0)); at=p;} if ((p as any).done % 500 === 0) console.log(p.what,(p as any).done, Math.round(performance.now()-t0)); }, signal:new AbortController().signal});
console.log(done.kind, done.summary ?? done.message, 'make', Math.round(performance.now()-t0)); reset('make'); t0=performance.now();
console.log(await takeBackIn(trivet, admin, done.taking, new Date()), Math.round(performance.now()-t0)); reset('back');
clearInterval(timer); process.exit(0);
