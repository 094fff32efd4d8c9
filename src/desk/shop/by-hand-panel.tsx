'use client';
/** Selling or giving something where no till takes the money: to whom, what, for how much, and what it opens, said first. */
import { useState } from 'react';
import {
  dayInWords,
  listed,
  type Member,
  moneyInWords,
  nameOfId,
  type ProductId,
  plainAmount,
  readAmount,
} from '@/core';
import type { ByHandPreview, SoldByHand } from '@/services';
import { Button, Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { MemberInput } from '../member-input';
import { Panel } from '../panel';
import { Field } from '../people';
import { ask } from '../service';
import { useAnswer } from '../use-answer';
import { Titles } from './titles';

const NONE = '';

interface PanelProps {
  /** What is looked at in the list, if anything. */
  readonly product: string;
  readonly onClose: () => void;
  readonly onDone: (order: string) => void;
}

export function ByHandPanel({ product: looked, onClose, onDone }: PanelProps) {
  const { vocabulary } = useDesk();
  const [member, setMember] = useState<Member | null>(null);
  const [product, setProduct] = useState(looked);
  const [until, setUntil] = useState(NONE);
  return (
    <Panel
      title="Sell or give by hand"
      note="For what was paid in cash, by transfer, or not at all. It counts like what the till sells: it gives the same, stands in the sales, and ends exactly."
      onClose={onClose}
      closes="Back to the sales"
    >
      <div className="grid gap-5">
        <Field label="To whom" problem={undefined}>
          <MemberInput
            trigger={member ? `${member.name}, ${member.facts.email ?? ''}` : 'Choose a member'}
            onChoose={setMember}
          />
        </Field>
        <Field label="What" problem={undefined}>
          <Pick
            label="What"
            value={product}
            options={[
              { value: NONE, label: 'Choose a product …' },
              ...vocabulary.products.map(({ id, name }) => ({ value: id as string, label: name })),
            ]}
            onPick={setProduct}
          />
        </Field>
        <Field label="Its last day" note="left empty, for good" problem={undefined}>
          <Input
            label="Its last day"
            type="date"
            value={until}
            onChange={({ target }) => setUntil(target.value)}
          />
        </Field>
        {member !== null && product !== NONE && (
          <Sale
            key={product}
            member={member}
            product={product as ProductId}
            until={until || null}
            onUntil={(day) => setUntil(day ?? NONE)}
            onDone={onDone}
          />
        )}
      </div>
    </Panel>
  );
}

interface SaleProps {
  readonly member: Member;
  readonly product: ProductId;
  readonly until: string | null;
  readonly onUntil: (day: string | null) => void;
  readonly onDone: (order: string) => void;
}

function Sale({ member, product, until, onUntil, onDone }: SaleProps) {
  const { vocabulary } = useDesk();
  const answer = useAnswer<ByHandPreview>('sales/by-hand?preview', { person: member.id, product, until });
  const [typed, setTyped] = useState('');
  const [chosenCurrency, setCurrency] = useState<string | null>(null);
  const [sending, setSending] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  // Sent twice, it sells once.
  const [key] = useState(() => crypto.randomUUID());
  if (!answer) return <p className="note">Looking what that would open …</p>;
  if (!answer.ok)
    return (
      <p role="alert" className="text-alarm">
        {answer.title}
      </p>
    );
  const { usual, against } = answer.value;
  const currency = chosenCurrency ?? usual?.currency ?? 'EUR';
  const amount = typed.trim() === '' ? 0 : readAmount(typed.trim(), currency);
  const name = nameOfId(vocabulary, 'product', product) ?? '';
  const wrong = problem ?? (typeof amount === 'number' ? undefined : amount.problem);
  const sell = async () => {
    setSending(true);
    const done = await ask<Extract<SoldByHand, { kind: 'done' }>>('POST', 'sales/by-hand', {
      person: member.id,
      product,
      until,
      paid: typed,
      currency,
      key,
    });
    setSending(false);
    setProblem(done.ok ? null : done.title);
    if (done.ok) onDone(done.value.order);
  };
  return (
    <>
      <Field label="What was paid" note="left empty, it is a gift" problem={wrong}>
        <span className="flex flex-wrap items-center gap-2">
          <Input
            label="What was paid"
            inputMode="decimal"
            className="w-24"
            value={typed}
            aria-invalid={wrong !== undefined || undefined}
            onChange={({ target }) => {
              setTyped(target.value);
              setProblem(null);
            }}
          />
          <Input
            label="Currency"
            className="w-14 uppercase"
            maxLength={3}
            value={currency}
            onChange={({ target }) => setCurrency(target.value.toUpperCase())}
          />
          {usual && usual.amount > 0 && typed === '' && (
            <Button
              onClick={() => {
                setTyped(plainAmount(usual));
                setCurrency(usual.currency);
                onUntil(usual.until);
              }}
            >
              As in the shop: {moneyInWords(usual)}
              {usual.until !== null && ` until ${dayInWords(usual.until)}`}
            </Button>
          )}
        </span>
      </Field>
      <Would preview={answer.value} />
      <p>
        <Button
          weight="main"
          disabled={sending || against !== null || typeof amount !== 'number'}
          onClick={() => void sell()}
        >
          {amount === 0 || typeof amount !== 'number'
            ? `Give ${name} to ${member.name}`
            : `Sell ${name} to ${member.name} for ${moneyInWords({ amount, currency })}`}
        </Button>
      </p>
    </>
  );
}

/** What it would do to them, or why it can't be. */
function Would({ preview }: { readonly preview: ByHandPreview }) {
  const { data } = useDesk();
  const { against, from, gets, opens, closes, seats } = preview;
  const later = from > data.request.today;
  if (against !== null)
    return (
      <p role="alert" className="border-alarm border-l-3 pl-4 text-alarm">
        {against}
      </p>
    );
  return (
    <section
      aria-label="What this would do"
      data-testid="if-given"
      className="grid gap-1 border-copper border-l-3 pl-4"
    >
      {gets.length > 0 && <p>They get {listed(gets)}.</p>}
      {later && <p>They have it already. This goes on from there, from {dayInWords(from)}.</p>}
      {!later && opens.length + closes.length === 0 && <p>Nothing opens, and nothing closes.</p>}
      <Titles verb="Opens" items={opens} className="text-open" />
      <Titles verb="Closes" items={closes} className="text-alarm" />
      {seats && (
        <p>
          {seats.taken} of {seats.all} seats are taken or held; this takes one more.
        </p>
      )}
    </section>
  );
}
