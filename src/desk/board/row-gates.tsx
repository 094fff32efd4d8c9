'use client';
/** The gates over a row, and what can be done with gates there. */
import { clsx } from 'clsx';
import { type CompiledPolicy, type Item, nameInContext, permits, pointAt } from '@/core';
import { useDesk } from '../context';
import { marksOf, noMarks, useFindingText, useSetAsides } from '../findings';
import { legsOf } from '../gate-legs';
import { GateMark } from '../marks';
import { gatesOnRow } from './rows';

interface RowGatesProps {
  readonly item: Item;
  /** The policy that the board shows. */
  readonly shown: CompiledPolicy;
  readonly withoutNew?: boolean;
}

/** The marks of the gates over a row; each opens its gate. */
export function RowGates({ item, shown, withoutNew = false }: RowGatesProps) {
  const { data, bench, setBench, setScreen, outline, addGate, analysis, compiled } = useDesk();
  const standings = gatesOnRow(shown, item);
  const text = useFindingText();
  const { isAside } = useSetAsides();
  const isDraft = shown === compiled.draft;
  const marks = isDraft && analysis.draft ? marksOf(analysis.draft) : noMarks;
  const broken = marks.broken.get(item.id);
  return (
    <>
      {broken !== undefined && (
        <button
          type="button"
          title="Something that must stay so is not so here"
          aria-label={`What is broken at ${nameInContext(item, outline)}`}
          onClick={() => setScreen({ kind: 'findings', open: null, expectation: broken })}
          className="rounded-[3px] px-1 font-bold text-alarm hover:bg-wash"
        >
          ✗
        </button>
      )}
      {standings.map(({ gate, standing }) => {
        const legs = legsOf(gate, shown);
        const found = marks.byGate.get(gate.id)?.filter((one) => !isAside(one)) ?? [];
        const label = [`Gate, ${standing}: ${legs.what}; ${legs.who}`, ...found.map(text)].join('. ');
        const open = bench.kind === 'gate' && bench.gate === gate.id;
        return (
          <button
            key={gate.id}
            type="button"
            title={label}
            aria-label={label}
            onClick={() => setBench({ kind: 'gate', gate: gate.id })}
            className={clsx('relative rounded-[3px] p-1.5 hover:text-copper', open && 'bg-wash text-copper')}
          >
            <GateMark standing={standing} />
            {found.length > 0 && (
              <span
                aria-hidden="true"
                className="absolute top-0.5 right-0.5 size-1.5 rounded-full bg-alarm"
              />
            )}
          </button>
        );
      })}
      {standings.length === 0 && !withoutNew && permits(data.desk, 'gates') && (
        <button
          type="button"
          aria-label={`Put a gate on ${nameInContext(item, outline)}`}
          title="Put a gate here"
          onClick={() => addGate(item)}
          className="rounded-[3px] px-1.5 text-quiet opacity-0 hover:text-copper focus-visible:opacity-100 group-hover:opacity-100"
        >
          + gate
        </button>
      )}
    </>
  );
}

interface PointerProps {
  readonly item: Item;
  readonly covered: boolean;
  readonly shown: CompiledPolicy;
}

/** While a gate is open, each row can be pointed at: covered, or left out. */
export function Pointer({ item, covered, shown }: PointerProps) {
  const { bench, draft, outline, vocabulary, changeGate } = useDesk();
  const gate = bench.kind === 'gate' ? draft.policy.gates.find((one) => one.id === bench.gate) : undefined;
  const label = covered ? `Leave out ${item.title}` : `Cover ${item.title}`;
  return (
    <>
      {gate && (
        <button
          type="button"
          aria-label={label}
          title={label}
          onClick={() => changeGate({ ...gate, what: pointAt(gate, item.id, outline, vocabulary) })}
          className="rounded-[3px] px-1.5 text-quiet opacity-0 hover:text-copper focus-visible:opacity-100 group-hover:opacity-100"
        >
          {covered ? '− leave out' : '+ cover'}
        </button>
      )}
      <RowGates item={item} shown={shown} withoutNew />
    </>
  );
}
