'use client';
/** The vouchers there are, how often each was used, and making one. */
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { dayInWords, listed, nameOfId, type ProductId, permits } from '@/core';
import type { ShopAtDesk } from '@/services';
import { Button, Input } from '@/ui';
import { useDesk } from '../context';
import { Field, Toggles } from '../people';
import { ask } from '../service';

type Voucher = ShopAtDesk['vouchers'][number];
type Draft = Omit<Voucher, 'id' | 'used'> & { readonly id: Voucher['id'] | null };

const newVoucher = (): Draft => ({
  id: null,
  code: codeWords(),
  products: [],
  percent: 100,
  times: 1,
  until: null,
  note: '',
  open: true,
});

/** A code that nobody guesses and everybody can type: no letters that are taken for digits. */
function codeWords(): string {
  const letters = 'ABCDEFGHJKMNPQRSTVWXYZ23456789';
  const drawn = crypto.getRandomValues(new Uint8Array(12));
  return [...drawn]
    .map((byte) => letters[byte % letters.length])
    .join('')
    .replace(/(.{4})(?=.)/g, '$1-');
}

interface ListProps {
  readonly vouchers: readonly Voucher[];
  readonly onChanged: () => void;
}

export function VoucherList({ vouchers, onChanged }: ListProps) {
  const { vocabulary, data } = useDesk();
  const [draft, setDraft] = useState<Draft | null>(null);
  const may = permits(data.desk, 'everything');
  return (
    <section aria-label="Vouchers" className="mt-6 border-thin border-t pt-3">
      <h3 className="flex items-center justify-between">
        Vouchers
        {may && !draft && (
          <Button onClick={() => setDraft(newVoucher())}>
            <Plus size={14} aria-hidden="true" /> A voucher
          </Button>
        )}
      </h3>
      {vouchers.length > 0 && (
        <table className="mt-2 w-full text-left">
          <thead>
            <tr className="text-quiet">
              <th className="font-normal">Code</th>
              <th className="font-normal">Less</th>
              <th className="font-normal">For</th>
              <th className="font-normal">Used</th>
              <th className="font-normal">Until</th>
              <th>
                <span className="sr-only">Change</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {vouchers.map((one) => (
              <tr
                key={one.id}
                className="border-thin border-t data-[open=false]:text-quiet"
                data-open={one.open}
              >
                <td className="py-1 pr-3">
                  <code>{one.code}</code>
                  {one.note && <span className="note block">{one.note}</span>}
                </td>
                <td className="pr-3">{one.percent === 100 ? 'all of it' : `${one.percent} %`}</td>
                <td className="pr-3">
                  {one.products.length === 0
                    ? 'everything'
                    : listed(
                        one.products.map((id) => nameOfId(vocabulary, 'product', id) ?? 'something gone'),
                      )}
                </td>
                <td className="pr-3">
                  {one.used} of {one.times}
                </td>
                <td className="pr-3">
                  {!one.open ? 'closed' : one.until === null ? '' : dayInWords(one.until)}
                </td>
                <td className="text-right">
                  {may && (
                    <Button
                      weight="quiet"
                      onClick={() => {
                        const { used: _, ...rest } = one;
                        setDraft(rest);
                      }}
                    >
                      Change
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {vouchers.length === 0 && !draft && (
        <p className="note">A code that buys for less, or for nothing, so many times.</p>
      )}
      {draft && (
        <VoucherForm
          key={draft.id ?? 'new'}
          draft={draft}
          onChange={setDraft}
          onDone={() => {
            setDraft(null);
            onChanged();
          }}
          onCancel={() => setDraft(null)}
        />
      )}
    </section>
  );
}

interface FormProps {
  readonly draft: Draft;
  readonly onChange: (draft: Draft) => void;
  readonly onDone: () => void;
  readonly onCancel: () => void;
}

function VoucherForm({ draft, onChange, onDone, onCancel }: FormProps) {
  const { vocabulary } = useDesk();
  const [problem, setProblem] = useState<string | null>(null);
  const put = (change: Partial<Draft>) => onChange({ ...draft, ...change });
  const save = async () => {
    const answer = await ask('PUT', 'shop/vouchers', draft);
    if (answer.ok) onDone();
    else setProblem(answer.title);
  };
  return (
    <form
      className="mt-3 grid gap-3 border-iron border-l-3 pl-4"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <div className="flex flex-wrap items-end gap-4">
        <Field label="Code" problem={undefined}>
          <Input
            label="Code"
            value={draft.code}
            onChange={({ target }) => put({ code: target.value.toUpperCase() })}
          />
        </Field>
        <Field label="Percent less" problem={undefined}>
          <Input
            label="Percent less"
            type="number"
            min={1}
            max={100}
            className="w-20"
            value={draft.percent}
            onChange={({ target }) => put({ percent: target.valueAsNumber || 0 })}
          />
        </Field>
        <Field label="How many times" problem={undefined}>
          <Input
            label="How many times"
            type="number"
            min={1}
            className="w-24"
            value={draft.times}
            onChange={({ target }) => put({ times: target.valueAsNumber || 0 })}
          />
        </Field>
        <Field label="Until" problem={undefined}>
          <Input
            label="Until"
            type="date"
            value={draft.until ?? ''}
            onChange={({ target }) => put({ until: target.value || null })}
          />
        </Field>
      </div>
      <Field label="For" note="none chosen: for everything that is sold" problem={undefined}>
        <Toggles
          label="For"
          all={vocabulary.products}
          held={draft.products}
          onChange={(products) => put({ products: products as readonly ProductId[] })}
        />
      </Field>
      <Field label="What it is for, for you alone" problem={undefined}>
        <Input
          label="What it is for, for you alone"
          className="w-full"
          maxLength={500}
          value={draft.note}
          onChange={({ target }) => put({ note: target.value })}
        />
      </Field>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={draft.open}
          onChange={({ target }) => put({ open: target.checked })}
        />
        It can be used
      </label>
      {problem && (
        <p role="alert" className="text-alarm">
          {problem}
        </p>
      )}
      <p className="flex gap-2">
        <Button weight="main" type="submit">
          Keep it
        </Button>
        <Button onClick={onCancel}>Leave it</Button>
      </p>
    </form>
  );
}
