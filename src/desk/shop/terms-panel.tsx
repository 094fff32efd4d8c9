'use client';
/** What one product costs and gives, to be changed; and what that would do to those who have it, before it is done. */
import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import {
  asId,
  counted,
  everyone,
  type ItemId,
  type LevelId,
  nameOfId,
  type Price,
  type PriceId,
  type ProductTerms,
  permits,
  plainAmount,
  readAmount,
  same,
} from '@/core';
import type { ProductAtDesk, TermsAnswer, TermsPreview } from '@/services';
import { Button, Input, Pick } from '@/ui';
import { WhoEditor } from '../condition';
import { useDesk } from '../context';
import { FoundList } from '../findings';
import { Panel } from '../panel';
import { Field, Toggles } from '../people';
import { ask } from '../service';
import { useAnswer } from '../use-answer';

interface PanelProps {
  readonly product: ProductAtDesk;
  readonly onClose: () => void;
  readonly onSaved: () => void;
}

/** A price as it is typed. */
interface PriceDraft extends Omit<Price, 'amount'> {
  readonly typed: string;
}

type Problems = readonly { readonly at: string; readonly message: string }[];

const NONE = '';

export function TermsPanel({ product, onClose, onSaved }: PanelProps) {
  const { vocabulary, outline, data } = useDesk();
  const [terms, setTerms] = useState(product.terms);
  const [prices, setPrices] = useState<readonly PriceDraft[]>(() => product.terms.prices.map(asTyped));
  const [problems, setProblems] = useState<Problems>([]);
  const [saving, setSaving] = useState(false);
  const [theirs, setTheirs] = useState<Extract<TermsAnswer, { kind: 'stale' }> | null>(null);
  const [version, setVersion] = useState(product.version);
  const name = nameOfId(vocabulary, 'product', product.product) ?? '';
  const kind = vocabulary.products.find(({ id }) => id === product.product)?.kind ?? 'one-off';
  const read = prices.map((price) => ({ price, amount: readAmount(price.typed, price.currency) }));
  const typedWrong: Problems = read.flatMap(({ price, amount }) =>
    typeof amount === 'number' ? [] : [{ at: `prices ${price.id}`, message: amount.problem }],
  );
  const whole: ProductTerms = {
    ...terms,
    prices: read.flatMap(({ price: { typed: _, ...price }, amount }) =>
      typeof amount === 'number' ? [{ ...price, amount }] : [],
    ),
  };
  const changed = !same(whole, product.terms) || typedWrong.length > 0;
  const given = !same(whole.grants, product.terms.grants);
  const put = (change: Partial<ProductTerms>) => setTerms({ ...terms, ...change });
  const grant = (change: Partial<ProductTerms['grants']>) => put({ grants: { ...terms.grants, ...change } });
  const problem = (at: string) => [...typedWrong, ...problems].find((one) => one.at === at)?.message;
  const save = async (over = version) => {
    if (typedWrong.length > 0) return;
    setSaving(true);
    const answer = await ask<TermsAnswer>('PUT', 'shop/terms', {
      product: product.product,
      version: over,
      terms: whole,
    });
    setSaving(false);
    if (answer.ok) {
      setProblems([]);
      setTheirs(null);
      onSaved();
    } else if (answer.status === 409)
      setTheirs(answer.body as unknown as Extract<TermsAnswer, { kind: 'stale' }>);
    else
      setProblems((answer.body.problems as Problems | undefined) ?? [{ at: 'terms', message: answer.title }]);
  };
  const may = permits(data.desk, 'everything');
  return (
    <Panel
      title={name}
      note={`A ${kind === 'one-off' ? 'thing bought once' : kind}.`}
      onClose={onClose}
      closes="Back to the shop"
      actions={
        may && (
          <Button
            weight="main"
            disabled={!changed || saving || typedWrong.length > 0}
            onClick={() => void save()}
          >
            <FoundList about={(finding) => 'product' in finding && finding.product === product.product} />
            {saving ? 'Saving …' : 'Save'}
          </Button>
        )
      }
    >
      <fieldset disabled={!may} className="grid gap-5">
        {problem('terms') && (
          <p role="alert" className="text-alarm">
            {problem('terms')}
          </p>
        )}
        {theirs && (
          <div role="alert" className="grid gap-2 border-alarm border-l-3 pl-3">
            <p>Somebody else changed this product meanwhile. Nothing of yours is lost.</p>
            <p className="flex gap-2">
              <Button
                onClick={() => {
                  setVersion(theirs.version);
                  void save(theirs.version);
                }}
              >
                Save mine over it
              </Button>
              <Button onClick={onSaved}>Take theirs</Button>
            </p>
          </div>
        )}
        {given && <WhatItWouldDo product={product} terms={whole} />}
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={terms.sold}
            onChange={({ target }) => put({ sold: target.checked })}
          />
          It can be bought
        </label>
        {!terms.sold && product.terms.sold && product.have > 0 && (
          <p className="note">
            {counted(product.have, 'person keeps', 'people keep')} it, and what it gives; subscriptions go on
            until they are stopped.
          </p>
        )}
        <Field label="What it is, for those who buy" problem={problem('about')}>
          <textarea
            aria-label="What it is, for those who buy"
            rows={2}
            maxLength={2000}
            value={terms.about}
            onChange={({ target }) => put({ about: target.value })}
            className="w-full rounded-[3px] border border-iron bg-raised px-1.5 py-1 leading-5 hover:border-copper"
          />
        </Field>
        <section aria-label="Prices" className="grid gap-3">
          <h3>Prices</h3>
          {prices.map((price) => (
            <PriceEditor
              key={price.id}
              price={price}
              kind={kind}
              problem={problem(`prices ${price.id}`)}
              onChange={(next) => setPrices(prices.map((one) => (one.id === price.id ? next : one)))}
              onRemove={() => setPrices(prices.filter(({ id }) => id !== price.id))}
            />
          ))}
          {problem('prices') && (
            <p role="alert" className="text-alarm">
              {problem('prices')}
            </p>
          )}
          <p>
            <Button onClick={() => setPrices([...prices, newPrice(kind, prices)])}>
              <Plus size={14} aria-hidden="true" /> A price
            </Button>
          </p>
        </section>
        <section aria-label="What it gives" className="grid gap-3">
          <h3>What it gives, for as long as somebody has it</h3>
          {problem('grants') && (
            <p role="alert" className="text-alarm">
              {problem('grants')}
            </p>
          )}
          <Field label="Level" problem={undefined}>
            <Pick
              label="Level"
              value={terms.grants.level ?? NONE}
              options={[
                { value: NONE, label: 'none' },
                ...vocabulary.levels.map(({ id, name: label }) => ({ value: id as string, label })),
              ]}
              onPick={(level) => grant({ level: level === NONE ? null : asId<LevelId>(level) })}
            />
          </Field>
          <Field label="Groups" problem={undefined}>
            <Toggles
              label="Groups"
              all={vocabulary.groups}
              held={terms.grants.groups}
              onChange={(groups) => grant({ groups })}
            />
          </Field>
          <Field label="Roles" problem={undefined}>
            <Toggles
              label="Roles"
              all={vocabulary.roles}
              held={terms.grants.roles}
              onChange={(roles) => grant({ roles })}
            />
          </Field>
          {vocabulary.courses.length > 0 && (
            <Field label="Courses" problem={undefined}>
              <Toggles
                label="Courses"
                all={vocabulary.courses}
                held={terms.grants.enrolments.map(({ course }) => course)}
                onChange={(courses) =>
                  grant({
                    enrolments: courses.map(
                      (course) =>
                        terms.grants.enrolments.find((one) => one.course === course) ?? {
                          course,
                          days: null,
                        },
                    ),
                  })
                }
              />
              {terms.grants.enrolments.map((one) => (
                <span key={one.course} className="flex items-center gap-2">
                  {nameOfId(vocabulary, 'course', one.course)} for
                  <Input
                    label={`Days in ${nameOfId(vocabulary, 'course', one.course)}`}
                    type="number"
                    min={1}
                    max={3650}
                    className="w-20"
                    placeholder="all"
                    value={one.days ?? ''}
                    onChange={({ target }) =>
                      grant({
                        enrolments: terms.grants.enrolments.map((other) =>
                          other.course === one.course
                            ? { ...other, days: target.value === '' ? null : target.valueAsNumber }
                            : other,
                        ),
                      })
                    }
                  />
                  days
                </span>
              ))}
            </Field>
          )}
        </section>
        <Field label="Its page" note="who is turned away there can’t buy it" problem={problem('page')}>
          <Pick
            label="Its page"
            value={(terms.page ?? NONE) as string}
            options={[
              { value: NONE, label: 'none: everybody may buy it' },
              ...[...outline.addressed.values()].flatMap((item) =>
                item.kind === 'page'
                  ? [{ value: item.id as string, label: `${item.title}  ${item.address}` }]
                  : [],
              ),
            ]}
            onPick={(page) => put({ page: page === NONE ? null : asId<ItemId>(page) })}
          />
        </Field>
        {kind === 'ticket' && (
          <Field label="Seats, and the day they are for" problem={problem('seats') ?? problem('day')}>
            <span className="flex items-center gap-2">
              <Input
                label="Seats"
                type="number"
                min={1}
                max={100_000}
                className="w-24"
                placeholder="any number"
                value={terms.seats ?? ''}
                onChange={({ target }) => put({ seats: target.value === '' ? null : target.valueAsNumber })}
              />
              <Input
                label="Day"
                type="date"
                value={terms.day ?? ''}
                onChange={({ target }) => put({ day: target.value || null })}
              />
            </span>
          </Field>
        )}
      </fieldset>
    </Panel>
  );
}

