'use client';
/** Everything at the desk by typing: items, people, gates, actions. */
import { useEffect, useState } from 'react';
import {
  capital,
  describeFacts,
  describeWho,
  isAddressed,
  keyOfStandIn,
  type Member,
  member,
  nameInContext,
  nameOf,
  permits,
  type StandIn,
  standInFacts,
} from '@/core';
import { type Findable, Palette } from '@/ui';
import { personIn } from './asking';
import { rowsOf } from './board/rows';
import { everyRow } from './board-filter';
import { useDesk } from './context';
import { legsOf } from './gate-legs';
import { SCREEN_KINDS, screenNamed, startOf } from './screens';
import { useAsked } from './use-asked';
import { useMemberSearch } from './use-member-search';
import type { Side } from './view';

interface Entry extends Findable {
  readonly run: () => void;
}

export function DeskPalette({ onOpenChange }: { readonly onOpenChange: (open: boolean) => void }) {
  const desk = useDesk();
  const { outline, vocabulary, draft, standIns, setStandIns, setBench, setSide, setScreen, addGate, walk } =
    desk;
  const { data, makeUp, setFilter, compiled, request } = desk;
  const [members, setMembers] = useState<readonly Member[]>([]);
  const [typed, setTyped] = useState('');
  const search = useMemberSearch(setMembers);
  const asked = useAsked(typed, members);
  const type = (text: string) => {
    setTyped(text);
    return search(personIn(text, outline));
  };
  useEffect(() => {
    search('');
  }, [search]);

  const standInFor = (member: Member): StandIn => ({ kind: 'member', member });
  const add = (standIn: StandIn) => {
    if (!standIns.some((one) => keyOfStandIn(one) === keyOfStandIn(standIn)))
      setStandIns([...standIns, standIn]);
  };
  const look = (side: Side) => {
    setScreen({ kind: 'board' });
    setSide(side);
  };
  const [first] = standIns;
  const groups: { heading: string; entries: readonly Entry[] }[] = [
    ...(asked.length > 0 ? [{ heading: 'Asked', entries: asked }] : []),
    {
      heading: 'Do',
      entries: [
        ...SCREEN_KINDS.flatMap((kind) => {
          const { find: [label, note = ''] = [], need } = screenNamed(kind);
          return label !== undefined && permits(data.desk, need)
            ? [{ key: kind, label, note, run: () => setScreen(startOf(kind)) }]
            : [];
        }),
        {
          key: 'made up',
          label: 'Make somebody up',
          note: 'any facts',
          run: () => makeUp('Somebody', member()),
        },
        {
          key: 'rules',
          label: 'For the whole site',
          note: 'sign-in, turn-aways, landing rules, defaults, leak check',
          run: () => setBench({ kind: 'rules' }),
        },
        { key: 'new gate', label: 'New gate', run: () => addGate() },
        { key: 'gates', label: 'All gates', run: () => setBench({ kind: 'gates' }) },
        { key: 'live', label: 'Show what is live', run: () => look('live') },
        { key: 'draft', label: 'Show the draft', run: () => look('draft') },
        { key: 'difference', label: 'Show the difference', run: () => look('difference') },
        {
          key: 'put live',
          label: 'Put the draft live',
          run: () => {
            setSide('difference');
            setBench({ kind: 'put live' });
          },
        },
        { key: 'undo', label: 'Undo', run: draft.undo },
        ...standIns.map((standIn) => ({
          key: `closed ${keyOfStandIn(standIn)}`,
          label: `What does ${nameOf(standIn)} not get?`,
          run: () => {
            setScreen({ kind: 'board' });
            setFilter({ ...everyRow, who: keyOfStandIn(standIn), gets: 'not open' });
          },
        })),
        ...standIns.map((standIn) => ({
          key: `walk ${keyOfStandIn(standIn)}`,
          label: `Walk as ${nameOf(standIn)}`,
          run: () => walk(standIn, null),
        })),
        {
          key: 'visit',
          label: 'Go to the site',
          run: () => window.location.assign('/'),
        },
      ],
    },
    {
      heading: 'Why, at an item',
      entries: first
        ? rowsOf(outline).map(({ item }) => ({
            key: `item ${item.id}`,
            label: nameInContext(item, outline),
            note: isAddressed(item) ? item.address : item.kind,
            run: () => setBench({ kind: 'why', item: item.id, standIn: keyOfStandIn(first) }),
          }))
        : [],
    },
    {
      heading: 'Gates',
      entries: compiled.draft.policy.gates.map((gate) => {
        const legs = legsOf(gate, compiled.draft);
        return {
          key: `gate ${gate.id}`,
          label: capital(legs.what),
          note: legs.who,
          run: () => setBench({ kind: 'gate', gate: gate.id }),
        };
      }),
    },
    {
      heading: 'Audiences',
      entries: draft.policy.audiences.map((audience) => ({
        key: `audience ${audience.id}`,
        label: audience.name,
        note: describeWho(audience.who, vocabulary),
        run: () => setScreen({ kind: 'audiences', audience: audience.id }),
      })),
    },
    {
      heading: 'People',
      entries: members.map((member) => ({
        key: `person ${member.id}`,
        label: member.name,
        note: member.facts.email ?? '',
        run: () => setScreen({ kind: 'person', person: member.id }),
      })),
    },
    {
      heading: 'Put on the board',
      entries: members.map((member) => ({
        key: `member ${member.id}`,
        label: member.name,
        note: describeFacts(standInFor(member), standInFacts(standInFor(member)), vocabulary, request.today),
        run: () => add(standInFor(member)),
      })),
    },
  ];
  return <Palette onOpenChange={onOpenChange} onType={type} groups={groups} onChoose={({ run }) => run()} />;
}
