'use client';
/** Which rows the board shows, as one sentence. */
import { Search } from 'lucide-react';
import { capital, ITEM_KINDS, KINDS, keyOfStandIn, nameOf, OUTCOMES, outcomeName } from '@/core';
import { Button, Pick } from '@/ui';
import { compares, everyRow, filters, type Gets, NO_GATE } from '../board-filter';
import { useDesk } from '../context';
import { legsOf } from '../gate-legs';

const ANYBODY = ' ';

export function FilterBar() {
  const { filter, setFilter, standIns, compiled, side } = useDesk();
  const shown = side === 'live' ? compiled.live : compiled.draft;
  const set = (change: Partial<typeof filter>) => setFilter({ ...filter, ...change });
  const people = standIns.map((one) => ({ value: keyOfStandIn(one), label: nameOf(one) }));
  const setGets = (gets: Gets | typeof ANYBODY) => {
    if (gets === ANYBODY) return set({ gets: '', who: '', other: '' });
    const who = filter.who || (compares(gets) ? (people[0]?.value ?? '') : '');
    const other = people.find(({ value }) => value !== who)?.value ?? '';
    return set({ gets, who, other: compares(gets) ? filter.other || other : '' });
  };
  return (
    <search
      aria-label="Rows of the board"
      className="flex min-h-11 flex-wrap items-center gap-x-1.5 gap-y-1 border-thin border-b px-4 py-1.5 text-[0.8125rem]"
    >
      <span className="relative">
        <Search size={13} aria-hidden="true" className="absolute top-2 left-2 text-quiet" />
        <input
          type="search"
          aria-label="Rows whose title or address holds"
          placeholder="Title or address"
          value={filter.text}
          maxLength={200}
          onChange={(event) => set({ text: event.target.value })}
          className="w-34 rounded-[3px] border border-iron bg-raised py-1 pr-1 pl-6.5 leading-5"
        />
      </span>
      <Pick
        label="Kind of item"
        value={filter.kind === '' ? ANYBODY : filter.kind}
        className="w-24"
        options={[
          { value: ANYBODY, label: 'all kinds' },
          ...ITEM_KINDS.filter((kind) => kind !== 'site').map((kind) => ({
            value: kind,
            label: KINDS[kind].many,
          })),
        ]}
        onPick={(kind) => set({ kind: kind === ANYBODY ? '' : kind })}
      />
      <Pick
        label="Under which gate"
        value={filter.gate === '' ? ANYBODY : filter.gate}
        className="w-24"
        options={[
          { value: ANYBODY, label: 'any gate' },
          { value: NO_GATE, label: 'no gate' },
          ...shown.policy.gates.map((gate) => {
            const legs = legsOf(gate, shown);
            return { value: gate.id as string, label: `${capital(legs.what)}: ${legs.who}` };
          }),
        ]}
        onPick={(gate) => set({ gate: gate === ANYBODY ? '' : gate })}
      />
      <span className="text-quiet">where</span>
      <Pick
        label="Which visitor"
        value={filter.who === '' ? ANYBODY : filter.who}
        className="w-33"
        options={[...(compares(filter.gets) ? [] : [{ value: ANYBODY, label: 'anybody' }]), ...people]}
        onPick={(who) => set({ who: who === ANYBODY ? '' : who, gets: filter.gets || 'not open' })}
      />
      <span className="text-quiet">gets</span>
      <Pick
        label="What they get"
        value={filter.gets === '' ? ANYBODY : filter.gets}
        className="w-31"
        options={[
          { value: ANYBODY, label: 'anything' },
          { value: 'not open', label: 'not the item' },
          { value: 'unlike', label: 'not the same as' },
          { value: 'more', label: 'open, and not to' },
          { value: 'a change', label: 'something new' },
          ...OUTCOMES.map((outcome) => ({ value: outcome, label: outcomeName(outcome) })),
        ]}
        onPick={setGets}
      />
      {compares(filter.gets) && (
        <Pick
          label="The other visitor"
          value={filter.other}
          className="w-33"
          options={people.filter(({ value }) => value !== filter.who)}
          onPick={(other) => set({ other })}
        />
      )}
      {filters(filter) && (
        <Button weight="quiet" size="small" onClick={() => setFilter(everyRow)}>
          Every row
        </Button>
      )}
    </search>
  );
}
