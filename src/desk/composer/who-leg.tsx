'use client';
import {
  type Condition,
  capital,
  describeWho,
  everyone,
  type Gate,
  guests,
  same,
  signedIn,
  type Test,
} from '@/core';
import type { PassingReport } from '@/services';
import { Choice } from '@/ui';
import { useDesk } from '../context';
import { CrowdNames } from '../crowd';
import { useAnswer } from '../use-answer';
import { ConditionEditor, firstTest } from './condition-editor';

interface LegProps {
  readonly gate: Gate;
  readonly onChange: (gate: Gate) => void;
}

type Common = 'everyone' | 'members' | 'guests' | 'level' | 'group' | 'role';

/** The second leg: who passes. The common answers are one click; anything more grows in place. */
export function WhoLeg({ gate, onChange }: LegProps) {
  const { vocabulary } = useDesk();
  const change = (who: Condition) => onChange({ ...gate, who });
  const common: Record<Common, { readonly label: string; readonly make: () => Condition }> = {
    everyone: { label: 'Everyone', make: () => everyone },
    members: { label: 'Members', make: () => signedIn },
    guests: { label: 'Guests', make: () => guests },
    level: { label: 'A level or above', make: () => firstTest('level', vocabulary) },
    group: { label: 'In a group', make: () => firstTest('group', vocabulary) },
    role: { label: 'With a role', make: () => firstTest('role', vocabulary) },
  };
  const names: readonly Common[] = ['everyone', 'members', 'guests', 'level', 'group', 'role'];
  return (
    <div className="grid gap-3">
      <Choice
        apart
        label="Common answers"
        value={commonAnswer(gate.who)}
        options={names.map((name) => ({ value: name, label: common[name].label }))}
        onChoose={(name) => change(common[name].make())}
      />
      {!isWhole(gate.who) && <ConditionEditor condition={gate.who} onChange={change} />}
      {isWhole(gate.who) && (
        <button
          type="button"
          className="justify-self-start text-quiet underline underline-offset-3 hover:text-copper"
          onClick={() => change(firstTest('level', vocabulary))}
        >
          Ask for something more particular
        </button>
      )}
      <p className="border-copper border-l-3 pl-3 font-head text-[0.95rem]">
        {capital(describeWho(gate.who, vocabulary))}
      </p>
      <Passing gate={gate} />
    </div>
  );
}

/** The answers that are complete in one click and need no tests shown. */
const isWhole = (who: Condition): boolean => [everyone, signedIn, guests].some((answer) => same(answer, who));

function commonAnswer(who: Condition): Common | null {
  if (same(who, everyone)) return 'everyone';
  if (same(who, signedIn)) return 'members';
  if (same(who, guests)) return 'guests';
  if (who.kind !== 'test') return null;
  const test: Test = who;
  if (test.fact === 'level') return test.op === 'at least' ? 'level' : null;
  return test.fact === 'signed in' ? null : test.fact;
}

/** How many members pass, who they are, and who only in the draft. */
function Passing({ gate }: { readonly gate: Gate }) {
  const { draft } = useDesk();
  const answer = useAnswer<PassingReport>('passing', { gate: gate.id, policy: draft.policy });
  if (!answer) return <p className="note">Counting …</p>;
  if (!answer.ok) return <p className="text-alarm">{answer.title}</p>;
  const { of, pass, onlyInDraft, onlyLive, guestsPass } = answer.value;
  const share = of === 0 ? 0 : (pass.count / of) * 100;
  return (
    <div className="grid gap-1" aria-live="polite" data-testid="passing">
      <p className="flex items-center gap-3">
        <strong>
          {pass.count} of {of} members pass
        </strong>
        <span aria-hidden="true" className="h-1.5 flex-1 rounded-full bg-thin">
          <span className="block h-full rounded-full bg-open" style={{ width: `${share}%` }} />
        </span>
        <span className="text-quiet">{guestsPass ? 'guests too' : 'no guests'}</span>
      </p>
      {pass.count === 0 && !guestsPass && (
        <p className="font-semibold text-alarm">Nobody passes: whatever this gate covers is closed to all.</p>
      )}
      {pass.count > 0 && (
        <p className="note">
          <CrowdNames crowd={pass} />
        </p>
      )}
      {onlyInDraft && onlyInDraft.count > 0 && (
        <p>
          <strong className="text-open">+{onlyInDraft.count}</strong> only in the draft:{' '}
          <CrowdNames crowd={onlyInDraft} />
        </p>
      )}
      {onlyLive && onlyLive.count > 0 && (
        <p>
          <strong className="text-alarm">−{onlyLive.count}</strong> no longer: <CrowdNames crowd={onlyLive} />
        </p>
      )}
    </div>
  );
}
