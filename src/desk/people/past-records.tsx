'use client';
/** What somebody bought, enrolled in and completed: of a person, or of a visitor who is made up. */
import {
  addDays,
  asId,
  type Completion,
  type Day,
  type Enrolment,
  type ItemId,
  type OrderId,
  type ProductId,
  PURCHASE_STATES,
  type Purchase,
  type VisitorFacts,
} from '@/core';
import type { FormProblems } from '@/services';
import { Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { Records } from './person-parts';

type Held = Partial<{
  readonly [K in 'purchases' | 'enrolments' | 'completions']: VisitorFacts[K];
}>;

/** What a till knows of a purchase beside whether it was paid. */
const AT_TILL = ['late', 'on trial', 'by voucher'] as const;
type State = Purchase['state'] | (typeof AT_TILL)[number];

function stateOf({ state, order }: Purchase, today: Day): State {
  if (state !== 'paid' || order === undefined) return state;
  if (order.voucher) return 'by voucher';
  return order.trialUntil !== null && order.trialUntil >= today ? 'on trial' : 'late';
}

function withState({ order: _, ...purchase }: Purchase, state: State, today: Day): Purchase {
  const told = {
    id: asId<OrderId>('made-up'),
    paidUntil: null,
    trialUntil: null,
    renews: null,
    voucher: false,
  };
  switch (state) {
    case 'late':
      return { ...purchase, state: 'paid', order: { ...told, paidUntil: addDays(today, -1) } };
    case 'on trial':
      return { ...purchase, state: 'paid', order: { ...told, trialUntil: addDays(today, 14) } };
    case 'by voucher':
      return { ...purchase, state: 'paid', order: { ...told, voucher: true } };
    default:
      return { ...purchase, state };
  }
}

export function PastRecords({
  held,
  problems,
  atTill = false,
  onChange,
}: {
  readonly held: Held;
  readonly problems: FormProblems;
  /** Whether purchases can be as a till would have them: of visitors who are made up. */
  readonly atTill?: boolean;
  readonly onChange: (change: Held) => void;
}) {
  const { data, request } = useDesk();
  const { names } = data;
  return (
    <>
      <Records
        title="Purchases"
        things={names.products}
        list={held.purchases ?? []}
        thing={({ product }) => product}
        problem={problems.purchases}
        onChange={(purchases) => onChange({ purchases })}
        make={(product): Purchase => ({
          product: asId(product),
          on: request.today,
          until: null,
          state: 'paid',
        })}
        withThing={(one, product) => ({ ...one, product: asId<ProductId>(product) })}
        more={(one, put) => (
          <>
            <span className="text-quiet">until</span>
            <Input
              label="Good until"
              type="date"
              value={one.until ?? ''}
              onChange={(event) => put({ ...one, until: event.target.value || null })}
            />
            <Pick
              label="State of the payment"
              value={stateOf(one, request.today)}
              options={[...PURCHASE_STATES, ...(atTill ? AT_TILL : [])].map((state) => ({
                value: state,
                label: state,
              }))}
              onPick={(state) => put(withState(one, state, request.today))}
            />
          </>
        )}
      />
      <Records
        title="Courses"
        things={names.courses}
        list={held.enrolments ?? []}
        thing={({ course }) => course}
        problem={problems.enrolments}
        onChange={(enrolments) => onChange({ enrolments })}
        make={(course): Enrolment => ({ course: asId(course), on: request.today, until: null })}
        withThing={(one, course) => ({ ...one, course: asId<ItemId>(course) })}
        more={(one, put) => (
          <>
            <span className="text-quiet">until</span>
            <Input
              label="Until"
              type="date"
              value={one.until ?? ''}
              onChange={(event) => put({ ...one, until: event.target.value || null })}
            />
          </>
        )}
      />
      <Records
        title="Completed"
        things={[...names.activities, ...names.units, ...names.courses]}
        list={held.completions ?? []}
        thing={({ item }) => item}
        problem={problems.completions}
        onChange={(completions) => onChange({ completions })}
        make={(item): Completion => ({ item: asId(item), on: request.today, score: null })}
        withThing={(one, item) => ({ ...one, item: asId<ItemId>(item) })}
        more={(one, put) => (
          <>
            <span className="text-quiet">score</span>
            <Input
              label="Score"
              type="number"
              step="any"
              value={one.score ?? ''}
              onChange={(event) =>
                put({ ...one, score: event.target.value === '' ? null : event.target.valueAsNumber })
              }
              className="w-20"
            />
          </>
        )}
      />
    </>
  );
}
