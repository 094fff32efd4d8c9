/** Prints every measurement, each beside what it is compared with. */
import { benchAnalysis } from './analysis';
import { benchBoard } from './board';
import { benchBoardCells, benchEffect, benchWalk } from './checking';
import { benchColumns, benchFive, benchText } from './conditions';
import { benchCourse } from './course';
import { benchDecide } from './decide';
import { benchAlike, benchFrontDoor } from './front-door';
import { benchProgress, benchQuiz } from './learning';
import { benchFacts, benchNotices } from './selling';
import { benchSharedChecking, benchSharedCompile, benchSharedPage } from './shared';
import { benchCompile, benchList, benchMemory } from './site';

const port = Number(process.argv[2]);

const { compiled, byHand } = benchDecide();
console.log('\nA decision');
console.log(`  by hand      ${byHand.toFixed(1)} ns`);
console.log(`  compiled     ${compiled.toFixed(1)} ns`);
console.log(`  ratio        ${(compiled / byHand).toFixed(2)}   (aim: 3 or less)`);

const five = benchFive();
console.log('\nA condition of five tests');
console.log(`  by hand      ${five.byHand.toFixed(1)} ns`);
console.log(`  compiled     ${five.compiled.toFixed(1)} ns`);
console.log(`  ratio        ${(five.compiled / five.byHand).toFixed(2)}   (aim: 2 or less)`);

const columns = benchColumns();
console.log('\n500 conditions over 1,000,000 people, with counts');
console.log(
  `  building     ${(columns.building / 1000).toFixed(2)} s for ${columns.tests} tests, ${columns.bytesPerPerson.toFixed(2)} bytes per person`,
);
console.log(`  bare loops   ${columns.loops.toFixed(0)} ms`);
console.log(`  columns      ${columns.columns.toFixed(0)} ms`);
console.log(`  ratio        ${(columns.columns / columns.loops).toFixed(2)}   (aim: 5 or less)`);

console.log('\nWhat is certain about 200 gates that ask about 40 things, over 500 items');
for (const [pages, gates, things] of [
  [250, 200, 40],
  [500, 400, 80],
  [2500, 500, 100],
] as const) {
  const { findings, notDecided, edited, proofs, proved, kinds, described } = benchAnalysis(
    pages,
    gates,
    things,
  );
  console.log(
    `  ${gates} gates, ${things} things, ${2 * pages} items   ${findings.toFixed(0)} ms, ${notDecided} not decided   (aim for the first: 5000 or less)`,
  );
  console.log(
    `      a gate changed    ${edited.toFixed(0)} ms, compiled and found anew   (aim for the first: 200 or less)`,
  );
  console.log(`      20 expectations   ${proofs.toFixed(0)} ms, ${proved} proved or refuted`);
  console.log(
    `      20 kinds          ${kinds.toFixed(0)} ms, ${described} said in a few words   (aim for the first: 2000 or less)`,
  );
}

const text = benchText();
console.log(`\n10,000 conditions as text, ${text.characters.toFixed(0)} characters each`);
console.log(`  printing     ${text.print.toFixed(1)} µs each`);
console.log(`  reading      ${text.parse.toFixed(1)} µs each`);

const list = await benchList();
const part = (rate: number) => `${((100 * rate) / list.open).toFixed(0)} %`;
console.log('\nA home page with 20 listed posts, pages per second');
console.log(`  without gates   ${list.open.toFixed(0)}`);
console.log(`  as a guest      ${list.guest.toFixed(0)}   ${part(list.guest)}   (aim: 85 % or more)`);
console.log(`  as a member     ${list.member.toFixed(0)}   ${part(list.member)}   (aim: 85 % or more)`);

console.log('\nA large site: compiling gates over items, and with what stands over each item');
for (const [gates, items, turns] of [
  [500, 10_000, 5],
  [1000, 50_000, 3],
] as const) {
  const { compiling, withAll } = benchCompile(gates, items, turns);
  console.log(
    `  ${gates} over ${items}   ${compiling.toFixed(0)} ms, ${withAll.toFixed(0)} ms   (aim for both: 1000 or less)`,
  );
}
console.log(`  memory per 1,000 items                  ${(benchMemory() / 1000).toFixed(0)} kB`);

const shared = await benchSharedPage();
console.log('\nA page with ten shared sections beside the same ones as its own, made anew, pages per second');
console.log(`  as its own    ${shared.own.toFixed(0)}`);
console.log(
  `  shared        ${shared.shared.toFixed(0)}   ${((100 * shared.shared) / shared.own).toFixed(0)} %   (aim: 90 % or more)`,
);
const places = benchSharedCompile();
console.log(
  `  compiling 20 of them over 10,000 hosts  ${(places.with - places.without).toFixed(0)} ms more than ${places.without.toFixed(0)}   (aim: 150 or less)`,
);

const sharing = benchSharedChecking();
const beside = (one: number, other: number) => `${one.toFixed(0)} ms, without them ${other.toFixed(0)}`;
console.log(
  '\n20 shared sections on 10,000 pages and posts: 1,000,000 people, 500 gates, compiling included',
);
console.log(`  a page’s gate changed           ${beside(sharing.with.page, sharing.without.page)}`);
console.log(`  a gate over one of them         ${sharing.with.section.toFixed(0)} ms`);
console.log(`  one that asks about its host    ${sharing.with.asking.toFixed(0)} ms`);
console.log(`  every decision for 50 visitors  ${beside(sharing.with.board, sharing.without.board)}`);