const asTyped = ({ amount, ...price }: Price): PriceDraft => ({
  ...price,
  typed: plainAmount({ amount, currency: price.currency }),
});

const newPrice = (kind: string, others: readonly PriceDraft[]): PriceDraft => ({
  id: crypto.randomUUID() as PriceId,
  typed: '',
  currency: others[0]?.currency ?? 'EUR',
  months: kind === 'subscription' ? 1 : null,
  trialDays: 0,
  from: null,
  until: null,
  who: everyone,
});

interface PriceProps {
  readonly price: PriceDraft;
  readonly kind: string;
  readonly problem: string | undefined;
  readonly onChange: (price: PriceDraft) => void;
  readonly onRemove: () => void;
}

const PERIODS = [1, 3, 6, 12, 24];
const periodName = (months: number): string =>
  months === 1
    ? 'a month'
    : months === 12
      ? 'a year'
      : months % 12 === 0
        ? `${months / 12} years`
        : `${months} months`;

function PriceEditor({ price, kind, problem, onChange, onRemove }: PriceProps) {
  const put = (change: Partial<PriceDraft>) => onChange({ ...price, ...change });
  const days = price.from !== null || price.until !== null;
  return (
    <div className="grid gap-2 border-thin border-t pt-2">
      <div className="flex flex-wrap items-center gap-2">
        <Input
          label="Amount"
          inputMode="decimal"
          className="w-20"
          placeholder="12.00"
          value={price.typed}
          aria-invalid={problem !== undefined || undefined}
          onChange={({ target }) => put({ typed: target.value })}
        />
        <Input
          label="Currency"
          className="w-14 uppercase"
          maxLength={3}
          value={price.currency}
          onChange={({ target }) => put({ currency: target.value.toUpperCase() })}
        />
        {kind === 'subscription' && (
          <>
            <Pick
              label="How often"
              value={String(price.months ?? 1)}
              options={[...new Set([...PERIODS, price.months ?? 1])]
                .toSorted((one, other) => one - other)
                .map((months) => ({ value: String(months), label: periodName(months) }))}
              onPick={(months) => put({ months: Number(months) })}
            />
            <span className="flex items-center gap-1.5">
              <Input
                label="Days of trial"
                type="number"
                min={0}
                max={366}
                className="w-14"
                value={price.trialDays}
                onChange={({ target }) => put({ trialDays: Math.round(target.valueAsNumber || 0) })}
              />
              days free
            </span>
          </>
        )}
        <Button
          weight="quiet"
          size="small"
          aria-label="Take this price out"
          onClick={onRemove}
          className="ml-auto"
        >
          <X size={14} aria-hidden="true" />
        </Button>
      </div>
      {problem && (
        <p role="alert" className="text-alarm">
          {problem}
        </p>
      )}
      <details open={days || !same(price.who, everyone)}>
        <summary className="text-quiet">For whom, and when</summary>
        <div className="mt-2 grid gap-3 pl-3">
          <span className="flex items-center gap-2">
            from
            <Input
              label="From"
              type="date"
              value={price.from ?? ''}
              onChange={({ target }) => put({ from: target.value || null })}
            />
            until
            <Input
              label="Until"
              type="date"
              value={price.until ?? ''}
              onChange={({ target }) => put({ until: target.value || null })}
            />
          </span>
          <WhoEditor who={price.who} onChange={(who) => put({ who })} />
        </div>
      </details>
    </div>
  );
}

