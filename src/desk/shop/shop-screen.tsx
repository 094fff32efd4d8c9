'use client';
/** What is sold: every product with its prices, what it gives, which gates ask for it, and what it opens today. */
import { useEffect, useState } from 'react';
import { counted, listed, nameOfId, permits, priceInWords } from '@/core';
import type { ProductAtDesk, ShopAtDesk } from '@/services';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { useChange } from '../people/use-change';
import { type Answer, ask } from '../service';
import { grantsInWords } from './grants-in-words';
import { MoveClock, ShopHead } from './shop-head';
import { TermsPanel } from './terms-panel';
import { VoucherList } from './voucher-list';

export function ShopScreen({ product }: { readonly product: string | null }) {
  const { data, setScreen } = useDesk();
  const [answer, setAnswer] = useState<Answer<ShopAtDesk> | null>(null);
  const read = () => void ask<ShopAtDesk>('GET', 'shop').then(setAnswer);
  // biome-ignore lint/correctness/useExhaustiveDependencies: read again when anything was changed
  useEffect(read, [data]);
  const shop = answer?.ok ? answer.value : null;
  const chosen = shop?.products.find((one) => one.product === product) ?? null;
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_31rem]">
      <div className="min-h-0 overflow-y-auto px-6 py-5">
        <ShopHead note="What is sold, for how much, and what it gives while somebody has it.">
          {shop?.till === 'stand-in' && <MoveClock onMoved={read} />}
        </ShopHead>
        {shop?.till === 'none' && (
          <p className="mt-3 border-teaser border-l-3 pl-3">
            This site has no till, so nothing can be paid. Settings say how to give it one.
          </p>
        )}
        {answer && !answer.ok && (
          <p role="alert" className="mt-3 text-alarm">
            {answer.title}
          </p>
        )}
        {shop?.products.length === 0 && (
          <p className="mt-6 max-w-prose">
            There are no products yet. Add some under Names, and say here what they cost.
          </p>
        )}
        <ul className="mt-4 grid">
          {shop?.products.map((one) => (
            <ProductRow
              key={one.product}
              product={one}
              chosen={one.product === product}
              onChoose={() => setScreen({ kind: 'shop', product: one.product })}
            />
          ))}
        </ul>
        {shop && shop.doubled.length > 0 && <Doubled doubled={shop.doubled} />}
        {shop && <VoucherList vouchers={shop.vouchers} onChanged={read} />}
      </div>
      <aside aria-label="Workbench" className="min-h-0 border-iron border-l bg-raised">
        {chosen ? (
          <TermsPanel
            key={`${chosen.product} ${chosen.version}`}
            product={chosen}
            onClose={() => setScreen({ kind: 'shop', product: null })}
            onSaved={read}
          />
        ) : (
          <p className="px-5 py-5 text-quiet">Choose a product to say what it costs and what it gives.</p>
        )}
      </aside>
    </main>
  );
}

interface RowProps {
  readonly product: ProductAtDesk;
  readonly chosen: boolean;
  readonly onChoose: () => void;
}

