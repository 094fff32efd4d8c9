'use client';
/** Two versions of the draft, when somebody else saved first: both shown, neither lost. */
import { Dialog } from 'radix-ui';
import { capital, describeGate, difference, gateAsOneSentence, type Policy, type PolicyChange } from '@/core';
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
