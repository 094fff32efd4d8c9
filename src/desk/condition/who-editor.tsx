'use client';
/** Who: the common answers in one click, anything more in place, and the same as text one key away. */
import { useEffect, useRef, useState } from 'react';
import {
  type Condition,
  capital,
  describeWho,
  everyone,
  guests,
  same,
  signedIn,
  type Vocabulary,
} from '@/core';
import { Choice } from '@/ui';
import { useDesk } from '../context';
import { ConditionEditor } from './condition-editor';
import { ConditionText } from './condition-text';
import { newTest, partFor } from './new-test';

interface WhoProps {
  readonly who: Condition;
  readonly onChange: (who: Condition) => void;
}

type Common = 'everyone' | 'members' | 'guests' | 'level' | 'group' | 'role' | 'owns' | 'audience';

const COMMON: Readonly<
  Record<Common, { readonly label: string; readonly make: (vocabulary: Vocabulary) => Condition }>
> = {
  everyone: { label: 'Everyone', make: () => everyone },
  members: { label: 'Members', make: () => signedIn },
  guests: { label: 'Guests', make: () => guests },
  level: { label: 'A level or above', make: (vocabulary) => newTest('level', vocabulary) },
  group: { label: 'In a group', make: (vocabulary) => newTest('group', vocabulary) },
  role: { label: 'With a role', make: (vocabulary) => newTest('role', vocabulary) },
  owns: { label: 'Owners of …', make: (vocabulary) => newTest('owns', vocabulary) },
  audience: { label: 'An audience', make: (vocabulary) => partFor('audience', vocabulary) },
};

export function WhoEditor({ who, onChange }: WhoProps) {
  const { vocabulary } = useDesk();
  const [asText, setAsText] = useState(false);
  // The common answers need no tests shown, until one asks for more or has written some.
  const [opened, setOpened] = useState(!isWhole(who));
  const section = useRef<HTMLDivElement>(null);
  const offered = (Object.keys(COMMON) as Common[]).filter((name) => isThere(name, vocabulary));

  useEffect(() => {
    const here = section.current;
    const onKey = (event: KeyboardEvent) => {
      if (!event.altKey || event.key.toLowerCase() !== 't') return;
      event.preventDefault();
      setAsText((now) => !now);
    };
    here?.addEventListener('keydown', onKey);
    return () => here?.removeEventListener('keydown', onKey);
  }, []);

  return (
    <div ref={section} className="grid gap-3">
      <Choice
        apart
        label="Common answers"
        value={commonAnswer(who)}
        options={offered.map((name) => ({ value: name, label: COMMON[name].label }))}
        onChoose={(name) => {
          const chosen = COMMON[name].make(vocabulary);
          setOpened(!isWhole(chosen));
          onChange(chosen);
        }}
      />
      <div className="flex items-center gap-2">
        <Choice
          label="How the condition is shown"
          value={asText ? 'text' : 'form'}
          options={[
            { value: 'form', label: 'Form' },
            { value: 'text', label: 'Text' },
          ]}
          onChoose={(way) => setAsText(way === 'text')}
        />
        <span className="key">Alt T</span>
        {!asText && !opened && (
          <button
            type="button"
            className="ml-auto text-quiet underline underline-offset-3 hover:text-copper"
            onClick={() => setOpened(true)}
          >
            Ask for more
          </button>
        )}
      </div>
      {asText ? (
        <ConditionText condition={who} vocabulary={vocabulary} onChange={onChange} />
      ) : (
        opened && <ConditionEditor condition={who} onChange={onChange} />
      )}
      <p className="border-copper border-l-3 pl-3 font-head text-[0.95rem]">
        {capital(describeWho(who, vocabulary))}
      </p>
    </div>
  );
}

const isThere = (name: Common, vocabulary: Vocabulary): boolean => {
  switch (name) {
    case 'level':
      return vocabulary.levels.length > 0;
    case 'group':
      return vocabulary.groups.length > 0;
    case 'role':
      return vocabulary.roles.length > 0;
    case 'owns':
      return vocabulary.products.length > 0;
    case 'audience':
      return vocabulary.audiences.length > 0;
    default:
      return true;
  }
};

/** The answers that are complete in one click and need no tests shown. */
const isWhole = (who: Condition): boolean => [everyone, signedIn, guests].some((answer) => same(answer, who));

function commonAnswer(who: Condition): Common | null {
  if (same(who, everyone)) return 'everyone';
  if (same(who, signedIn)) return 'members';
  if (same(who, guests)) return 'guests';
  if (who.kind === 'audience') return 'audience';
  if (who.kind !== 'test') return null;
  if (who.fact === 'level') return who.op === 'at least' ? 'level' : null;
  return who.fact === 'group' || who.fact === 'role' || who.fact === 'owns' ? who.fact : null;
}
