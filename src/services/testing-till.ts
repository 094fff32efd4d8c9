/** The stand-in till without a network, for the tests of services: what it would tell is handed over when a test says so. */
import type { Notice } from '@/core';
import {
  accountAt,
  type Card,
  cancelled,
  change,
  declined,
  disputed,
  emptyLedger,
  type Ledger,
  ledgerAt,
  opened,
  paid,
  refunded,
  withCard,
} from '../../till/ledger';
import { checkSignature, type Till, TillTrouble } from './till';

/** What it signs with: the second as before. */
export const TEST_KEYS = [1, 2].map((byte) => `whsec_${Buffer.alloc(32, byte).toString('base64')}`);

const ORIGIN = 'https://till.example';

export interface TestTill extends Till {
  /** Whether it answers at all. */
  down: boolean;
  /** What the buyer does on the page that they were led to. */
  pay(payPage: string, now: Date, card?: Card): void;
  decline(payPage: string, now: Date): void;
  leaveCard(reference: string, card: Card, now: Date): void;
  dispute(reference: string, outcome: 'open' | 'won' | 'lost', now: Date): void;
  /** What it has told of everything, and what it would tell until a moment. */
  told(now: Date): readonly Notice[];
}

export const referenceIn = (payPage: string): string => payPage.split('/').at(-1) ?? '';

export function testTill(standIn = true): TestTill {
  let ledger: Ledger = emptyLedger;
  const update = (reference: string, how: Parameters<typeof change>[2], now: Date) => {
    ledger = change(ledgerAt(ledger, now.getTime()), reference, how);
  };
  const till: TestTill = {
    standIn,
    origin: ORIGIN,
    down: false,
    check: (header, body, now) => checkSignature(TEST_KEYS, header, body, now),
    meet: async () => undefined,
    async open(order) {
      if (till.down) throw new TillTrouble('down');
      const made = opened(ledger, order);
      ledger = made.ledger;
      const { reference } = made.account;
      return { reference, payPage: `${ORIGIN}/pay/${reference}` };
    },
    async notices(reference, now) {
      if (till.down) throw new TillTrouble('down');
      ledger = ledgerAt(ledger, now.getTime());
      return accountAt(ledger, reference)?.notices ?? [];
    },
    async refund(reference, what, now) {
      if (till.down) throw new TillTrouble('down');
      update(reference, (account) => refunded(account, what, now.getTime()), now);
    },
    async cancel(reference, when, now) {
      if (till.down) throw new TillTrouble('down');
      update(reference, (account) => cancelled(account, when, now.getTime()), now);
    },
    card: async (reference) => `${ORIGIN}/card/${reference}`,
    async moveOn(to) {
      ledger = ledgerAt(ledger, to.getTime());
    },
    pay: (payPage, now, card = 'good') =>
      update(referenceIn(payPage), (account) => paid(account, card, now.getTime()), now),
    decline: (payPage, now) =>
      update(referenceIn(payPage), (account) => declined(account, now.getTime()), now),
    leaveCard: (reference, card, now) =>
      update(reference, (account) => withCard(account, card, now.getTime()), now),
    dispute: (reference, outcome, now) =>
      update(reference, (account) => disputed(account, outcome, now.getTime()), now),
    told(now) {
      ledger = ledgerAt(ledger, now.getTime());
      return ledger.accounts.flatMap(({ notices }) => notices);
    },
  };
  return till;
}