const course = await benchCourse();
console.log('\nA course of 500 activities, made anew for a learner, pages per second');
console.log(`  a gated page       ${course.plain.toFixed(0)}`);
console.log(
  `  an activity        ${course.activity.toFixed(0)}   ${(100 * course.share).toFixed(0)} %   (aim: 85 % or more)`,
);
console.log(`  a page of 500 links   ${course.links.toFixed(0)}`);
console.log(
  `  the outline        ${course.outline.toFixed(0)}   ${course.times.toFixed(2)} times as long   (aim: 1.5 or less)`,
);

const progress = await benchProgress();
console.log('\nThe progress of 2,000 learners in 100 activities');
console.log(
  `  decided and written   ${progress.whole.toFixed(0)} ms, ${progress.kilobytes.toFixed(0)} kB   (aim: 300 or less)`,
);
console.log(
  `  a quiz, graded and recorded on the demo   ${(await benchQuiz()).toFixed(1)} ms   (aim: 20 or less)`,
);

const facts = await benchFacts();
console.log('\nSomebody with twenty purchases');
console.log(
  `  their facts made        ${facts.deriving.toFixed(2)} µs, without purchases ${facts.plain.toFixed(2)}   (aim: 5 or less)`,
);
console.log(
  `  deciding with them      ${facts.with.toFixed(0)} ns, without ${facts.without.toFixed(0)}: ${((100 * facts.without) / facts.with).toFixed(0)} % as fast   (aim: 90 % or more)`,
);
const notices = await benchNotices();
console.log(
  `  a notice, to a page that it opens on the demo   ${notices.first.toFixed(0)} ms   (aim: 50 or less)`,
);
console.log(`  10,000 notices in a row                         ${notices.perSecond.toFixed(0)} a second`);

const effect = benchEffect();
console.log(`\nThe effect of a change: 1,000,000 people, ${effect.items} items, 500 gates`);
console.log(`  columns built once              ${(effect.building / 1000).toFixed(2)} s`);
const said = ({ whole, compiling, touched }: typeof effect.one) =>
  `${whole.toFixed(0)} ms, of which compiling ${compiling.toFixed(0)}; ${touched} items change`;
console.log(`  one gate changed                ${said(effect.one)}   (aim: 1000 or less)`);
console.log(`  fifty gates changed             ${said(effect.many)}`);

const cells = benchBoardCells();
console.log(`\nA board of 5,000 items and 50 visitors: ${cells.cells} cells, twice`);
console.log(`  from nothing                    ${cells.whole.toFixed(0)} ms   (aim: 300 or less)`);
console.log(`  deciding alone                  ${cells.deciding.toFixed(0)} ms`);

const ports = { kept: port, anew: port + 1, plain: port + 2 };
// Walks keep nothing, so neither does the site beside it.
const walk = await benchWalk(ports.anew);
console.log('\nA page on a walk beside the same page made anew on the site, requests per second');
console.log(`  on the site                     ${walk.site.toFixed(0)}`);
console.log(`  on a walk                       ${walk.walk.toFixed(0)}`);
console.log(`  time per page, of the site's    ${(walk.site / walk.walk).toFixed(2)}   (aim: 1.2 or less)`);

const number = (value: number, digits = 0) => value.toFixed(digits).padStart(digits === 0 ? 7 : 8);
const percent = (value: number) => `${(100 * value).toFixed(0)} %`.padStart(6);
let over = 0;
console.log(
  '\nThe front door: requests per second, share of a bare server that sends the same bytes, p50 and p99 in ms',
);
await benchFrontDoor(ports, {}, ({ target, connections, plain, kept, anew }) => {
  if (connections !== over) {
    over = connections;
    console.log(
      `\n  ${String(connections).padStart(3)} connections             bare      kept                              anew`,
    );
  }
  const one = ({ rate, share, p50, p99 }: typeof kept) =>
    `${number(rate)} ${percent(share)} ${number(p50, 2)} ${number(p99, 2)}`;
  const bytes =
    plain.bytes > 50 * 1_000_000
      ? `   ${(kept.bytes / 1_000_000).toFixed(0)} of ${(plain.bytes / 1_000_000).toFixed(0)} MB/s`
      : '';
  console.log(`  ${target.padEnd(26)} ${number(plain.rate)}   ${one(kept)}   ${one(anew)}${bytes}`);
});
console.log(
  '  (aims: the gated page kept 60 % or more, made anew 12 % or more; 256 connections no less than 16)',
);

for (const [kind, at] of [
  ['kept', ports.kept],
  ['made anew', ports.anew],
] as const) {
  const { missing, never } = await benchAlike(at);
  const said = ({ low, middle, high }: typeof missing) =>
    [low, middle, high].map((time) => number(time, 3)).join(' ');
  console.log(
    `\nA page that is missing, and an address that was never there, ${kind}: quartiles in ms of 2,000 each`,
  );
  console.log(`  missing       ${said(missing)}`);
  console.log(`  never there   ${said(never)}`);
}

console.log('\nThe board of the demo');
console.log(
  `  answers after its first byte    ${(await benchBoard(port)).toFixed(0)} ms   (aim: 500 or less)`,
);
