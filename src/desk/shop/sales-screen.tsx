'use client';
/** What was sold: every order with its notices behind it, what came in, and what each step would close before it is done. */
import { useEffect, useState } from 'react';
import { counted, dayInWords, nameOfId } from '@/core';
import type { OrderStanding, Sale, SalesPage } from '@/services';
import { Button, Download, Pick } from '@/ui';
import { useDesk } from '../context';
import { type Answer, ask } from '../service';
import { ByHandPanel } from './by-hand-panel';
import { OrderPanel } from './order-panel';
import { Charts } from './sales-charts';
import { SeatList } from './seat-list';
import { MoveClock, ShopHead } from './shop-head';

const PAGE = 50;
const ALL = '';

export function SalesScreen({ order }: { readonly order: string | null }) {
  const { data, vocabulary, setScreen, reloadSite } = useDesk();
  const [product, setProduct] = useState(ALL);
  const [from, setFrom] = useState(0);
  const [answer, setAnswer] = useState<Answer<SalesPage> | null>(null);
  const [renewed, setRenewed] = useState(0);
  const [byHand, setByHand] = useState(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: read again when anything was changed
  useEffect(() => {
    const calledOff = new AbortController();
    ask<SalesPage>('POST', 'sales', { product: product || null, from }, calledOff.signal).then(
      setAnswer,
      () => undefined,
    );
    return () => calledOff.abort();
  }, [product, from, data, renewed]);
  const again = () => setRenewed((count) => count + 1);
  const choose = (chosen: string | null) => {
    setByHand(false);
    setScreen({ kind: 'sales', order: chosen });
  };
  const page = answer?.ok ? answer.value : null;
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_31rem]">
      <div className="min-h-0 overflow-y-auto px-6 py-5">
        <ShopHead note="Every order, what the till told of it, and what came in.">
          <MoveClock onMoved={again} />
        </ShopHead>
        {answer && !answer.ok && (
          <p role="alert" className="mt-3 text-alarm">
            {answer.title}
          </p>
        )}
        {page && page.problems.length > 0 && (
          <details className="mt-3 border-alarm border-l-3 pl-3">
            <summary>
              {counted(page.problems.length, 'notice', 'notices')} of the till could not be counted
            </summary>
            <ul className="mt-1">
              {page.problems.map((one) => (
                <li key={one.id}>
                  {dayInWords(one.on)}: {one.problem}{' '}
                  <span className="note">
                    {one.order === '' ? '' : `order ${one.order}, `}notice {one.id}
                  </span>
                </li>
              ))}
            </ul>
          </details>
        )}
        {page && page.count > 0 && <Charts charts={page.charts} />}
        <div className="mt-5 flex items-center gap-3">
          <Pick
            label="Orders of"
            value={product}
            options={[
              { value: ALL, label: 'every product' },
              ...vocabulary.products.map(({ id, name }) => ({ value: id as string, label: name })),
            ]}
            onPick={(one) => {
              setProduct(one);
              setFrom(0);
            }}
          />
          <span className="note" role="status">
            {page === null ? 'Looking …' : counted(page.count, 'order')}
          </span>
          <span className="ml-auto flex items-center gap-3">
            <Button aria-pressed={byHand} onClick={() => setByHand(!byHand)}>
              Sell or give by hand …
            </Button>
            <Download href="/desk/api/sales/csv" download>
              As a table (CSV)
            </Download>
          </span>
        </div>
        {product !== ALL && <SeatList product={product} renewed={page} onChoose={choose} />}
        {page?.count === 0 && (
          <p className="mt-6 max-w-prose">
            Nothing was bought yet. What is sold stands in the shop; as soon as somebody sets out to buy, the
            order stands here.
          </p>
        )}
        {page && page.count > 0 && (
          <table className="mt-2 w-full text-left">
            <thead>
              <tr className="text-quiet">
                {['Day', 'Who', 'What', 'Price', 'Stands', 'Until', 'Paid'].map((head) => (
                  <th key={head} className="py-1 pr-3 font-normal last:pr-0 last:text-right">
                    {head}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {page.list.map((sale) => (
                <Row key={sale.id} sale={sale} chosen={sale.id === order} onChoose={() => choose(sale.id)} />
              ))}
            </tbody>
          </table>
        )}
        {page && page.count > PAGE && (
          <p className="mt-3 flex gap-2">
            <Button disabled={from === 0} onClick={() => setFrom(Math.max(0, from - PAGE))}>
              Later ones
            </Button>
            <Button disabled={from + PAGE >= page.count} onClick={() => setFrom(from + PAGE)}>
              Earlier ones
            </Button>
          </p>
        )}
      </div>
      <aside aria-label="Workbench" className="min-h-0 border-iron border-l bg-raised">
        {byHand ? (
          <ByHandPanel
            product={product}
            onClose={() => setByHand(false)}
            onDone={async (sold) => {
              setFrom(0);
              await reloadSite();
              again();
              choose(sold);
            }}
          />
        ) : order === null ? (
          <p className="px-5 py-5 text-quiet">
            Choose an order to read what the till told of it, and what giving it back would close. What is
            paid in cash or given is noted with “Sell or give by hand”.
          </p>
        ) : (
          <OrderPanel
            key={order}
            order={order}
            renewed={`${page?.list.find(({ id }) => id === order)?.standing} ${renewed}`}
            onClose={() => choose(null)}
            onDone={again}
          />
        )}
      </aside>
    </main>
  );
}

interface RowProps {
  readonly sale: Sale;
  readonly chosen: boolean;
  readonly onChoose: () => void;
}

function Row({ sale, chosen, onChoose }: RowProps) {
  const { vocabulary } = useDesk();
  const { on, name, email, productName, price, standing, until, paid } = sale;
  return (
    <tr className="border-thin border-t align-top data-[chosen=true]:bg-wash" data-chosen={chosen}>
      <td className="whitespace-nowrap py-1.5 pr-3">{on}</td>
      <td className="py-1.5 pr-3">
        <button
          type="button"
          onClick={onChoose}
          aria-pressed={chosen}
          className="text-left hover:text-copper"
        >
          {name}
          <span className="note block">{email}</span>
        </button>
      </td>
      <td className="py-1.5 pr-3">{nameOfId(vocabulary, 'product', sale.product) ?? productName}</td>
      <td className="whitespace-nowrap py-1.5 pr-3">{price}</td>
      <td className="whitespace-nowrap py-1.5 pr-3">
        <Standing standing={standing} />
      </td>
      <td className="whitespace-nowrap py-1.5 pr-3">{until ?? (standing === 'good' ? 'for good' : '')}</td>
      <td className="whitespace-nowrap py-1.5 text-right">{paid}</td>
    </tr>
  );
}

/** How an order stands: a word, and a colour that repeats it. */
export const Standing = ({ standing }: { readonly standing: OrderStanding }) => (
  <span style={{ color: COLOURS[standing] }}>{WORDS[standing]}</span>
);

const WORDS: Readonly<Record<OrderStanding, string>> = {
  waiting: 'waits to be paid',
  declined: 'declined',
  expired: 'not paid in time',
  good: 'good',
  trial: 'on trial',
  late: 'late',
  ended: 'ended',
  refunded: 'given back',
  disputed: 'disputed',
};

const COLOURS: Readonly<Record<OrderStanding, string>> = {
  waiting: 'var(--ink-quiet)',
  declined: 'var(--ink-quiet)',
  expired: 'var(--ink-quiet)',
  good: 'var(--open)',
  trial: 'var(--redirect)',
  late: 'var(--alarm)',
  ended: 'var(--missing)',
  refunded: 'var(--message)',
  disputed: 'var(--alarm)',
};
