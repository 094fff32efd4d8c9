// @vitest-environment happy-dom
import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { asId, type GateId } from '@/core';
import { everyRow } from './board-filter';
import { useView } from './use-view';
import { viewOf } from './view';

const start = '/desk';
beforeEach(() => window.history.replaceState(null, '', start));
afterEach(cleanup);

const opened = () => renderHook(() => useView(viewOf({ kind: 'board' }))).result;
const address = () => window.location.pathname + window.location.search;
const gate = { kind: 'gate', gate: asId<GateId>('crew') } as const;

it('is in the address, with nothing where nothing was chosen', () => {
  const view = opened();
  expect(address()).toBe(start);
  act(() => view.current.setSide('difference'));
  expect(address()).toBe('/desk?show=difference');
  act(() => view.current.setFilter({ ...everyRow, text: 'night', kind: 'post' }));
  expect(address()).toBe('/desk?show=difference&find=night&kind=post');
});

it('makes a step that Back takes back of another screen, and none of another view of the same', () => {
  const view = opened();
  const steps = window.history.length;
  act(() => view.current.setSide('live'));
  act(() => view.current.setBench({ kind: 'rules' }));
  expect(window.history.length).toBe(steps);
  act(() => view.current.setScreen({ kind: 'names' }));
  expect([window.history.length, address()]).toEqual([steps + 1, '/desk/names?show=live']);
  expect(document.title).toBe('Names · Trivet');
});

it('goes where Back leads, and nowhere where there is no such screen', () => {
  const view = opened();
  act(() => view.current.setScreen({ kind: 'history', revision: null }));
  act(() => {
    window.history.replaceState(null, '', '/desk?show=live&gate=crew');
    window.dispatchEvent(new PopStateEvent('popstate'));
  });
  expect(view.current).toMatchObject({ screen: { kind: 'board' }, side: 'live', bench: gate });
  act(() => {
    window.history.replaceState(null, '', '/desk/never');
    window.dispatchEvent(new PopStateEvent('popstate'));
  });
  expect(view.current.screen).toEqual({ kind: 'board' });
});

it('shows a gate where it can be changed: on the board, in the draft', () => {
  const view = opened();
  act(() => view.current.setSide('live'));
  act(() => view.current.setScreen({ kind: 'names' }));
  act(() => view.current.setBench(gate));
  expect(view.current).toMatchObject({ screen: { kind: 'board' }, side: 'draft', bench: gate });
  act(() => view.current.setSide('difference'));
  act(() => view.current.setBench(gate));
  expect(view.current.side).toBe('difference');
});

it('clears the workbench when one goes to another screen', () => {
  const view = opened();
  act(() => view.current.setBench(gate));
  act(() => view.current.setScreen({ kind: 'names' }));
  expect(view.current.bench).toEqual({ kind: 'gates' });
});
