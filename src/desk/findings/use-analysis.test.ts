// @vitest-environment happy-dom
/** What is certain is worked out by a worker, that of the last policy alone, and is stopped at a click. */
import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { openPolicy, type Policy } from '@/core';
import { deskData } from '../testing';
import type { AnalysisAnswer, AnalysisQuestion } from './analysis-worker';
import { useAnalysis } from './use-analysis';

const made: FakeWorker[] = [];
class FakeWorker {
  readonly asked: AnalysisQuestion[] = [];
  ended = false;
  onmessage: ((event: MessageEvent<AnalysisAnswer>) => void) | null = null;
  constructor() {
    made.push(this);
  }
  postMessage = (question: AnalysisQuestion) => this.asked.push(question);
  terminate = () => {
    this.ended = true;
  };
  answer(): void {
    const number = this.asked.at(-1)?.number ?? 0;
    const analysis = { findings: [], verdicts: new Map() };
    act(() => this.onmessage?.({ data: { number, analysis } } as unknown as MessageEvent<AnalysisAnswer>));
  }
}

beforeEach(() => {
  made.length = 0;
  vi.useFakeTimers();
  vi.stubGlobal('Worker', FakeWorker);
  vi.stubGlobal('requestIdleCallback', (work: () => void) => setTimeout(work));
  vi.stubGlobal('cancelIdleCallback', clearTimeout);
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const data = deskData({});
const other: Policy = { ...openPolicy, turnAways: [] };
const begun = () =>
  renderHook(({ policy }: { policy: Policy | null }) => useAnalysis(policy, data), {
    initialProps: { policy: openPolicy as Policy | null },
  });
const wait = () => act(async () => vi.advanceTimersByTime(1000));
const last = () => {
  const worker = made.at(-1);
  if (!worker) throw new Error('Nobody was asked.');
  return worker;
};

it('tells the site once, and goes on with the same worker once it has answered', async () => {
  const { result, rerender } = begun();
  expect(result.current.work).toBe('going on');
  await wait();
  expect(last().asked).toMatchObject([{ number: 1, policy: openPolicy, site: {} }]);
  last().answer();
  expect(result.current).toMatchObject({ work: 'done', analysis: { findings: [] } });
  rerender({ policy: other });
  await wait();
  expect(made).toHaveLength(1);
  expect(last().asked[1]).not.toHaveProperty('site');
});

it('ends a worker that is still at what is no longer asked', async () => {
  const { rerender } = begun();
  await wait();
  rerender({ policy: other });
  await wait();
  expect(made.map(({ ended }) => ended)).toEqual([true, false]);
  expect(last().asked).toMatchObject([{ number: 2, policy: other, site: {} }]);
});

it('is stopped, keeps what is there, and goes on when told to', async () => {
  const { result, rerender } = begun();
  await wait();
  last().answer();
  const before = result.current.analysis;
  rerender({ policy: other });
  await wait();
  act(() => result.current.stop());
  expect(last().ended).toBe(true);
  expect(result.current).toMatchObject({ work: 'stopped', analysis: before });
  await wait();
  expect(made).toHaveLength(1);
  act(() => result.current.goOn());
  expect(result.current.work).toBe('going on');
  await wait();
  last().answer();
  expect(made).toHaveLength(2);
  expect(result.current.work).toBe('done');
});

it('is stopped for one policy, not for the next', async () => {
  const { result, rerender } = begun();
  act(() => result.current.stop());
  await wait();
  expect(made).toHaveLength(0);
  rerender({ policy: other });
  expect(result.current.work).toBe('going on');
  await wait();
  expect(last().asked).toMatchObject([{ policy: other }]);
});

it('has nothing to do where there is nothing of its own to ask about', async () => {
  const { result, rerender } = begun();
  rerender({ policy: null });
  await wait();
  expect(made).toHaveLength(0);
  expect(result.current.work).toBe('done');
});
