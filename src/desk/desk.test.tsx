// @vitest-environment happy-dom
import { act, cleanup, configure, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { asId, type ItemId, member, type Policy } from '@/core';
import { crew, gates, items, policy } from '@/core/testing/larkfell';
import { Desk } from './desk';
import { deskData, fakeServer } from './testing';
import { readView } from './view';

vi.mock('next/navigation', () => ({ useRouter: () => ({ push: () => {} }) }));
configure({ asyncUtilTimeout: 20_000 });

let server: ReturnType<typeof fakeServer>;
beforeEach(() => {
  server = fakeServer();
  vi.stubGlobal(
    'Worker',
    class {
      postMessage() {}
      terminate() {}
    },
  );
  vi.stubGlobal('requestIdleCallback', () => 0);
  // There is no layout here; the board draws what it has room for.
  vi.stubGlobal(
    'ResizeObserver',
    class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  );
  vi.spyOn(HTMLElement.prototype, 'clientWidth', 'get').mockReturnValue(816);
  vi.spyOn(HTMLElement.prototype, 'clientHeight', 'get').mockReturnValue(600);
  window.history.replaceState(null, '', '/desk');
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

async function open(at = '/desk', data = deskData()) {
  const [path = '', query] = at.split('?');
  const view = readView(path.split('/').slice(2), Object.fromEntries(new URLSearchParams(query)));
  if (!view) throw new Error(`There is no ${at}.`);
  await act(async () => void render(<Desk data={data} view={view} panelWidth={464} />));
}

const cell = (row: number, column: number) => {
  const found = document.querySelector<HTMLElement>(`[data-cell="${row}:${column}"]`);
  if (!found) throw new Error(`no cell ${row}:${column}`);
  return found;
};
const outcomes = (row: number) => [0, 1, 2].map((column) => cell(row, column).dataset.outcome);
const row = (title: string) => {
  const titles = screen.getAllByRole('checkbox', { name: /^Mark / });
  return titles.findIndex((box) => box.getAttribute('aria-label') === `Mark ${title}`);
};
const press = (key: string, more = {}) =>
  fireEvent.keyDown(document.activeElement ?? document.body, { key, ...more });
const bench = () => within(screen.getByRole('complementary', { name: 'Workbench' }));
const asked = (method: string, path: string) =>
  waitFor(() => {
    const one = server.asked.find((each) => each.method === method && each.path === path);
    if (!one) throw new Error(`${method} ${path} was not asked`);
    return one;
  });
/** The draft as it is sent to be kept, and kept. */
async function kept(version = 8): Promise<Policy> {
  const one = await asked('PUT', 'draft');
  await act(async () => one.answer({ version }));
  return (one.body as { policy: Policy }).policy;
}

describe('the board', () => {
  it('shows what each visitor gets', async () => {
    await open();
    expect(outcomes(row('Home'))).toEqual(['open', 'open', 'open']);
    expect(outcomes(row('Observers’ room'))).toEqual(['redirect', 'teaser', 'open']);
    expect(outcomes(row('Dome crew'))).toEqual(['missing', 'missing', 'missing']);
    expect(outcomes(row('Join us'))).toEqual(['open', 'open', 'redirect']);
    expect(outcomes(row('A sample chart'))).toEqual(['open', 'open', 'open']);
    expect(outcomes(row('Attic'))).toEqual(['missing', 'missing', 'missing']);
  });

  it('is walked with the arrow keys, and says what it comes to', async () => {
    await open();
    act(() => cell(0, 0).focus());
    press('ArrowRight');
    press('ArrowDown');
    press('End');
    press('ArrowUp');
    press('Home');
    press('ArrowUp');
    expect(document.activeElement).toBe(cell(0, 0));
    press('PageDown');
    expect(document.activeElement).toBe(cell(10, 0));
    expect(screen.getByTestId('decision-line').textContent).toMatch(/^A guest /);
    press('l');
    expect(await screen.findByText('Missing: as if nothing were there')).toBeTruthy();
  });

  it('asks why where one stands, and opens the gate over it', async () => {
    await open();
    act(() => cell(row('Dome crew'), 1).focus());
    act(() => cell(row('Dome crew'), 1).click());
    expect(await bench().findByRole('heading', { name: 'marek at Dome crew' })).toBeTruthy();
    press('g');
    expect(await bench().findByRole('heading', { name: 'Dome crew and everything below it' })).toBeTruthy();
    expect(window.location.search).toBe('?gate=crew');
  });

  it('shows the rows that are asked for, and every row again', async () => {
    await open();
    const count = () => screen.getByTestId('board-count').textContent;
    const all = count();
    fireEvent.change(screen.getByLabelText('Rows whose title or address holds'), {
      target: { value: 'char' },
    });
    expect(count()).toMatch(/^3 of /);
    expect(window.location.search).toBe('?find=char');
    fireEvent.change(screen.getByLabelText('Kind of item'), { target: { value: 'menu' } });
    expect(await screen.findByText(/No row is like that/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Show every row' }));
    expect(count()).toBe(all);
  });

  it('folds out what is in a page', async () => {
    await open();
    expect(row('Welcome, guest')).toBe(-1);
    fireEvent.click(screen.getByRole('button', { name: 'Fold out what is in Home' }));
    expect(row('Welcome, guest')).toBe(1);
    act(() => cell(0, 0).focus());
    press('f');
    expect(row('Welcome, guest')).toBe(-1);
  });
});

describe('rows that are marked', () => {
  const bar = () => screen.queryByTestId('marked-bar');
  const mark = (title: string, shiftKey = false) =>
    fireEvent.click(screen.getAllByRole('checkbox', { name: `Mark ${title}` })[0] as HTMLElement, {
      shiftKey,
    });

  it('are marked by keys and pointer, and let go with Escape', async () => {
    await open();
    act(() => cell(row('Join us'), 0).focus());
    press('m');
    expect(bar()?.textContent).toMatch(/^1 marked/);
    press('ArrowDown', { shiftKey: true });
    expect(bar()?.textContent).toMatch(/^2 marked/);
    mark('Observers’ room', true);
    expect(bar()?.textContent).toMatch(/^3 marked/);
    mark('My account');
    expect(bar()?.textContent).toMatch(/^2 marked/);
    act(() => cell(0, 0).focus());
    press('Escape');
    expect(bar()).toBeNull();
  });

  it('are taken off the site together, with the way back', async () => {
    await open();
    mark('Join us');
    mark('Home');
    fireEvent.click(screen.getByRole('button', { name: 'Unpublish' }));
    const one = await asked('POST', 'items');
    expect(one.body).toEqual({ kind: 'publish', items: ['join', 'home'], published: false });
    const undo = { kind: 'publish', items: ['join', 'home'], published: true };
    await act(async () => one.answer({ item: 'join', removal: null, summary: 'Two are off.', undo }));
    const items = deskData().items.map((item) =>
      ['join', 'home'].includes(item.id) ? { ...item, published: false } : item,
    );
    await act(async () => (await asked('GET', 'site')).answer(deskData({ items })));
    expect(outcomes(row('Home'))).toEqual(['missing', 'missing', 'missing']);
    const told = (await screen.findByText('Two are off.')).closest('li');
    fireEvent.click(within(told as HTMLElement).getByText('Undo'));
    expect((await asked('POST', 'items')).body).toEqual(undo);
  });

  it('say where they can’t go, and what is out of view', async () => {
    await open();
    mark('Join us');
    expect(within(bar() as HTMLElement).getByRole('button', { name: 'Move below …' })).toBeTruthy();
    mark('Top menu');
    expect(bar()?.textContent).toContain('Pages and menus have no place in common to move to.');
    fireEvent.change(screen.getByLabelText('Rows whose title or address holds'), {
      target: { value: 'join' },
    });
    expect(bar()?.textContent).toMatch(/^2 marked, 1 of them not in view/);
    fireEvent.click(screen.getByRole('button', { name: 'Unmark' }));
    fireEvent.click(screen.getByRole('checkbox', { name: 'Mark Join us' }));
    expect(screen.queryByRole('button', { name: /^Mark all/ })).toBeNull();
  });

  it('offer a reader nothing that they may not do', async () => {
    await open('/desk', deskData({ desk: { right: 'reader', branch: null } }));
    mark('Join us');
    const names = within(bar() as HTMLElement)
      .getAllByRole('button')
      .map((button) => button.textContent);
    expect(names).toEqual([expect.stringMatching(/^Mark all/), 'Unmark']);
  });
});

describe('a gate', () => {
  it('is put on a row, kept, and taken away by undo', async () => {
    await open();
    fireEvent.click(screen.getAllByRole('button', { name: 'Put a gate on Home' })[0] as HTMLElement);
    expect(await bench().findByRole('heading', { name: 'Home' })).toBeTruthy();
    expect((await kept()).gates).toHaveLength(policy.gates.length + 1);
    expect(outcomes(row('Home'))).toEqual(['redirect', 'open', 'open']);
    act(() => (document.activeElement as HTMLElement | null)?.blur());
    press('z', { ctrlKey: true });
    expect(outcomes(row('Home'))).toEqual(['open', 'open', 'open']);
    expect(await bench().findByRole('heading', { name: 'Gates' })).toBeTruthy();
    expect((await kept(9)).gates).toHaveLength(policy.gates.length);
  });

  it('answers on the board while it is changed', async () => {
    await open('/desk?gate=crew');
    fireEvent.click(await bench().findByRole('radio', { name: 'Members' }));
    expect(outcomes(row('Dome crew'))).toEqual(['missing', 'open', 'open']);
    expect(await bench().findByText('Changed in the draft')).toBeTruthy();
    fireEvent.click(await bench().findByRole('button', { name: 'Put this gate back as it is live' }));
    expect(outcomes(row('Dome crew'))).toEqual(['missing', 'missing', 'missing']);
  });

  it('is taken out of the draft', async () => {
    await open('/desk?gate=crew');
    fireEvent.click(await bench().findByRole('button', { name: 'Remove' }));
    expect(outcomes(row('Dome crew'))).toEqual(['open', 'open', 'open']);
    expect(await bench().findByRole('heading', { name: 'Gates' })).toBeTruthy();
    expect((await kept()).gates.map(({ id }) => id)).not.toContain('crew');
  });

  it('is moved among the others', async () => {
    await open();
    fireEvent.click(bench().getByRole('button', { name: /^Move down: Observers’ room/i }));
    expect((await kept()).gates.slice(0, 2).map(({ id }) => id)).toEqual(['crew', 'observers']);
  });

  it('says what the server finds wrong with it', async () => {
    await open('/desk?gate=crew');
    fireEvent.click(await bench().findByRole('radio', { name: 'Members' }));
    const problems = [{ gate: 'crew', message: 'That can’t be.' }];
    await act(async () => (await asked('PUT', 'draft')).answer({ title: 'No.', problems }, 422));
    expect((await bench().findByRole('alert')).textContent).toBe('That can’t be.');
  });
});

it('shows both drafts when somebody was quicker, and takes theirs', async () => {
  await open('/desk?gate=crew');
  fireEvent.click(await bench().findByRole('radio', { name: 'Members' }));
  const theirs = { policy: { ...policy, gates: [gates.school] }, version: 12, by: 'Ines Calloway' };
  await act(async () => (await asked('PUT', 'draft')).answer({ title: 'Late.', theirs }, 409));
  const dialog = within(await screen.findByRole('dialog'));
  expect(dialog.getByText(/Ines Calloway saved first/)).toBeTruthy();
  fireEvent.click(dialog.getByRole('button', { name: /^Take theirs/ }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  expect(outcomes(row('Observers’ room'))).toEqual(['open', 'open', 'open']);
});

it('finds and does by typing', async () => {
  Element.prototype.scrollIntoView ??= () => {};
  await open();
  press('k', { ctrlKey: true });
  const field = await screen.findByPlaceholderText('A page, a person, a gate, or something to do');
  fireEvent.change(field, { target: { value: 'show what is live' } });
  fireEvent.click(await screen.findByRole('option', { name: /Show what is live/ }));
  expect(window.location.search).toBe('?show=live');
});

describe('the tree of a site with thousands of pages', () => {
  const page = (id: string, parent: string, rank: number, title: string) =>
    ({ id, kind: 'page', parent, rank, title, address: `/${id}`, published: true }) as const;
  const many = [
    page('archive', 'site', 900, 'Archive'),
    ...Array.from({ length: 250 }, (_, at) => page(`plate-${at}`, 'archive', at, `Plate ${at}`)),
    page('under', 'plate-240', 0, 'Under a plate'),
  ];
  const data = () => deskData({ items: [...items, ...(many as unknown as typeof items)] });
  const NAME = { name: 'What the site holds' };
  const tree = () => within(screen.getByRole('navigation', NAME));
  const entry = (title: string) => tree().queryByRole('button', { name: title });
  const foldOut = (title: string) =>
    fireEvent.click(tree().getByRole('button', { name: `Fold out what is below ${title}` }));

  it('stands folded, and is unfolded a hundred at a time', async () => {
    await open('/desk/site', data());
    await screen.findByRole('navigation', NAME);
    expect(entry('Plate 0')).toBeNull();
    foldOut('Archive');
    expect(entry('Plate 99')).not.toBeNull();
    expect(entry('Plate 100')).toBeNull();
    fireEvent.click(tree().getByRole('button', { name: '150 more' }));
    expect(entry('Plate 199')).not.toBeNull();
    fireEvent.click(tree().getByRole('button', { name: 'Fold away what is below Archive' }));
    expect(entry('Plate 0')).toBeNull();
  });

  it('shows what leads to the open page, wherever it stands', async () => {
    await open('/desk/site?item=under', data());
    await screen.findByRole('navigation', NAME);
    expect(entry('Plate 240')).not.toBeNull();
    expect(entry('Plate 200')).toBeNull();
    expect(entry('Under a plate')?.getAttribute('aria-current')).toBe('page');
  });

  it('shows of many side by side the first ones alone, also where nothing is folded', async () => {
    const some = many.filter(({ rank, parent }) => parent === 'site' || rank < 120).slice(0, 121);
    await open('/desk/site', deskData({ items: [...items, ...(some as unknown as typeof items)] }));
    await screen.findByRole('navigation', NAME);
    expect(entry('Plate 99')).not.toBeNull();
    expect(entry('Plate 100')).toBeNull();
  });

  it('of a small site stands open', async () => {
    await open('/desk/site');
    await screen.findByRole('navigation', NAME);
    expect(entry('Charts')).not.toBeNull();
  });
});

it('a made-up visitor is in a course through a group for as long as they are in it', async () => {
  const standIn = { kind: 'made up', madeUp: { id: '1', name: 'A pupil', facts: member() } } as const;
  const course = asId<ItemId>('induction');
  const byGroup = [[crew, [{ course, since: '2026-01-05', days: null }]]] as const;
  await open('/desk?stand-in=made%20up%3A1', deskData({ standIns: [standIn], byGroup }));
  const panel = await screen.findByRole('heading', { name: 'A pupil' });
  expect(panel).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Dome crew' }));
  expect(await screen.findByText(/through Dome crew, since 5 January 2026/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Dome crew' }));
  await waitFor(() => expect(screen.queryByText(/through Dome crew/)).toBeNull());
});

it('says that it is working out what is certain, and stops at a click', async () => {
  vi.stubGlobal('cancelIdleCallback', () => undefined);
  await open('/desk/findings');
  fireEvent.click(await screen.findByRole('button', { name: 'Stop' }));
  expect(screen.getByText(/^Stopped\./)).not.toBeNull();
  expect(screen.queryByText('Working it out …')).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Work it out' }));
  expect(screen.getByText('Working it out …')).not.toBeNull();
});
