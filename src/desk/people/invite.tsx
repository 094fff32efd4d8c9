'use client';
/** Inviting people by mail: whoever has no password gets a link with which they choose one. */
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { counted } from '@/core';
import type { InviteAnswer, Unanswered } from '@/services';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { CrowdNames } from '../crowd';
import { ask } from '../service';
import { useAnswer } from '../use-answer';

type Invited = Exclude<InviteAnswer, { kind: 'wrong' }>;

/** Those who did not answer yet; null until that is known, and for whoever may not know. */
function useUnanswered(): readonly Unanswered[] | null {
  const { data } = useDesk();
  const [list, setList] = useState<readonly Unanswered[] | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: read again when anybody was changed
  useEffect(() => {
    const calledOff = new AbortController();
    ask<readonly Unanswered[]>('GET', 'people/invitations', undefined, calledOff.signal).then(
      (answer) => setList(answer.ok ? answer.value : null),
      () => undefined,
    );
    return () => calledOff.abort();
  }, [data]);
  return list;
}

/** Sends invitations, and says to how many. */
function useInvite(): { readonly going: boolean; readonly invite: (who: object) => Promise<void> } {
  const { reloadSite } = useDesk();
  const [going, setGoing] = useState(false);
  const invite = async (who: object) => {
    setGoing(true);
    const answer = await ask<Invited>('POST', 'people/invite', who);
    setGoing(false);
    if (!answer.ok) return void toast.error(answer.title);
    const { people } = answer.value;
    toast.success(
      `Invited ${people.count === 1 ? people.first[0]?.name : counted(people.count, 'person', 'people')} by mail. The link is good for a week.`,
    );
    await reloadSite();
  };
  return { going, invite };
}

/** Of people who are chosen, those who can’t sign in yet. */
export function InviteChosen({ who }: { readonly who: object }) {
  const { data } = useDesk();
  const answer = useAnswer<Invited>('people/invite?preview', who, data);
  const { going, invite } = useInvite();
  if (!answer?.ok || answer.value.people.count === 0) return null;
  const { people } = answer.value;
  return (
    <section aria-label="Signing in" className="grid justify-items-start gap-2 border-thin border-t pt-4">
      <p>
        <strong>{counted(people.count, 'person has no password yet', 'people have no password yet')}</strong>:{' '}
        <CrowdNames crowd={people} />
      </p>
      <Button disabled={going} onClick={() => void invite(who)}>
        Invite by mail
      </Button>
    </section>
  );
}

/** One person who can’t sign in yet. */
export function InvitePerson({ id, name }: { readonly id: string; readonly name: string }) {
  const waiting = useUnanswered();
  const { going, invite } = useInvite();
  if (waiting === null) return null;
  const before = waiting.find((one) => one.id === id);
  return (
    <section aria-label="Signing in" className="mt-4 flex flex-wrap items-baseline gap-x-3 gap-y-1">
      <span>
        {before
          ? `Was invited on ${dayOf(before.at)} and did not answer yet${before.open ? '' : '; the link is over'}.`
          : `${name} has no password yet.`}
      </span>
      <Button disabled={going} onClick={() => void invite({ ids: [id] })}>
        {before ? 'Invite again' : 'Invite by mail'}
      </Button>
    </section>
  );
}

/** Everybody who was invited and did not answer yet. */
export function Invitations() {
  const { setScreen } = useDesk();
  const waiting = useUnanswered();
  const { going, invite } = useInvite();
  if (waiting === null || waiting.length === 0) return null;
  return (
    <section className="kept">
      <h3>Invited, without an answer yet</h3>
      <ul className="grid gap-1">
        {waiting.map(({ id, name, at, open }) => (
          <li key={id} className="flex items-baseline justify-between gap-2">
            <span>
              <button
                type="button"
                className="text-left hover:text-copper"
                onClick={() => setScreen({ kind: 'person', person: id })}
              >
                {name}
              </button>{' '}
              <span className="note">
                {dayOf(at)}
                {!open && ', the link is over'}
              </span>
            </span>
            <Button weight="quiet" disabled={going} onClick={() => void invite({ ids: [id] })}>
              Invite again
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

const dayOf = (at: Date | string): string =>
  new Date(at).toLocaleDateString('en-GB', { day: 'numeric', month: 'long' });
