/** Prints every measurement, each beside what it is compared with. */
import { benchBoard } from './board';
import { benchDecide } from './decide';
import { benchServe } from './serve';

const port = Number(process.argv[2]);

const { compiled, byHand } = benchDecide();
console.log('\nA decision');
console.log(`  by hand      ${byHand.toFixed(1)} ns`);
console.log(`  compiled     ${compiled.toFixed(1)} ns`);
console.log(`  ratio        ${(compiled / byHand).toFixed(2)}   (aim: 3 or less)`);

const rates = await benchServe(port);
console.log('\nRequests per second, one server, 16 connections');
for (const [name, value] of Object.entries(rates)) console.log(`  ${name.padEnd(32)}${value.toFixed(0)}`);
const share = (a: string, b: string) => `${((100 * (rates[a] ?? 0)) / (rates[b] ?? 1)).toFixed(0)} %`;
console.log(
  `  gated of open, same member      ${share('gated page, member', 'open page, member')}   (aim: 90 % or more)`,
);
console.log(`  gated of open, open as a guest  ${share('gated page, member', 'open page, guest')}`);
console.log(`  open page of bare handler       ${share('open page, guest', 'bare route handler')}`);

console.log('\nThe board of the demo');
console.log(
  `  answers after its first byte    ${(await benchBoard(port)).toFixed(0)} ms   (aim: 1000 or less)`,
);
