'use client';
/** Two versions of the draft, when somebody else saved first: both shown, neither lost, and what the two would be together. */
import { Dialog } from 'radix-ui';
import { useMemo } from 'react';
import {
  type Contested,
  capital,
  compile,
  describeGate,
  difference,
  gateAsOneSentence,
  listed,
  openedByMerge,
  type Policy,
  type PolicyChange,
  rebase,
} from '@/core';
import { Button } from '@/ui';
import { useDesk } from './context';

export function Conflict() {
  const { draft } = useDesk();
  if (draft.saving.kind !== 'stale') return null;
  const { theirs } = draft.saving;
  return (
    <Dialog.Root open>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <Dialog.Content
          onEscapeKeyDown={(event) => event.preventDefault()}
          className="fixed top-24 left-1/2 z-50 max-h-[75vh] w-[44rem] -translate-x-1/2 overflow-y-auto rounded-[4px] border border-iron bg-paper p-6 shadow-[0_12px_48px_rgb(0_0_0/0.3)]"
        >
          <Dialog.Title className="font-head text-xl">
            The draft was changed while you were editing
          </Dialog.Title>
          <Dialog.Description className="mt-1 text-quiet">
            {theirs.by} saved first, perhaps in another tab. Your edits are kept here until you choose.
          </Dialog.Description>
          <div className="mt-4 grid grid-cols-2 gap-6">
            <Version title="Yours, against what is live" policy={draft.policy} />
            <Version title={`${theirs.by}’s, against what is live`} policy={theirs.policy} />
          </div>
          <Together theirs={theirs} />
          <div className="mt-6 flex gap-2">
            <Button weight="main" onClick={() => draft.settle('mine')}>
              Put my edits on top of theirs
            </Button>
            <Button onClick={() => draft.settle('theirs')}>Take theirs (undo brings mine back)</Button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

const MOST_NAMED = 6;

/** What is to be known before mine is put on top of theirs; nothing where the two go together of themselves. */
function Together({ theirs }: { readonly theirs: { readonly policy: Policy; readonly by: string } }) {
  const { draft, outline, vocabulary } = useDesk();
  const { base, policy } = draft;
  const { contested, opened, merged } = useMemo(() => {
    const merge = rebase(base, policy, theirs.policy);
    const [mine, other, both] = [policy, theirs.policy, merge.policy].map((one) =>
      compile(one, outline, vocabulary),
    );
    return {
      contested: merge.contested,
      merged: merge.policy,
      opened: mine && other && both ? openedByMerge(mine, other, both) : [],
    };
  }, [base, policy, theirs.policy, outline, vocabulary]);
  if (contested.length === 0 && opened.length === 0) return null;
  const nameOf = (one: Extract<Contested, { kind: 'changed' }>): string => {
    if (one.of === 'landing') return 'a landing rule';
    if (one.of !== 'gate') {
      const list = one.of === 'audience' ? merged.audiences : merged.turnAways;
      return `the ${one.of} ${list.find(({ id }) => id === one.id)?.name ?? ''}`;
    }
    const gate = merged.gates.find(({ id }) => id === one.id);
    return gate
      ? `the gate over ${describeGate(gate, outline, vocabulary, merged.turnAways).what}`
      : 'a gate';
  };
  const told = (one: Contested): string =>
    one.kind === 'ordered'
      ? `Both moved ${one.of === 'gates' ? 'gates' : 'landing rules'}: your order would stand.`
      : `Both changed ${nameOf(one)}: ${one.stands === 'mine' ? 'yours' : `${theirs.by}’s`} would stand.`;
  const rest = opened.length - MOST_NAMED;
  return (
    <section className="mt-6 border-iron border-t pt-4" aria-label="The two together">
      <h3 className="mb-2">Yours on top of theirs</h3>
      <ul className="grid gap-1">
        {opened.length > 0 && (
          <li>
            <strong>Less would be asked than in either version</strong> at{' '}
            {listed([
              ...opened.slice(0, MOST_NAMED).map(({ title }) => title),
              ...(rest > 0 ? [`${rest} more`] : []),
            ])}
            : somebody may get in there whom both of you keep out. Look at the board before it goes live.
          </li>
        )}
        {contested.map((one) => (
          <li key={JSON.stringify(one)}>{told(one)}</li>
        ))}
      </ul>
    </section>
  );
}

function Version({ title, policy }: { readonly title: string; readonly policy: Policy }) {
  const { draft, outline, vocabulary } = useDesk();
  const changes = difference(draft.live.policy, policy);
  const named = policy.turnAways;
  const text = (change: PolicyChange): string => {
    if (change.of === 'audience' || change.of === 'turn-away') {
      const { name } = change.kind === 'removed' ? change.before : change.after;
      return `${capital(change.kind)} ${change.of}: ${name}`;
    }
    if (change.of !== 'gate') return `Changed ${change.of}`;
    if (change.kind === 'removed')
      return `Removed: ${gateAsOneSentence(change.before, outline, vocabulary, named)}`;
    if (change.kind === 'moved')
      return `Moved: ${capital(describeGate(change.after, outline, vocabulary, named).what)}`;
    return gateAsOneSentence(change.after, outline, vocabulary, named);
  };
  return (
    <section>
      <h3 className="mb-2">{title}</h3>
      {changes.length === 0 ? (
        <p className="note">No changes.</p>
      ) : (
        <ul className="grid gap-2">
          {changes.map((change) => (
            <li key={text(change)} className="border-copper border-l-3 pl-3">
              {text(change)}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
