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

const view = () => renderHook(() => useView(viewOf({ kind: 'board' }))).result;
const address = () => window.location.pathname + window.location.search;
const gate = { kind: 'gate', gate: asId<GateId>('crew') } as const;

it('is in the address, with nothing where nothing was chosen', () => {
  const place = view();
  expect(address()).toBe(start);
  act(() => place.current.setSide('difference'));
  expect(address()).toBe('/desk?show=difference');
  act(() => place.current.setFilter({ ...everyRow, text: 'night', kind: 'post' }));
  expect(address()).toBe('/desk?show=difference&find=night&kind=post');
});

it('makes a step that Back takes back of another screen, and none of another view of the same', () => {
  const place = view();
  const steps = window.history.length;
  act(() => place.current.setSide('live'));
  act(() => place.current.setBench({ kind: 'rules' }));
  expect(window.history.length).toBe(steps);
  act(() => place.current.setScreen({ kind: 'names' }));
  expect([window.history.length, address()]).toEqual([steps + 1, '/desk/names?show=live']);
  expect(document.title).toBe('Names · Trivet');
});

it('goes where Back leads, and nowhere where there is no such screen', () => {
  const place = view();
  act(() => place.current.setScreen({ kind: 'history', revision: null }));
  act(() => {
    window.history.replaceState(null, '', '/desk?show=live&gate=crew');
    window.dispatchEvent(new PopStateEvent('popstate'));
  });
  expect(place.current).toMatchObject({ screen: { kind: 'board' }, side: 'live', bench: gate });
  act(() => {
    window.history.replaceState(null, '', '/desk/never');
    window.dispatchEvent(new PopStateEvent('popstate'));
  });
  expect(place.current.screen).toEqual({ kind: 'board' });
});

it('shows a gate where it can be changed: on the board, in the draft', () => {
  const place = view();
  act(() => place.current.setSide('live'));
  act(() => place.current.setScreen({ kind: 'names' }));
  act(() => place.current.setBench(gate));
  expect(place.current).toMatchObject({ screen: { kind: 'board' }, side: 'draft', bench: gate });
  act(() => place.current.setSide('difference'));
  act(() => place.current.setBench(gate));
  expect(place.current.side).toBe('difference');
});

it('clears the workbench when one goes to another screen', () => {
  const place = view();
  act(() => place.current.setBench(gate));
  act(() => place.current.setScreen({ kind: 'names' }));
  expect(place.current.bench).toEqual({ kind: 'gates' });
});
