'use client';
/** Live, beside a condition as it is edited: how many members it is true of, who, and who only in the draft. */
import { counted } from '@/core';
import type { PassingReport } from '@/services';
import { useDesk } from '../context';
import { CrowdNames } from '../crowd';
import { useAnswer } from '../use-answer';

interface PassingProps {
  readonly of: { readonly kind: 'gate' | 'audience'; readonly id: string };
}

export function Passing({ of }: PassingProps) {
  const { draft } = useDesk();
  const answer = useAnswer<PassingReport>('passing', { of, policy: draft.policy });
  if (!answer) return <p className="note">Counting …</p>;
  if (!answer.ok) return <p className="text-alarm">{answer.title}</p>;
  const { of: all, pass, onlyInDraft, onlyLive, guestsPass, metByNobody, sentToSignIn } = answer.value;
  const share = all === 0 ? 0 : (pass.count / all) * 100;
  const gate = of.kind === 'gate';
  return (
    <div className="grid gap-1" aria-live="polite" data-testid="passing">
      <p className="flex items-center gap-3">
        <strong>
          {pass.count} of {all} members {gate ? 'pass' : 'are in it'}
        </strong>
        <span aria-hidden="true" className="h-1.5 flex-1 rounded-full bg-thin">
          <span className="block h-full rounded-full bg-open" style={{ width: `${share}%` }} />
        </span>
        <span className="text-quiet">{guestsPass ? 'guests too' : 'no guests'}</span>
      </p>
      {pass.count === 0 && !guestsPass && (
        <p className="font-semibold text-alarm">
          {gate
            ? 'Nobody passes: whatever this gate covers is closed to all.'
            : 'Nobody is in it: whatever asks for it is closed to all.'}
        </p>
      )}
      {sentToSignIn > 0 && (
        <p className="rounded-[3px] bg-wash px-3 py-1.5">
          {counted(sentToSignIn, 'member')} who {sentToSignIn === 1 ? 'is' : 'are'} signed in would be sent to
          sign in. Give them a message instead.
        </p>
      )}
      {metByNobody.map((text) => (
        <p key={text} className="rounded-[3px] bg-wash px-3 py-1.5">
          No member meets <code className="condition-text">{text}</code>.
        </p>
      ))}
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
