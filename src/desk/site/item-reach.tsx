'use client';
/** On an item's own page: who gets it, what the others get, and for one of the board's visitors why and what would open it. */
import { useEffect, useState } from 'react';
import {
  capital,
  describeBecause,
  describeChanges,
  describeDecision,
  explain,
  type Item,
  keyOfStandIn,
  nameOf,
  openers,
  outcomeName,
  outcomeOf,
  type StandIn,
  standInFacts,
} from '@/core';
import type { ItemReach } from '@/services';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { CrowdNames } from '../crowd';
import { FoundList } from '../findings';
import { OutcomeMark } from '../marks';
import { ask } from '../service';

export function ItemReachView({ item, standIn }: { readonly item: Item; readonly standIn: StandIn }) {
  const { draft, outline, request, compiled, setBench, walk } = useDesk();
  const [reach, setReach] = useState<ItemReach | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked again when the draft was saved
  useEffect(() => {
    const calledOff = new AbortController();
    ask<ItemReach>('GET', `items/${encodeURIComponent(item.id)}/reach`, undefined, calledOff.signal).then(
      (answer) => setReach(answer.ok ? answer.value : null),
      () => undefined,
    );
    return () => calledOff.abort();
  }, [item.id, draft.version]);
  const facts = standInFacts(standIn);
  const policy = compiled.draft;
  const there = policy.outline.items.has(item.id);
  if (!there) return null;
  const explanation = explain(policy, item.id, facts, request);
  const because = describeBecause(explanation, item, policy.vocabulary);
  const gates = new Set<unknown>((policy.covering.get(item.id) ?? []).map(({ gate }) => gate.id));
  const [way] = openers(policy, item.id, facts, request).ways;
  return (
    <details className="border-thin border-b px-4 py-2 text-[0.8125rem]">
      <summary className="cursor-pointer">
        {reach ? (
          <>
            <strong>{reach.open.count}</strong> of {reach.of} members get it
            {reach.away.map(({ outcome, reason, people }) => (
              <span key={`${outcome} ${reason}`} className="ml-3 inline-flex items-center gap-1 text-quiet">
                <OutcomeMark outcome={outcome} size={13} /> {people.count} {outcomeName(outcome)}
              </span>
            ))}
          </>
        ) : (
          'Who gets it'
        )}
      </summary>
      <div className="mt-2 grid gap-2">
        <p className="flex items-start gap-2">
          <OutcomeMark outcome={outcomeOf(explanation.decision)} size={16} />
          <span>
            {capital(describeDecision(explanation.decision, nameOf(standIn), item, outline))}
            {because && `: ${because}`}.
            {way && (
              <span className="block">
                <span className="text-open">Would open:</span>{' '}
                {capital(describeChanges(way, facts, policy.vocabulary))}
              </span>
            )}
          </span>
        </p>
        <FoundList about={(finding) => gates.has(finding.gate)} />
        <p className="flex gap-2">
          <Button onClick={() => setBench({ kind: 'why', item: item.id, standIn: keyOfStandIn(standIn) })}>
            Why
          </Button>
          <Button onClick={() => walk(standIn, item)}>Walk there</Button>
        </p>
        {reach && reach.open.count > 0 && (
          <p>
            <span className="text-quiet">Get it:</span> <CrowdNames crowd={reach.open} />
          </p>
        )}
        {reach?.away.map(({ outcome, reason, people }) => (
          <p key={`${outcome} ${reason}`}>
            <span className="text-quiet">{capital(outcomeName(outcome))}:</span> <CrowdNames crowd={people} />
          </p>
        ))}
      </div>
    </details>
  );
}
