// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, renderHook, screen } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { useWaitingEnter } from './use-waiting-enter';

const waiting: { readonly text: string; readonly come: (found: readonly string[]) => void }[] = [];
const chosen: string[] = [];

function Finder() {
  const [found, setFound] = useState<readonly string[]>([]);
  const { type, ref, onKeyDownCapture } = useWaitingEnter(
    (text) =>
      new Promise<void>((resolve) =>
        waiting.push({
          text,
          come: (names) => {
            setFound(names);
            resolve();
          },
        }),
      ),
  );
  return (
    <div ref={ref} onKeyDownCapture={onKeyDownCapture}>
      <input aria-label="Who" onChange={(event) => type(event.target.value)} />
      <button type="button" cmdk-item="" data-action="true" onClick={() => chosen.push('made up')}>
        Make somebody up
      </button>
      {found.map((name) => (
        <button key={name} type="button" cmdk-item="" onClick={() => chosen.push(name)}>
          {name}
        </button>
      ))}
    </div>
  );
}

beforeEach(() => {
  waiting.length = 0;
  chosen.length = 0;
  vi.useFakeTimers();
  render(<Finder />);
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

const type = (text: string) => fireEvent.change(screen.getByLabelText('Who'), { target: { value: text } });
const enter = () => fireEvent.keyDown(screen.getByLabelText('Who'), { key: 'Enter' });
const come = async (at: number, ...names: string[]) => {
  await act(async () => waiting[at]?.come(names));
  await act(async () => void (await vi.advanceTimersByTimeAsync(100)));
};

it('waits for the answer and chooses the first that was found, not what can be done', async () => {
  type('ma');
  expect(enter()).toBe(false);
  expect(chosen).toEqual([]);
  await come(0, 'Marek', 'Maud');
  expect(chosen).toEqual(['Marek']);
});

it('is taken back by typing on', async () => {
  type('ma');
  enter();
  type('mau');
  await come(1, 'Maud');
  expect(chosen).toEqual([]);
});

it('is meant for the last answer, whichever comes first', async () => {
  type('ma');
  type('mau');
  enter();
  await come(0, 'Marek');
  expect(chosen).toEqual([]);
  await come(1, 'Maud');
  expect(chosen).toEqual(['Maud']);
});

it('is the list’s own once the answer is there, and while a word is being composed', async () => {
  type('ma');
  fireEvent.keyDown(screen.getByLabelText('Who'), { key: 'Enter', isComposing: true });
  await come(0, 'Marek');
  expect(chosen).toEqual([]);
  expect(enter()).toBe(true);
});

it('is the list’s own where nothing is asked for', () => {
  cleanup();
  const { result } = renderHook(() => useWaitingEnter(undefined));
  result.current.type('');
  const event = { key: 'Enter', nativeEvent: {}, preventDefault: vi.fn(), stopPropagation: vi.fn() };
  result.current.onKeyDownCapture(event as never);
  expect(event.preventDefault).not.toHaveBeenCalled();
});

it('chooses nothing where nothing was found', async () => {
  type('zzz');
  enter();
  await come(0);
  expect(chosen).toEqual([]);
});
