import { expect, it } from 'vitest';
import { benchAnalysis } from './analysis';
import { benchBoardCells, benchEffect } from './checking';
import { benchColumns, benchFive, benchText } from './conditions';
import { benchCourse } from './course';
import { benchDecide } from './decide';
import { benchItems, benchPeople } from './growing';
import { benchFacts, benchNotices } from './selling';
import { benchSharedChecking, benchSharedCompile, benchSharedPage } from './shared';
import { benchCompile, benchList, benchMemory } from './site';

it('runs, and its hand-written closures agree with the compiled policy', () => {
  const { compiled, byHand } = benchDecide(10, 1);
  expect(compiled).toBeGreaterThan(0);
  expect(byHand).toBeGreaterThan(0);
});

it('agrees with what is written by hand for conditions, over columns and as text', () => {
  expect(benchFive(5, 1).compiled).toBeGreaterThan(0);
  expect(benchColumns(1000, 40, 1).bytesPerPerson).toBeGreaterThan(0);
  expect(benchText(200).parse).toBeGreaterThan(0);
});

it('lists twenty posts for everybody, and compiles and holds a large site', async () => {
  const rates = await benchList(30, 1);
  expect(Math.min(rates.open, rates.guest, rates.member)).toBeGreaterThan(0);
  const { compiling, withAll } = benchCompile(50, 400, 1);
  expect(withAll).toBeGreaterThan(compiling);
  expect(benchMemory(2000)).toBeGreaterThan(0);
});

it('shares sections among pages as they would stand on each', async () => {
  const rates = await benchSharedPage(30, 1);
  expect(Math.min(rates.own, rates.shared)).toBeGreaterThan(0);
  expect(benchSharedCompile(4, 200, 1).with).toBeGreaterThan(0);
  expect(benchSharedChecking(300, 200, 40, 1).with.asking).toBeGreaterThan(0);
});

it('decides everything about gates that are many', () => {
  expect(benchAnalysis(40, 20, 10, 1)).toMatchObject({ notDecided: 0, proved: 20 });
});

it('draws a course and its activities', async () => {
  const rates = await benchCourse(20, 40, 1);
  expect(Math.min(...Object.values(rates))).toBeGreaterThan(0);
});

it('derives facts from purchases, and takes notices with the state right', async () => {
  expect((await benchFacts(20)).with).toBeGreaterThan(0);
  expect((await benchNotices(12)).perSecond).toBeGreaterThan(0);
});

it('finds the effect of a change, and decides a board, as deciding one by one does', () => {
  expect(benchEffect(300, 200, 40, 1).many.touched).toBeGreaterThan(0);
  expect(benchBoardCells(200, 10, 20, 1).cells).toBe(204 * 10);
});

it('changes one person and one text among others', async () => {
  expect((await benchPeople(60, 2)).completing).toBeGreaterThan(0);
  expect((await benchItems(60, 2)).writing).toBeGreaterThan(0);
});