/** What another choice of what it gives would do, over everybody who has it. */
function WhatItWouldDo({
  product,
  terms,
}: {
  readonly product: ProductAtDesk;
  readonly terms: ProductTerms;
}) {
  const answer = useAnswer<{ readonly preview: TermsPreview }>('shop/terms', {
    product: product.product,
    version: product.version,
    terms,
  });
  if (!answer?.ok) return <p className="note">Looking what that would do …</p>;
  const { have, opens, closes } = answer.value.preview;
  return (
    <section aria-label="What this would change" className="grid gap-1 border-copper border-l-3 pl-3">
      <h3>What this would change</h3>
      {have === 0 ? (
        <p>Nobody has it today, so nothing opens and nothing closes.</p>
      ) : opens.length + closes.length === 0 ? (
        <p>Nothing opens and nothing closes to the {counted(have, 'person', 'people')} who have it.</p>
      ) : (
        <ul>
          {closes.map((one) => (
            <li key={one.id} className="text-alarm">
              Closes {one.title} to {one.first}
              {one.people > 1 && ` and ${counted(one.people - 1, 'other', 'others')}`}
            </li>
          ))}
          {opens.map((one) => (
            <li key={one.id}>
              Opens {one.title} to {one.first}
              {one.people > 1 && ` and ${counted(one.people - 1, 'other', 'others')}`}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
