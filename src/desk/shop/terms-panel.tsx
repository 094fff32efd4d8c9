'use client';
/** What one product costs and gives, to be changed; and what that would do to those who have it, before it is done. */
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { asId, counted, type ItemId, nameOfId, type ProductTerms, permits, readAmount, same } from '@/core';
import type { ProductAtDesk, TermsAnswer } from '@/services';
import { Button, Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { FoundList } from '../findings';
import { Panel } from '../panel';
import { Field } from '../people';
import { ask } from '../service';
import { GrantsEditor } from './grants-editor';
import { asTyped, newPrice, type PriceDraft, PriceEditor } from './price-editor';
import { WhatTermsWouldDo } from './what-terms-would-do';

interface PanelProps {
  readonly product: ProductAtDesk;
  readonly onClose: () => void;
  readonly onSaved: () => void;
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
      foot={given && <WhatTermsWouldDo product={product} terms={whole} />}
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
        <GrantsEditor
          grants={terms.grants}
          problem={problem('grants')}
          onChange={(grants) => put({ grants })}
        />
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
