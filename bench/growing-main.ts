/** `npm run bench -- growing`: what changes cost, as a table that shows how that grows. */
import { benchItems, benchPeople } from './growing';

const sizes = (given: string | undefined, usual: readonly number[]) =>
  given === undefined ? usual : given.split(',').map(Number);
const [people, items] = process.argv.slice(2);
const count = (value: number) => value.toLocaleString('en').padStart(10);
const ms = (value: number) => `${value.toFixed(value < 100 ? 1 : 0)} ms`.padStart(12);
const ratio = (value: number, first: number | undefined) =>
  first === undefined ? '' : ` (${(value / first).toFixed(2)} of the first)`;

console.log(
  '\nOne change among so many people: done with an activity, into a group; reading all of them anew, and as they were written down; asking everybody something, and again after a change',
);
let least: Awaited<ReturnType<typeof benchPeople>> | undefined;
for (const size of sizes(people, [1000, 100_000, 1_000_000])) {
  const made = await benchPeople(size);
  console.log(
    `  ${count(size)} ${ms(made.completing)} ${ms(made.joining)} ${ms(made.reading)} ${ms(made.beginning)} ${ms(made.asking)} ${ms(made.askingAgain)}   ${made.bytes.toFixed(0)} bytes each${ratio(made.completing, least?.completing)}`,
  );
  least ??= made;
}
console.log('  (aims: 5 ms, and no growth; 15 s; 150 bytes)');

console.log('\nOne change among so many items: another text, another title');
let first: Awaited<ReturnType<typeof benchItems>> | undefined;
for (const size of sizes(items, [500, 5000, 50_000])) {
  const made = await benchItems(size);
  console.log(
    `  ${count(size)} ${ms(made.writing)} ${ms(made.naming)}${ratio(made.writing, first?.writing)}`,
  );
  first ??= made;
}
console.log('  (aim: a text in 20 ms)');
