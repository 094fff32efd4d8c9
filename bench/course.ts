/** Courses: an activity's page beside an ordinary gated page, and a long outline beside a page with as many links. */
import {
  type Address,
  asId,
  compile,
  type GateId,
  gateInOrder,
  type Item,
  type ItemId,
  type LevelId,
  level,
  member,
  type Outline,
  openPolicy,
  outlineOf,
} from '../src/core';
import { type ViewContext, viewPage } from '../src/services';
import { renderAnswer } from '../src/site';
import { delivery, gate, lookWith, names } from './site';

const id = asId<ItemId>;
const UNITS = 10;

/** A course of so many activities in ten units, and beside it a gated page with a text, and one with as many links. */
function courseOf(activities: number): Outline {
  const base = (name: string, parent: string | null, rank = 0) => ({
    id: id(name),
    parent: parent === null ? null : id(parent),
    rank,
    title: `The ${name}`,
    published: true,
  });
  const text = (page: string): Item => ({ ...base(`${page}-text`, page), kind: 'section', type: 'text' });
  const items: Item[] = [
    { ...base('site', null), kind: 'site' },
    { ...base('plain', 'site'), kind: 'page', address: '/plain' as Address },
    text('plain'),
    { ...base('links', 'site'), kind: 'page', address: '/links' as Address },
    text('links'),
    { ...base('course', 'site'), kind: 'course', address: '/course' as Address },
  ];
  for (let unit = 0; unit < UNITS; unit++)
    items.push({ ...base(`unit-${unit}`, 'course', unit), kind: 'unit' });
  for (let at = 0; at < activities; at++) {
    const name = `activity-${at}`;
    items.push(
      {
        ...base(name, `unit-${Math.floor((at * UNITS) / activities)}`, at),
        kind: 'activity',
        activity: 'reading',
        address: `/course/${at}` as Address,
      },
      text(name),
    );
  }
  const outline = outlineOf(items);
  if ('problems' in outline) throw new Error(outline.problems[0]?.message);
  return outline;
}

/** Pages per second, made anew, as a learner who is done with half of it; taking turns. */
export async function benchCourse(activities = 500, milliseconds = 1000, rounds = 15) {
  const outline = courseOf(activities);
  const over = (item: string) => ({ targets: [{ kind: 'item' as const, item: id(item) }], except: [] });
  const observers = level('at least', asId('observer'));
  const gates = [
    gate('plain', over('plain'), observers),
    gate('course', over('course'), observers),
    ...Array.from({ length: UNITS }, (_, unit) =>
      gateInOrder(asId<GateId>(`in-order-${unit}`), id(`unit-${unit}`)),
    ),
  ];
  const half = Math.floor(activities / 2);
  const learner = member({
    level: asId<LevelId>('observer'),
    completions: Array.from({ length: half }, (_, at) => ({
      item: id(`activity-${at}`),
      on: '2026-11-01',
      score: null,
    })),
  });
  const look = lookWith(outline, compile({ ...openPolicy, gates }, outline, names), learner);
  const links = Array.from({ length: activities }, (_, at) => `- [The activity-${at}](/course/${at})`).join(
    '\n',
  );
  const contents = look.state.contents.with([[id('links-text'), { summary: '', body: links }]]);
  const context: ViewContext = { ...look, state: { ...look.state, contents } };
  const pages = { plain: '/plain', activity: `/course/${half - 1}`, links: '/links', outline: '/course' };
  const kinds = Object.keys(pages) as (keyof typeof pages)[];
  const rates = { plain: [], activity: [], links: [], outline: [] } as Record<keyof typeof pages, number[]>;
  for (let round = 0; round <= rounds; round++)
    for (const kind of kinds) {
      const start = performance.now();
      let made = 0;
      while (performance.now() - start < milliseconds / 4) {
        const rendered = await renderAnswer(viewPage(context, pages[kind]), delivery);
        if ('location' in rendered || rendered.status !== 200) throw new Error(`${kind} is closed.`);
        made += 1;
      }
      // The first round warms up.
      if (round > 0) rates[kind].push((made * 1000) / (performance.now() - start));
    }
  const median = (list: readonly number[]) =>
    list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;
  // A machine is not as quick in one round as in another: what is compared is of one.
  const beside = (one: readonly number[], other: readonly number[]) =>
    median(one.map((rate, round) => rate / (other[round] ?? Number.NaN)));
  return {
    plain: median(rates.plain),
    activity: median(rates.activity),
    share: beside(rates.activity, rates.plain),
    links: median(rates.links),
    outline: median(rates.outline),
    times: beside(rates.links, rates.outline),
  };
}
