'use client';
/** What is asked by typing, answered in place: each answer leads to where it can be looked at. */
import { useMemo, useState } from 'react';
import {
  capital,
  decide,
  describeBecause,
  describeDecision,
  explain,
  type Item,
  keyOfStandIn,
  type Member,
  nameInContext,
  nameOf,
  type StandIn,
  standInFacts,
} from '@/core';
import type { Findable } from '@/ui';
import { isCalled, itemsLike, type Question, questionsIn } from './asking';
import { everyRow } from './board-filter';
import { useDesk } from './context';

export interface Answered extends Findable {
  readonly run: () => void;
}

const FEW = 4;

/** Answers to what is typed; `members` are those that were found by the names in it. */
export function useAsked(text: string, members: readonly Member[]): readonly Answered[] {
  const { outline, standIns, setStandIns, setBench, setScreen, setFilter, compiled, request } = useDesk();
  // A question about two names both: the first was found before the second was typed.
  const [seen, setSeen] = useState<ReadonlyMap<string, Member>>(new Map());
  if (members.some(({ id }) => !seen.has(id)))
    setSeen(new Map([...seen, ...members.map((one) => [one.id, one] as const)]));
  return useMemo(() => {
    const called = (typed: string): readonly StandIn[] => {
      const known = new Map<string, StandIn>(standIns.map((one) => [keyOfStandIn(one), one]));
      for (const member of seen.values()) {
        const standIn: StandIn = { kind: 'member', member };
        if (!known.has(keyOfStandIn(standIn))) known.set(keyOfStandIn(standIn), standIn);
      }
      return [...known.values()].filter((one) => isCalled(nameOf(one), typed)).slice(0, FEW);
    };
    const put = (...list: readonly StandIn[]) => {
      const there = new Set(standIns.map(keyOfStandIn));
      const more = list.filter((one) => !there.has(keyOfStandIn(one)));
      if (more.length > 0) setStandIns([...standIns, ...more]);
    };
    const why = (item: Item, standIn: StandIn) => () => {
      put(standIn);
      setBench({ kind: 'why', item: item.id, standIn: keyOfStandIn(standIn) });
    };
    const answer = (question: Question): readonly Omit<Answered, 'key'>[] => {
      switch (question.kind) {
        case 'who opens':
          return itemsLike(question.item, outline, FEW).map((item) => ({
            label: `Who opens ${nameInContext(item, outline)}?`,
            note: 'on the board',
            run: () => {
              setScreen({ kind: 'board' });
              setFilter({ ...everyRow, text: item.title });
            },
          }));
        case 'apart':
          return called(question.one).flatMap((one) =>
            called(question.other)
              .filter((other) => keyOfStandIn(other) !== keyOfStandIn(one))
              .map((other) => ({
                label: `What does ${nameOf(one)} get that ${nameOf(other)} doesn’t?`,
                note: 'on the board',
                run: () => {
                  put(one, other);
                  setScreen({ kind: 'board' });
                  setFilter({
                    ...everyRow,
                    who: keyOfStandIn(one),
                    gets: 'more',
                    other: keyOfStandIn(other),
                  });
                },
              })),
          );
        case 'what opens':
          return itemsLike(question.item, outline, FEW).flatMap((item) =>
            called(question.person).map((standIn) => ({
              label: `What would open ${nameInContext(item, outline)} for ${nameOf(standIn)}?`,
              note: 'every way in',
              run: why(item, standIn),
            })),
          );
        case 'gets':
          return itemsLike(question.item, outline, 2).flatMap((item) =>
            called(question.person).map((standIn) => {
              const facts = standInFacts(standIn);
              const explanation = explain(compiled.draft, item.id, facts, request);
              const because = describeBecause(explanation, item, compiled.draft.vocabulary);
              const said = describeDecision(
                decide(compiled.draft, item.id, facts, request),
                nameOf(standIn),
                item,
                outline,
              );
              return {
                label: because === null ? `${said}.` : `${said}: ${because}.`,
                run: why(item, standIn),
              };
            }),
          );
        default:
          return question satisfies never;
      }
    };
    return (
      questionsIn(text, outline)
        .flatMap(answer)
        // The list keeps what holds every word that was typed.
        .map((one) => ({ ...one, label: capital(one.label), key: `asked ${one.label} ${text}` }))
    );
  }, [text, seen, standIns, outline, compiled, request, setStandIns, setBench, setScreen, setFilter]);
}
