/** Every service of the desk, asked by every right: what one's right does not reach to is refused, and nothing is done. */
import { readdirSync, readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  asId,
  DESK_RIGHTS,
  type DeskGrant,
  type DeskRight,
  english,
  everyone,
  type GateId,
  type ItemId,
  type PersonId,
  type Policy,
  WHOLE_SITE,
} from '@/core';
import * as services from '..';
import { type Administrator, NotAllowed, type Trivet } from '..';
import { requireGatePermission } from '../policy/gate-reach';
import { gretaAt, now, openLarkfell } from '../testing';
import { recordOf } from './person';

let trivet: Trivet;
let greta: Administrator;

beforeAll(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterAll(() => trivet.close());

const id = asId<ItemId>;
const as = (right: DeskRight, branch: string | null = null): Administrator =>
  Object.assign(Object.create(Object.getPrototypeOf(greta)), {
    ...greta,
    desk: { right, branch: branch === null ? null : id(branch) } satisfies DeskGrant,
  });

/** Whether a call was refused for want of a right. Whatever else it comes to does not matter here. */
async function refused(call: () => unknown): Promise<boolean> {
  try {
    await call();
    return false;
  } catch (error) {
    if (error instanceof NotAllowed) return true;
    throw error;
  }
}

const LOOKING: readonly DeskRight[] = ['owner', 'gatekeeper', 'writer', 'reader'];
const GATES: readonly DeskRight[] = ['owner', 'gatekeeper'];
const CONTENT: readonly DeskRight[] = ['owner', 'writer'];
const LEARNERS: readonly DeskRight[] = ['owner', 'gatekeeper', 'tutor'];
const OWNING: readonly DeskRight[] = ['owner'];
const PEOPLE = GATES;
const nothing = { kind: 'none' };
const following = { onProgress: () => undefined, signal: new AbortController().signal };
const page = 'visit';
const { ended } = english.letters;

/** Every service, with input that does nothing, and the rights that reach to it. */
const SERVICES: Readonly<Record<string, readonly [readonly DeskRight[], (who: Administrator) => unknown]>> = {
  audienceReport: [LOOKING, (who) => services.audienceReport(trivet, who, null, now)],
  boardSets: [LOOKING, (who) => services.boardSets(trivet, who)],
  byHandPreview: [PEOPLE, (who) => services.byHandPreview(trivet, who, nothing, now)],
  bringBack: [CONTENT, (who) => services.bringBack(trivet, who, 'none')],
  changeItem: [
    CONTENT,
    (who) => services.changeItem(trivet, who, { kind: 'rename', item: 'none', title: 'x' }, now),
  ],
  changePeople: [GATES, (who) => services.changePeople(trivet, who, nothing, false, now)],
  coursesTaught: [LEARNERS, (who) => services.coursesTaught(trivet, who)],
  courseProgress: [LEARNERS, (who) => services.courseProgress(trivet, who, 'none', null, now)],
  draftedItems: [LOOKING, (who) => services.draftedItems(trivet, who)],
  dropBoardSet: [LOOKING, (who) => services.dropBoardSet(trivet, who, 'none')],
  dropWriting: [CONTENT, (who) => services.dropWriting(trivet, who, page)],
  editNames: [GATES, (who) => services.editNames(trivet, who, nothing, false, now)],
  editSettings: [OWNING, (who) => services.editSettings(trivet, who, nothing, now)],
  endOrder: [OWNING, (who) => services.endOrder(trivet, null, who, nothing, now)],
  handbook: [LOOKING, (who) => services.handbook(trivet, who)],
  handbookPicture: [LOOKING, (who) => services.handbookPicture(trivet, who, 'none')],
  handOverArea: [OWNING, (who) => services.handOverArea(trivet, who, nothing, now)],
  listAreas: [PEOPLE, (who) => services.listAreas(trivet, who, now)],
  makeAreas: [OWNING, (who) => services.makeAreas(trivet, who, nothing, now)],
  renameArea: [OWNING, (who) => services.renameArea(trivet, who, nothing, now)],
  latestTakings: [OWNING, (who) => services.latestTakings(trivet, who)],
  sendFolder: [OWNING, (who) => services.sendFolder(trivet, who, null, 'none')],
  takeBackIn: [OWNING, (who) => services.takeBackIn(trivet, who, 'none', now)],
  takeIn: [OWNING, (who) => services.takeIn(trivet, who, nothing, now, following)],
  takeAreaStepBack: [OWNING, (who) => services.takeAreaStepBack(trivet, who, 'none', now)],
  takeAreasAway: [OWNING, (who) => services.takeAreasAway(trivet, who, nothing, now)],
  leaveToPurchases: [PEOPLE, (who) => services.leaveToPurchases(trivet, who, nothing, now)],
  moveClock: [OWNING, (who) => services.moveClock(trivet, null, who, nothing, now)],
  orderReport: [PEOPLE, (who) => services.orderReport(trivet, null, who, 'none', now)],
  refundOrder: [OWNING, (who) => services.refundOrder(trivet, null, who, nothing, now)],
  salesPage: [PEOPLE, (who) => services.salesPage(trivet, who, nothing, now)],
  saveTerms: [OWNING, (who) => services.saveTerms(trivet, who, nothing, false, now)],
  seatsOf: [PEOPLE, (who) => services.seatsOf(trivet, who, 'none')],
  sellByHand: [PEOPLE, (who) => services.sellByHand(trivet, who, nothing, now)],
  saveVoucher: [OWNING, (who) => services.saveVoucher(trivet, who, nothing)],
  shopAtDesk: [PEOPLE, (who) => services.shopAtDesk(trivet, who, now)],
  effectOfDraft: [LOOKING, (who) => services.effectOfDraft(trivet, who, nothing, now)],
  enrolLearners: [LEARNERS, (who) => services.enrolLearners(trivet, who, nothing, false, now)],
  exportSeats: [PEOPLE, (who) => services.exportSeats(trivet, who, 'none')],
  exportSales: [PEOPLE, (who) => services.exportSales(trivet, who, now)],
  exportProgress: [LEARNERS, (who) => services.exportProgress(trivet, who, 'none', null, now)],
  exportSite: [OWNING, (who) => services.exportSite(trivet, who, 'nobody')],
  exportPeople: [
    GATES,
    (who) => services.exportPeople(trivet, who, { text: 'x', condition: '' }, false, now),
  ],
  findMembers: [LOOKING, (who) => services.findMembers(trivet, who, 'x')],
  findPeople: [LOOKING, (who) => services.findPeople(trivet, who, nothing, now)],
  importPeople: [GATES, (who) => services.importPeople(trivet, who, '', true, now)],
  latestChanges: [LOOKING, (who) => services.latestChanges(trivet, who)],
  itemReach: [LOOKING, (who) => services.itemReach(trivet, who, page, 'live', now)],
  journalReport: [LOOKING, (who) => services.journalReport(trivet, who, 7, now)],
  keepBoard: [LOOKING, (who) => services.keepBoard(trivet, who, nothing)],
  keepBoardSet: [LOOKING, (who) => services.keepBoardSet(trivet, who, nothing)],
  invitePeople: [PEOPLE, (who) => services.invitePeople(trivet, who, { ids: ['marek'] }, true, now)],
  unanswered: [PEOPLE, (who) => services.unanswered(trivet, who, now)],
  latestMail: [OWNING, (who) => services.latestMail(trivet, who)],
  openLetters: [OWNING, (who) => services.openLetters(trivet, who)],
  keepLetter: [
    OWNING,
    (who) => services.keepLetter(trivet, who, { kind: 'ended', letter: null, was: ended }),
  ],
  sendSampleLetter: [
    OWNING,
    (who) => services.sendSampleLetter(trivet, who, { kind: 'ended', letter: ended }, now),
  ],
  sendFromOutbox: [OWNING, (who) => services.sendFromOutbox(trivet, who, { kind: 'try' }, now)],
  latestRemovals: [LOOKING, (who) => services.latestRemovals(trivet, who)],
  learnerReport: [
    LEARNERS,
    (who) => services.learnerReport(trivet, who, { course: 'none', person: 'none', day: null }, now),
  ],
  endEnrolment: [LEARNERS, (who) => services.endEnrolment(trivet, who, nothing, now)],
  handInsWaiting: [LEARNERS, (who) => services.handInsWaiting(trivet, who, 'gone')],
  handedFileFor: [LEARNERS, (who) => services.handedFileFor(trivet, who, 'gone', 'gone')],
  judge: [LEARNERS, (who) => services.judge(trivet, who, nothing, now)],
  exportQuiz: [CONTENT, (who) => services.exportQuiz(trivet, who, 'gone')],
  readQuizPackage: [CONTENT, (who) => services.readQuizPackage(trivet, who, 'gone', new Uint8Array())],
  markDone: [LEARNERS, (who) => services.markDone(trivet, who, nothing, now)],
  memberWithId: [LOOKING, (who) => services.memberWithId(trivet, who, 'x')],
  namesReport: [LOOKING, (who) => services.namesReport(trivet, who)],
  openSettings: [OWNING, (who) => services.openSettings(trivet, who)],
  pastChanges: [LOOKING, (who) => services.pastChanges(trivet, who, {})],
  personReport: [LOOKING, (who) => services.personReport(trivet, who, 'none', now)],
  previewRemoval: [LOOKING, (who) => services.previewRemoval(trivet, who, 'none')],
  previewWriting: [LOOKING, (who) => services.previewWriting(trivet, who, page, nothing, now)],
  findingsSetAside: [LOOKING, (who) => services.findingsSetAside(trivet, who)],
  setFindingAside: [GATES, (who) => services.setFindingAside(trivet, who, nothing, now)],
  whomItConcerns: [LOOKING, (who) => services.whomItConcerns(trivet, who, nothing, now)],
  kindsReport: [LOOKING, (who) => services.kindsReport(trivet, who, { policy: nothing, person: null }, now)],
  siteAhead: [LOOKING, (who) => services.siteAhead(trivet, who, {}, now)],
  effectsBetween: [LOOKING, (who) => services.effectsBetween(trivet, who, nothing, now)],
  foundToday: [LOOKING, (who) => services.foundToday(trivet, who, nothing, now)],
  putLive: [GATES, (who) => services.putLive(trivet, who, nothing, now)],
  readDesk: [LOOKING, (who) => services.readDesk(trivet, who, now)],
  readWriting: [LOOKING, (who) => services.readWriting(trivet, who, page)],
  replaceSite: [OWNING, (who) => services.replaceSite(trivet, who, { file: {}, basis: null }, now)],
  revisionAt: [LOOKING, (who) => services.revisionAt(trivet, who, 1)],
  revisionsOf: [LOOKING, (who) => services.revisionsOf(trivet, who, null)],
  saveDraft: [GATES, (who) => services.saveDraft(trivet, who, nothing)],
  savePerson: [GATES, (who) => services.savePerson(trivet, who, asId<PersonId>('none'), nothing, now)],
  saveWriting: [CONTENT, (who) => services.saveWriting(trivet, who, page, nothing, now)],
  sendWriting: [CONTENT, (who) => services.sendWriting(trivet, who, page, nothing)],
  siteOverview: [LOOKING, (who) => services.siteOverview(trivet, who, now)],
  startWalk: [LOOKING, (who) => services.startWalk(trivet, who, nothing, now)],
  undoChange: [GATES, (who) => services.undoChange(trivet, who, 'none')],
  walkReport: [LOOKING, (who) => services.walkReport(trivet, who, 'none', '/', now)],
  uploadFile: [CONTENT, (who) => services.uploadFile(trivet, who, nothing, new Uint8Array(), now)],
  whoPasses: [LOOKING, (who) => services.whoPasses(trivet, who, nothing, now)],
};

describe.each(Object.entries(SERVICES))('%s', (_, [allowed, call]) => {
  it.each(DESK_RIGHTS)('as %s', async (right) => {
    expect(await refused(() => call(as(right)))).toBe(!allowed.includes(right));
  });
});

/** Functions that take an administrator, by file. */
function takingAdministrators(): readonly { readonly name: string; readonly body: string }[] {
  const files = readdirSync('src/services', { recursive: true, encoding: 'utf8' }).filter(
    (file) => file.endsWith('.ts') && !file.endsWith('.test.ts') && file !== 'running/desk-right.ts',
  );
  return files.flatMap((file) => {
    const text = readFileSync(`src/services/${file}`, 'utf8');
    return text
      .split(/\n(?=export (?:async )?(?:function|const))/)
      .filter((part) => /^export [^{]*?administrator: Administrator\b/s.test(part))
      .map((body) => ({ name: /(?:function|const) (\w+)/.exec(body)?.[1] ?? file, body }));
  });
}

it('is asked for by every service that takes an administrator', () => {
  const taking = takingAdministrators();
  expect(taking.length).toBeGreaterThan(25);
  // A walk answers nothing rather than refusing, so that nobody learns that there is one.
  const inner = ['startWithDefaults', 'walkOf'];
  const silent = taking.filter(
    ({ name, body }) => !/\brequire(Gate)?Permission(At)?\(/.test(body) && !inner.includes(name),
  );
  // The leak check is started through a service of its own, which needs a running site.
  expect(silent.map(({ name }) => name)).toEqual([]);
  const untested = taking
    .map(({ name }) => name)
    .filter((name) => !(name in SERVICES) && ![...inner, 'checkLeaks', 'boardOf'].includes(name));
  expect(untested).toEqual([]);
});

describe('a right that is limited to a branch', () => {
  const edited = (
    gate: string,
    change: (gate: Policy['gates'][number]) => Policy['gates'][number],
  ): Policy => ({
    ...trivet.state.draft.policy,
    gates: trivet.state.draft.policy.gates.map((one) => (one.id === gate ? change(one) : one)),
  });
  const save = (who: Administrator, policy: Policy) => () =>
    services.saveDraft(trivet, who, { version: trivet.state.draft.version, policy });
  const opened = (gate: string) => edited(gate, (one) => ({ ...one, who: everyone }));

  it('reaches gates that stay within it, and no others', async () => {
    const keeper = as('gatekeeper', 'crew');
    expect(await refused(save(keeper, opened('trustees')))).toBe(true);
    const wider = edited('crew', (one) => ({
      ...one,
      what: { ...one.what, targets: [...one.what.targets, { kind: 'item', item: id('visit') }] },
    }));
    expect(await refused(save(keeper, wider))).toBe(true);
    expect(await refused(save(keeper, { ...trivet.state.draft.policy, landings: [] }))).toBe(true);
    expect(await refused(save(keeper, { ...trivet.state.draft.policy, audiences: [] }))).toBe(true);
    expect(trivet.state.draft.policy).toEqual(trivet.state.live.policy);
    expect(await refused(save(keeper, opened('crew')))).toBe(false);
    expect(trivet.state.draft.policy).toEqual(opened('crew'));
  });

  it('does not reach what can’t be shown to be within it', async () => {
    const keeper = as('gatekeeper', 'crew');
    const { draft, live } = trivet.state;
    const change = (before: Policy, after: Policy) => () =>
      requireGatePermission(keeper, trivet.state, before, after);
    const gate = draft.policy.gates.find((one) => one.id === 'crew');
    if (!gate) throw new Error('no gate');
    const over = (item: string, gateId = 'mine') => ({
      ...gate,
      id: asId<GateId>(gateId),
      what: { targets: [{ kind: 'item' as const, item: id(item) }], except: [] },
    });
    const withGates = (...more: (typeof gate)[]) => ({
      ...live.policy,
      gates: [...live.policy.gates, ...more],
    });
    expect(await refused(change(live.policy, withGates(over('rota'))))).toBe(false);
    // Over what was taken away just now, and may have been anywhere.
    expect(await refused(change(withGates(over('taken-away')), live.policy))).toBe(true);
    // Under the id by which the whole site is behind sign-in, or by which new items get their gates.
    expect(await refused(change(live.policy, withGates(over('rota', WHOLE_SITE))))).toBe(true);
    const standard = { kind: 'post', category: null, gate: asId<GateId>('mine') } as const;
    const defaults = (policy: Policy) => ({ ...policy, defaults: [...policy.defaults, standard] });
    expect(await refused(change(defaults(withGates(over('rota'))), defaults(live.policy)))).toBe(true);
    expect(await refused(change(defaults(live.policy), defaults(withGates(over('rota')))))).toBe(true);
  });

  it('puts nothing live that somebody else changed elsewhere', async () => {
    const keeper = as('gatekeeper', 'crew');
    await save(greta, opened('trustees'))();
    const put = () =>
      services.putLive(
        trivet,
        keeper,
        { version: trivet.state.draft.version, revision: trivet.state.live.revision },
        now,
      );
    expect(await refused(put)).toBe(true);
    await save(greta, trivet.state.live.policy)();
  });

  it('does not reach people, who belong to the whole site', async () => {
    expect(
      await refused(() => services.changePeople(trivet, as('gatekeeper', 'crew'), nothing, false, now)),
    ).toBe(true);
  });

  it('reaches the content below it alone', async () => {
    const writer = as('writer', 'crew');
    const edit = (input: unknown) => () => services.changeItem(trivet, writer, input, now);
    expect(await refused(edit({ kind: 'rename', item: 'visit', title: 'Mine' }))).toBe(true);
    expect(await refused(edit({ kind: 'new page', parent: 'visit', title: 'Mine' }))).toBe(true);
    expect(
      await refused(edit({ kind: 'move', moves: [{ item: 'rota', parent: 'visit', before: null }] })),
    ).toBe(true);
    expect(await refused(edit({ kind: 'new post', title: 'Mine', category: null }))).toBe(true);
    expect(await refused(edit({ kind: 'rename', item: 'rota', title: 'The rota' }))).toBe(false);
    expect(await refused(() => services.saveWriting(trivet, writer, 'visit', nothing, now))).toBe(true);
    expect(await refused(() => services.sendWriting(trivet, writer, 'rota', nothing))).toBe(false);
    expect(trivet.state.outline.items.get(id('visit'))?.title).toBe('Visit us');
  });
});

describe('who may use the desk', () => {
  const record = (name: string) => {
    const found = trivet.state.people.get(asId<PersonId>(name));
    return found && recordOf(found);
  };
  const saved = async (who: Administrator, name: string, change: object) => {
    const before = record(name);
    if (!before) throw new Error(`no ${name}`);
    const { id: _, ...person } = { ...before, ...change };
    return services.savePerson(trivet, who, asId<PersonId>(name), { based: before, person }, now);
  };

  it('is said by owners alone', async () => {
    const promoted = { desk: { right: 'owner', branch: null } };
    expect(await refused(() => saved(as('gatekeeper'), 'marek', promoted))).toBe(true);
    expect(await refused(() => saved(as('gatekeeper'), 'greta', { email: 'mine@larkfell.example' }))).toBe(
      true,
    );
    expect(record('marek')?.desk).toBeNull();
    expect(await saved(greta, 'priya', { desk: { right: 'writer', branch: 'crew' } })).toMatchObject({
      kind: 'saved',
    });
    expect(record('priya')?.desk).toEqual({ right: 'writer', branch: 'crew' });
  });

  it('is given back by nobody but owners when a change is taken back', async () => {
    const promoted = await saved(greta, 'priya', { desk: { right: 'reader', branch: null } });
    if (promoted.kind !== 'saved' || promoted.change === null) throw new Error('not saved');
    const right = record('priya')?.desk;
    expect(await refused(() => services.undoChange(trivet, as('gatekeeper'), promoted.change))).toBe(true);
    expect(record('priya')?.desk).toEqual(right);
    expect(await services.undoChange(trivet, greta, promoted.change)).toMatchObject({ kind: 'changed' });
    expect(record('priya')?.desk).not.toEqual(right);
  });

  it('never comes to nobody', async () => {
    // Somebody who is an owner by a session of before, and looks at the last owner there is.
    const other = Object.assign(as('owner'), { id: asId('priya') });
    expect(await saved(other, 'greta', { desk: null })).toMatchObject({
      kind: 'wrong',
      message: expect.stringContaining('Nobody would be left'),
    });
  });

  it('limits an owner to nothing less than the site', async () => {
    expect(await saved(greta, 'odile', { desk: { right: 'owner', branch: 'crew' } })).toMatchObject({
      kind: 'problems',
      problems: { desk: expect.stringContaining('whole site') },
    });
  });
});
