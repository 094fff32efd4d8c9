import { benchPeople } from './growing';

for (const n of process.argv.slice(2).map(Number)) console.log(n, await benchPeople(n));