function ProductRow({ product: { product, terms, gates, opens, have, taken }, chosen, onChoose }: RowProps) {
  const { vocabulary, setScreen, data } = useDesk();
  const name = nameOfId(vocabulary, 'product', product) ?? '';
  const kind = vocabulary.products.find(({ id }) => id === product)?.kind;
  const gives = grantsInWords(terms.grants, vocabulary);
  return (
    <li
      className="grid grid-cols-[13rem_minmax(0,1fr)_auto] gap-x-5 border-thin border-t py-3 data-[chosen=true]:bg-wash"
      data-chosen={chosen}
    >
      <div>
        <h3 className="text-base">
          <button
            type="button"
            onClick={onChoose}
            className="text-left hover:text-copper"
            aria-pressed={chosen}
          >
            {name}
          </button>
        </h3>
        <p className="note">
          {kind}
          {!terms.sold && ', not sold'}
        </p>
        <p className="note">
          <button
            type="button"
            className="underline underline-offset-3 hover:text-copper"
            onClick={() =>
              setScreen({ kind: 'people', text: '', condition: `owns "${name.replace(/[\\"]/g, '\\$&')}"` })
            }
          >
            {counted(have, 'person has', 'people have')} it
          </button>
          {terms.seats !== null && `, ${taken} of ${terms.seats} seats taken`}
        </p>
      </div>
      <div className="grid content-start gap-1">
        {gives !== '' && <p>Gives {gives}.</p>}
        <p>
          {opens.length === 0 ? (
            <span className="text-quiet">
              {gives === '' && gates.length === 0
                ? 'Opens nothing yet: no gate asks for it.'
                : 'By itself it opens no page.'}
            </span>
          ) : (
            <Opens titles={opens.map(({ title }) => title)} />
          )}
        </p>
        {gates.length > 0 && (
          <details>
            <summary className="text-quiet">{counted(gates.length, 'gate asks', 'gates ask')} for it</summary>
            <ul className="note grid gap-0.5 pl-4">
              {gates.map(({ id, sentence }) => (
                <li key={id}>{sentence}</li>
              ))}
            </ul>
          </details>
        )}
      </div>
      <div className="grid content-start justify-items-end gap-1 text-right">
        {terms.prices.map((price) => (
          <span key={price.id} className="whitespace-nowrap font-semibold">
            {priceInWords(price)}
          </span>
        ))}
        {terms.prices.length === 0 && <span className="text-quiet">no price</span>}
        {permits(data.desk, 'everything') && !chosen && (
          <Button weight="quiet" onClick={onChoose}>
            Change
          </Button>
        )}
      </div>
    </li>
  );
}

const MOST_OPENS = 5;

/** What it opens: the first few, and the others on demand. */
function Opens({ titles }: { readonly titles: readonly string[] }) {
  const [all, setAll] = useState(false);
  const more = titles.length - MOST_OPENS;
  // One more is said as quickly as that there is one.
  if (all || more < 2) return <>Buying this gets you into {listed(titles)}.</>;
  return (
    <>
      Buying this gets you into {titles.slice(0, MOST_OPENS).join(', ')} and{' '}
      <button
        type="button"
        className="underline underline-offset-3 hover:text-copper"
        onClick={() => setAll(true)}
      >
        {more} more
      </button>
      .
    </>
  );
}

/** Who has something by hand that what they bought gives them as well. */
function Doubled({ doubled }: { readonly doubled: ShopAtDesk['doubled'] }) {
  const { setScreen } = useDesk();
  const change = useChange();
  const [problem, setProblem] = useState<string | null>(null);
  const leave = async () => {
    const answer = await change(
      'POST',
      'shop/doubled',
      doubled.map(({ person }) => person),
    );
    setProblem(answer.ok ? null : answer.title);
  };
  return (
    <details className="mt-6 border-thin border-t pt-3">
      <summary>
        {counted(doubled.length, 'person has', 'people have')} by hand what their purchases give as well
      </summary>
      <p className="note mt-1 max-w-prose">
        Whatever was written by hand stays when a purchase ends. Left to what they bought, it goes when that
        goes.
      </p>
      <p className="mt-2">
        <Button onClick={() => void leave()}>Leave it to what they bought</Button>
      </p>
      {problem && (
        <p role="alert" className="text-alarm">
          {problem}
        </p>
      )}
      <ul className="mt-2 columns-2 gap-6">
        {doubled.map(({ person, name, what }) => (
          <li key={person}>
            <button
              type="button"
              className="hover:text-copper"
              onClick={() => setScreen({ kind: 'person', person })}
            >
              {name}
            </button>
            <span className="text-quiet">, {listed(what)}</span>
          </li>
        ))}
      </ul>
    </details>
  );
}
