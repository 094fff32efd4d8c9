import { benchPeople } from './growing';
import { PackedMap } from '../src/core';
const of = PackedMap.of;
(PackedMap as any).of = (...a: any[]) => { const s = performance.now(); const r = (of as any).apply(PackedMap, a); console.log('of', performance.now() - s); return r; };
console.log(await benchPeople(Number(process.argv[2]), 5));
