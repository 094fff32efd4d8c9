/** Larkfell’s shop for the tests of a file: opened anew for each, with what buyers, the till and the desk do there. */
import { afterAll, beforeEach } from 'vitest';
import { asId, decide, type ItemId, type Notice } from '@/core';
import { readOrdersOf } from '@/store';
import {
  type Administrator,
  latestMail,
  plainRequest,
  setOut,
  type Trivet,
  type Visitor,
  viewOf,
  visitorOf,
} from '..';
import { gretaAt, later, now, openLarkfell, signedInAt } from '../testing';
import { type TestTill, testTill } from '../testing-till';
import { takeNotices } from './take-notice';

export const days = (count: number): Date => later(count * 24 * 60);
export const nell = {
  price: 'observer-month',
  name: 'Nell Arden',
  email: 'nell@arden.example',
  next: '/tonight',
};
export const marek = 'marek@larkfell.example';

export function atTheShop() {
  const shop = {} as { trivet: Trivet; greta: Administrator; till: TestTill };
  beforeEach(async () => {
    await shop.trivet?.close();
    shop.trivet = await openLarkfell();
    shop.greta = await gretaAt(shop.trivet);
    shop.till = testTill();
  });
  afterAll(() => shop.trivet.close());

  const contextFor = (visitor: Visitor, at = now) =>
    viewOf({
      state: shop.trivet.state,
      compiled: shop.trivet.state.live.compiled,
      facts: visitor.facts,
      person: visitor.person,
      request: plainRequest(shop.trivet.state, at),
      base: '',
    });
  const member = async (name: string): Promise<Visitor> => (await signedInAt(shop.trivet, name)).visitor;
  const guestVisitor = async (): Promise<Visitor> => visitorOf(shop.trivet, undefined, now);

  let networks = 0;
  const buy = (visitor: Visitor, product: string, fields: Record<string, unknown>, at = now) =>
    setOut(
      shop.trivet,
      shop.till,
      { visitor, context: contextFor(visitor, at), from: `10.1.0.${networks++}` },
      product,
      fields,
      at,
    );
  const payPageOf = (answer: Awaited<ReturnType<typeof buy>>): string => {
    if (answer.kind !== 'on the way') throw new Error(JSON.stringify(answer));
    return answer.to;
  };
  /** Hands over everything that the till has told. */
  const deliver = async (at: Date, list: readonly Notice[] = shop.till.told(at)) => {
    for (const notice of list) await takeNotices(shop.trivet, [notice], at);
  };
  const personAt = (email: string) =>
    [...shop.trivet.state.people.values()].find((one) => one.email === email);
  const opens = (email: string, item: string, at = now): boolean => {
    const { state } = shop.trivet;
    const person = personAt(email);
    return (
      person !== undefined &&
      decide(state.live.compiled, asId<ItemId>(item), person.facts, plainRequest(state, at)).kind === 'open'
    );
  };
  const lettersTo = async (to: string) =>
    (await latestMail(shop.trivet, shop.greta)).letters
      .filter((one) => one.to === to)
      .map(({ subject }) => subject);
  /** The latest order of whoever has the mailbox. */
  const only = async (email: string) => {
    const person = personAt(email);
    const [order] = person ? await readOrdersOf(shop.trivet.db, person.id) : [];
    if (!order) throw new Error('There is no such order.');
    return order;
  };
  return { shop, contextFor, member, guestVisitor, buy, payPageOf, deliver, opens, lettersTo, only };
}
